import { createHash } from 'node:crypto';
import type { Edition } from '#contracts/edition';
import type { EditionChange } from '#contracts/review';
import { factChanges } from '#domain/review/edition-changes';
import { frozenFacts, frozenRanking } from '#domain/review/freeze';
import { sinceEdition } from '#domain/review/since-edition';
import type { KindStandings } from '../reviews/kind-standings';
import type { KeptEdition } from '../reviews/queries/review';

/** What has changed of facts that a unit has by itself, and what that follows from. */
export interface KeptSince {
  readonly key: string;
  readonly changes: readonly EditionChange[];
}

/**
 * What has changed since editions. A unit's sheet takes many questions to the archive, so what follows from it is kept
 * from one publishing to the next, by the facts that it follows from; where it stands among others is counted each time.
 */
export class SinceCache {
  readonly next = new Map<string, KeptSince>();

  /** @param known - by the hash of the edition, from the last time */
  constructor(
    private readonly known: ReadonlyMap<string, KeptSince>,
    private readonly standings: KindStandings,
    private readonly software: string,
  ) {}

  async of(unit: string, { edition, sha256 }: KeptEdition): Promise<EditionChange[]> {
    const facts = await this.standings.withoutSheet(unit);
    const { row, own } = facts;
    const { made } = edition;
    const key = createHash('sha256')
      .update(JSON.stringify([own, row.lastTested, row.takes, row.price, this.software]))
      .digest('hex');
    const known = this.known.get(sha256);
    const byItself = known?.key === key ? known.changes : await this.byItself(unit, edition);
    this.next.set(sha256, { key, changes: byItself });
    const nothing = { figures: [], price: null };
    const among = factChanges(
      { ...nothing, ranking: edition.ranking, made },
      { ...nothing, ranking: frozenRanking(facts), made },
    );
    return [...byItself, ...among];
  }

  /** Figures, price, events, version of measuring; not where it stands. */
  private async byItself(unit: string, edition: Edition): Promise<EditionChange[]> {
    const facts = await this.standings.factsOf(unit);
    const { ranking } = edition;
    return sinceEdition(edition, { ...frozenFacts(facts, this.software), ranking }, facts.sheet.events);
  }
}
