import type { Category } from '#contracts/common';
import { unitName } from '#contracts/unit-name';
import { csvText, type CsvStyle } from '#domain/tables/csv';
import { boardTable, rankingTable } from '#domain/tables/ranking-table';
import type { Catalogue } from '../catalogue/catalogue';
import type { KindStandings } from '../reviews/kind-standings';

/** Tables of a kind as files. */
export class KindTables {
  constructor(
    private readonly catalogue: Catalogue,
    private readonly standings: KindStandings,
  ) {}

  /** @throws Failure `not-found` where the kind has no rules */
  async ranking(category: Category, style: CsvStyle): Promise<string> {
    const inputs = await this.catalogue.rankingInputs(category);
    const { ranked } = await this.standings.ofKind(inputs);
    return csvText(rankingTable(ranked, inputs), style);
  }

  /** @throws Failure `not-found` where the kind has no rules */
  async board(category: Category, style: CsvStyle): Promise<string> {
    const { units, names } = await this.catalogue.rankingInputs(category);
    return csvText(
      boardTable(units, (id) => unitName(names[id])),
      style,
    );
  }
}
