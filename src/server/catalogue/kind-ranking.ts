import type { UnitFacts } from '#core/rules/criterion-points';
import type { Standings } from '#core/rules/ranking-memory';
import type { Rubric } from '#core/rules/rubric';
import type { RankUnitsTask } from '#worker/tasks/rank-units';
import type { WorkerPool } from '../platform/worker-pool';

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
  private points = new Map<string, readonly (number | null)[]>();
  private revision: number | null = null;

  constructor(
    private readonly key: string,
    private readonly pool: WorkerPool,
  ) {}

  /** @param units - facts of every unit; the same object as the last time where nothing about it has changed */
  async rank(units: readonly UnitFacts[], rubric: Rubric): Promise<RankedKind> {
    const ids = units.map((u) => u.id);
    const changed = units.filter((u) => !this.told.has(u));
    const ask = (task: Pick<RankUnitsTask, 'changed' | 'after'>) =>
      this.pool.run('rank-units', { key: this.key, rubric, ids, ...task });
    const again = this.revision === null ? null : await ask({ changed, after: this.revision });
    const result = again ?? (await ask({ changed: units, after: null }));
    if (!result) throw new Error(`the worker ranked nothing of ${this.key}`);
    this.revision = result.revision;
    this.told = new Set(units);
    // Kept only for units that are still there.
    this.points = new Map(ids.map((id) => [id, result.points[id] ?? this.points.get(id) ?? []]));
    return { rubric, standings: standingsOf(ids, result.standings), points: this.points };
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
