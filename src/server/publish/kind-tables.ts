import type { Category } from '#contracts/common';
import type { BoardExport, RankingExport } from '#contracts/kind-tables';
import { unitName } from '#contracts/unit-name';
import { csvText, type CsvStyle } from '#domain/tables/csv';
import { boardExport, boardTable, rankingExport, rankingTable } from '#domain/tables/ranking-table';
import type { Catalogue } from '../catalogue/catalogue';
import type { Clock } from '../platform/clock';
import type { KindStandings } from '../reviews/kind-standings';

/** Tables of a kind as files: by its saved rules, today. */
export class KindTables {
  constructor(
    private readonly catalogue: Catalogue,
    private readonly standings: KindStandings,
    private readonly clock: Clock,
  ) {}

  /** @throws Failure `not-found` where the kind has no rules */
  async ranking(category: Category): Promise<RankingExport> {
    const inputs = await this.catalogue.rankingInputs(category);
    const { ranked } = await this.standings.ofKind(inputs);
    return rankingExport(ranked, inputs, this.clock.today());
  }

  /** @throws Failure `not-found` where the kind has no rules */
  async board(category: Category): Promise<BoardExport> {
    const { units, names } = await this.catalogue.rankingInputs(category);
    return boardExport(units, (id) => unitName(names[id]), { category, day: this.clock.today() });
  }

  /** @throws Failure `not-found` where the kind has no rules */
  async csv(table: 'ranking' | 'board', category: Category, style: CsvStyle): Promise<string> {
    const rows = table === 'ranking' ? rankingTable(await this.ranking(category)) : boardTable(await this.board(category)); // prettier-ignore
    return csvText(rows, style);
  }
}
