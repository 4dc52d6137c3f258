import type { HeardFact } from '#core/rules/heard-points';
import { quantile } from '#core/stats/quantile';
import type { RankHeardResult, RankHeardTask } from '#worker/tasks/rank-heard';
import { currentRubric } from '../catalogue/queries/rubric';
import type { Clock } from '../platform/clock';
import type { Database } from '../platform/db/database';
import type { Change, Memories, Remembered } from '../platform/memory';
import type { WorkerPool } from '../platform/worker-pool';
import type { AnswerChoice, Gathered } from './heard-answers';

/** Rule by which heard units form strata where the category has no rubric. */
const STRATUM_PROBABILITY = 0.9;

/** The model over gathered answers, fitted by a thread that remembers the last fit. */
export class ScaleFit implements Remembered {
  readonly what = 'answers that the thread of the scale has';
  /** Answers that the thread was sent, by key. */
  private sent = new Map<string, { readonly count: number; readonly lastId: number }>();

  constructor(
    private readonly database: Database,
    /** One thread: it remembers the last fit. */
    private readonly pool: WorkerPool,
    private readonly clock: Clock,
    memories: Memories,
  ) {
    memories.add(this);
  }

  told({ cause }: Change): void {
    if (cause === 'answers') this.forget();
  }

  forget(): void {
    // Another map: a fit that is being made was told what is forgotten now.
    this.sent = new Map();
  }

  /**
   * @param request - which answers
   * @param gathered - they themselves
   * @param place - the unit to be placed; null for the scale alone
   * @param withEffects - also what should not matter
   * @param among - places are those among these of the units; null: among all
   */
  async rank(
    request: AnswerChoice,
    gathered: Gathered,
    place: RankHeardTask['place'],
    withEffects = false,
    among: RankHeardTask['among'] = null,
  ): Promise<RankHeardResult> {
    const { category, attribute, voice, use, halfLifeYears, until } = request;
    const { units, blind, sighted } = gathered;
    const { sent } = this;
    const rubric = (await currentRubric(this.database, category))?.rubric;
    // Answers that fade weigh less every day.
    const day = halfLifeYears === null ? null : this.clock.today();
    const task: RankHeardTask = {
      key: JSON.stringify([
        category,
        attribute,
        voice,
        use,
        halfLifeYears,
        day,
        until ?? null,
        units.map((u) => u.id).join(),
      ]),
      units: units.length,
      answers: blind,
      sighted,
      stratumProbability: rubric?.stratumProbability ?? STRATUM_PROBABILITY,
      among,
      withEffects,
      place,
    };
    const result = (await this.rankAfter(task)) ?? (await this.pool.run('rank-heard', task));
    if (!result) throw new Error('the worker ranked nothing');
    sent.set(task.key, { count: blind.length, lastId: blind.at(-1)?.id ?? 0 });
    return result;
  }

  /** Sends only what the thread does not have: of fifty thousand answers, copying them would take longest. */
  private async rankAfter(task: RankHeardTask): Promise<RankHeardResult | null> {
    const after = this.sent.get(task.key);
    const isNext = after && after.count > 0 && task.answers.at(after.count - 1)?.id === after.lastId;
    if (task.withEffects || !isNext) return null;
    const rest: RankHeardTask = { ...task, answers: task.answers.slice(after.count), sighted: [], after };
    return this.pool.run('rank-heard', rest);
  }
}

/** Worths against the middle of the scale, with the answers that stand for each. */
export function factsOf(result: RankHeardResult, { units, blind }: Gathered): Map<string, HeardFact> {
  const middle = quantile(
    result.items.map((i) => i.logWorth),
    0.5,
  );
  const answers = new Map<number, number>();
  for (const { items, weight } of blind) for (const i of items) answers.set(i, (answers.get(i) ?? 0) + weight);
  return new Map(
    units.map((u, i) => [
      u.id,
      { logWorth: result.items[i].logWorth - middle, se: result.items[i].se, answers: Math.round(answers.get(i) ?? 0) },
    ]),
  );
}
