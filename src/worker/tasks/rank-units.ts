import type { UnitFacts } from '#core/rules/criterion-points';
import { RankingMemory, type Standings } from '#core/rules/ranking-memory';
import type { Rubric } from '#core/rules/rubric';

/** Order to a worker: rank a kind of gear. */
export interface RankUnitsTask {
  /** Whose ranking it is: a thread remembers one for each. */
  readonly key: string;
  readonly rubric: Rubric;
  /** Every unit, in any order; null: those of the last ranking, in the same order. */
  readonly ids: readonly string[] | null;
  /** Facts of those that the thread does not have as they are now. */
  readonly changed: readonly UnitFacts[];
  /** The thread was told of all others under this number; null: `changed` are all. */
  readonly after: number | null;
}

/** Where every unit stands, and what it has its place by. */
export interface RankUnitsResult {
  readonly revision: number;
  readonly standings: Standings;
  /** Of the changed units: points per criterion of the rubric, null where they are missing. */
  readonly points: Readonly<Record<string, readonly (number | null)[]>>;
}

interface Remembered {
  readonly revision: number;
  readonly ids: readonly string[];
  readonly facts: Map<string, UnitFacts>;
  readonly memory: RankingMemory;
}
const remembered = new Map<string, Remembered>();
let revisions = 0;

/** @returns null where `after` is asked for and the thread does not remember it: then all facts have to be sent */
export default function rankUnitsTask(task: RankUnitsTask): RankUnitsResult | null {
  const { key, rubric, changed, after } = task;
  const before = remembered.get(key);
  if (after !== null && before?.revision !== after) return null;
  const { facts, memory } =
    after !== null && before ? before : { facts: new Map<string, UnitFacts>(), memory: new RankingMemory() };
  const ids = task.ids ?? before?.ids ?? [];
  for (const unit of changed) facts.set(unit.id, unit);
  const units = ids.flatMap((id) => facts.get(id) ?? []);
  if (units.length !== ids.length) return null;
  const standings = memory.rank(units, rubric);
  const revision = ++revisions;
  remembered.set(key, { revision, ids, facts, memory });
  return {
    revision,
    standings,
    points: Object.fromEntries(changed.map(({ id }) => [id, memory.pointsOf(id).map((p) => p.points)])),
  };
}
