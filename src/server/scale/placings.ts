import type { z } from 'zod';
import { ALGORITHM_VERSION } from '#core/measure/registry';
import { meanMeasuredPoints } from '#core/rules/measured-points';
import type { PlacingGoal } from '#core/rules/placing-goal';
import type { Category } from '#contracts/common';
import type { Placing, placeAnswerSchema, placeRequestSchema, placeUndoSchema } from '#contracts/scale';
import { placedAnswer } from '#domain/scale/placed-answer';
import { currentRubric } from '../catalogue/queries/rubric';
import { processingOfRow } from '../runs/take-settings';
import { stepTakes } from '../compare/queries/compare';
import { ensureListener } from '../listening/queries/listening';
import type { Clock } from '../platform/clock';
import type { Database } from '../platform/db/database';
import { Failure } from '../platform/failure';
import type { Gathered, HeardAnswers, HeardUnit } from './heard-answers';
import type { HeardScale } from './heard-scale';
import { newestFigures } from './newest-figures';
import { insertHeard, removeLastPlacing } from './queries/heard';
import { factsOf, type ScaleFit } from './scale-fit';

/** Where a new unit settles on the scale, question by question. */
export class Placings {
  constructor(
    private readonly database: Database,
    private readonly answers: HeardAnswers,
    private readonly fit: ScaleFit,
    private readonly scale: HeardScale,
    private readonly clock: Clock,
  ) {}

  /**
   * Where a unit settles, and the pair or heat that would narrow its place most.
   *
   * @throws Failure `not-found`
   */
  async place(specimenId: string, sent: z.output<typeof placeRequestSchema>): Promise<Placing> {
    const own = await this.answers.unit(specimenId);
    // Its own kind is what a unit is placed in, whatever was asked for.
    const request = { ...sent, category: own.category };
    const takes = await this.newestTakes(request.category, request.step);
    const gathered = await this.answers.gather(request, [own]);
    const unit = gathered.units.findIndex((u) => u.id === specimenId);
    const opponents = gathered.units.flatMap((u, i) => (i !== unit && takes.has(u.id) ? [i] : []));
    const than = this.yardstick(request, gathered, unit);
    const goal: PlacingGoal = request.goal !== 'beats' ? { kind: request.goal } : than === null ? { kind: 'half' } : { kind: 'beats', than }; // prettier-ignore
    const points = request.usesFigures ? await this.measuredPoints(request.category, gathered.units) : null;
    const result = await this.fit.rank(request, gathered, { unit, opponents, kind: request.kind, goal, points });
    const placing = result.placing;
    if (!placing) throw new Error('the worker placed nothing');
    const ownTake = takes.get(specimenId);
    const question = placing.question && ownTake ? placing.question : null;
    return {
      specimenId,
      name: own.name,
      answers: factsOf(result, gathered).get(specimenId)?.answers ?? 0,
      place90: [...placing.place90],
      units: gathered.units.length,
      strata: placing.strata,
      likeliest: placing.likeliest,
      probabilities: [...placing.probabilities],
      isSettled: placing.isSettled,
      goal: {
        kind: goal.kind,
        than: goal.kind === 'beats' ? gathered.units[goal.than].name : null,
        answer: placing.standing.answer,
        probability: placing.standing.probability,
        isSettled: placing.standing.isSettled,
        expected: placing.expected,
      },
      hint: placing.hint,
      listeners: result.listeners,
      others: gathered.units.filter((u) => u.id !== specimenId).map(({ id, name }) => ({ id, name })),
      question: question && {
        kind: question.items.length > 2 ? 'heat' : 'pair',
        takes: question.items.map((i) => ({
          takeId: takes.get(gathered.units[i].id) ?? '',
          specimenId: gathered.units[i].id,
        })),
        sdNow: placing.sdNow,
        sdAfter: question.sdAfter,
      },
      problem: ownTake
        ? opponents.length === 0
          ? 'No other unit that was heard has a clip of this step.'
          : null
        : 'This unit has no measured clip of this step.',
    };
  }

  /** The unit that the new one is held against: as asked for, or the one with the most answers. */
  private yardstick(
    request: z.output<typeof placeRequestSchema>,
    { units, blind }: Gathered,
    unit: number,
  ): number | null {
    const asked = units.findIndex((u) => u.id === request.than);
    if (asked >= 0 && asked !== unit) return asked;
    const answers = new Map<number, number>();
    for (const { items } of blind) for (const i of items) if (i !== unit) answers.set(i, (answers.get(i) ?? 0) + 1);
    return [...answers].reduce<[number, number] | null>((a, b) => (a && a[1] >= b[1] ? a : b), null)?.[0] ?? null;
  }

  /** Mean points of what was measured of each unit, by the rubric's weights; null where nothing was. */
  private async measuredPoints(category: Category, units: readonly HeardUnit[]): Promise<(number | null)[]> {
    const rubric = (await currentRubric(this.database, category))?.rubric;
    const facts = await newestFigures(this.database);
    return units.map(({ id }) => {
      const own = new Map(facts.filter((f) => f.specimen_id === id).map((f) => [f.quantity, f.value]));
      return rubric ? meanMeasuredPoints(rubric, own) : null;
    });
  }

  /**
   * Keeps the answer to a question of {@link place}, and gives the next one.
   *
   * @throws Failure `invalid-request`
   */
  async placeAnswer(specimenId: string, sent: z.output<typeof placeAnswerSchema>): Promise<Placing> {
    const { category } = await this.answers.unit(specimenId);
    const answer = placedAnswer(specimenId, sent);
    if ('refusal' in answer) throw new Failure('invalid-request', answer.refusal);
    await this.database.transaction(async (tx) => {
      const listenerId = await ensureListener(tx, sent.listener);
      await insertHeard(tx, [
        {
          trialId: null,
          listenerId,
          source: 'placing',
          importKey: null,
          attribute: sent.attribute,
          voice: sent.voice,
          use: sent.use,
          category,
          ...answer,
          weight: 1,
          sighted: false,
          day: this.clock.today(),
          placingId: sent.placing,
        },
      ]);
    });
    this.scale.changed(sent.order);
    return this.place(specimenId, sent);
  }

  /**
   * Takes back the last answer of this listener in this placing; nobody else's, and of no other placing.
   *
   * @throws Failure `not-found` where there is none
   */
  async placeUndo(specimenId: string, request: z.output<typeof placeUndoSchema>): Promise<Placing> {
    const isRemoved = await this.database.transaction(async (tx) => {
      const listenerId = await ensureListener(tx, request.listener);
      const { placing: placingId, attribute } = request;
      return removeLastPlacing(tx, { placingId, specimenId, listenerId, attribute }, this.clock.now());
    });
    if (!isRemoved) throw new Failure('not-found', `${request.listener} has given no answer in this placing.`);
    this.scale.changed([specimenId], true);
    return this.place(specimenId, request);
  }

  /** The newest take of a step as it came, per unit. */
  private async newestTakes(category: string, step: string): Promise<Map<string, string>> {
    const newest = new Map<string, string>();
    for (const take of await stepTakes(this.database, category, step, ALGORITHM_VERSION))
      if (!newest.has(take.specimen_id) && processingOfRow(take) === null) newest.set(take.specimen_id, take.take_id);
    return newest;
  }
}
