import type { UnitFacts } from '#core/rules/criterion-points';
import type { Standings } from '#core/rules/ranking-memory';
import type { Rubric } from '#core/rules/rubric';
import type { RankUnitsResult, RankUnitsTask } from '#worker/tasks/rank-units';

/** Where a unit stands among its kind. */
export interface Standing {
  readonly id: string;
  readonly place: number;
  readonly stratum: number;
  readonly composite: number;
  readonly sd: number;
  readonly rank90: readonly [number, number];
  readonly beatsNext: number | null;
}

/** A kind in order, with what each place is made of. */
export interface RankedKind {
  readonly rubric: Rubric;
  /** Best first. */
  readonly standings: readonly Standing[];
  /** Per unit and criterion of the rubric; null where they are missing. */
  readonly points: ReadonlyMap<string, readonly (number | null)[]>;
}

/**
 * The ranking of one kind, made by a thread that remembers the last one: only facts that have changed are sent, and
 * only what they change is made anew. A thread that does not remember is told everything.
 */
export class KindRanking {
  /** What the thread was told under `revision`: the very objects. */
  private told: ReadonlySet<UnitFacts> = new Set();
  private ids: readonly string[] = [];
  private points: RankedKind['points'] = new Map();
  private revision: number | null = null;

  constructor(
    private readonly key: string,
    /** Asks a thread; null where it does not remember what it is to go on from. */
    private readonly rankInThread: (task: RankUnitsTask) => Promise<RankUnitsResult | null>,
  ) {}

  /** @param units - facts of every unit; the same object as the last time where nothing about it has changed */
  async rank(units: readonly UnitFacts[], rubric: Rubric): Promise<RankedKind> {
    const isSameUnits = units.length === this.ids.length && units.every((u, i) => u.id === this.ids[i]);
    const ids = isSameUnits ? this.ids : units.map((u) => u.id);
    const changed = units.filter((u) => !this.told.has(u));
    const ask = (task: Pick<RankUnitsTask, 'ids' | 'changed' | 'after'>) =>
      this.rankInThread({ key: this.key, rubric, ...task });
    const told = isSameUnits ? null : ids;
    const again = this.revision === null ? null : await ask({ ids: told, changed, after: this.revision });
    const result = again ?? (await ask({ ids, changed: units, after: null }));
    if (!result) throw new Error(`the worker ranked nothing of ${this.key}`);
    this.revision = result.revision;
    if (!isSameUnits || changed.length > 0) this.told = new Set(units);
    this.points = isSameUnits && changed.length === 0 ? this.points : this.pointsOf(ids, result.points);
    this.ids = ids;
    return { rubric, standings: standingsOf(ids, result.standings), points: this.points };
  }

  /** Kept only for units that are still there; what was handed out before stays as it was. */
  private pointsOf(ids: readonly string[], changed: RankUnitsResult['points']): RankedKind['points'] {
    return new Map(ids.map((id) => [id, changed[id] ?? this.points.get(id) ?? []]));
  }
}

function standingsOf(ids: readonly string[], columns: Standings): Standing[] {
  return Array.from(columns.order, (u, at) => ({
    id: ids[u],
    place: at + 1,
    stratum: columns.stratum[at],
    composite: columns.composite[at],
    sd: columns.sd[at],
    rank90: [columns.rank5[at], columns.rank95[at]] as const,
    beatsNext: at + 1 < ids.length ? columns.beatsNext[at] : null,
  }));
}
