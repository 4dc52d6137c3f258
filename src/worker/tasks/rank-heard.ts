import { placementOf, stratumBounds, type Placement } from '#core/rules/placement';
import {
  borderDistances,
  expectedQuestions,
  goalStanding,
  type ExpectedQuestions,
  type GoalStanding,
  type PlacingGoal,
} from '#core/rules/placing-goal';
import { probabilityOfBeating, strataOf } from '#core/rules/strata';
import { AnswerTable } from '#core/stats/comparison-answers';
import { comparisonGraph, type Bridge } from '#core/stats/comparison-graph';
import { fitWorths, USUAL_PENALTY } from '#core/stats/fit-worths';
import { listenerScatter, ListenerAnswers } from '#core/stats/listener-scatter';
import { distanceVariance, nextHeat, nextPair, placesOf } from '#core/stats/next-question';
import { hintFromPoints, withHint, type WorthHint } from '#core/stats/observed-worth';
import { standardDeviation } from '#core/stats/moments';
import { answerEffect, type AnswerEffect } from '#core/stats/answer-effect';
import { toldByOrder, updatedPosterior, worthPosterior, type WorthPosterior } from '#core/stats/worth-posterior';
import { placesAmong, scaleFrom, type ScaleItem } from '#core/stats/worth-scale';
import type { WorthFit } from '#core/stats/fit-worths';

/** An answer with indices in place of units. */
export interface IndexedAnswer {
  readonly id: number;
  /** As given for a pair, best first for an order. */
  readonly items: readonly number[];
  /** Null for an order. */
  readonly outcome: 1 | 0.5 | 0 | null;
  readonly tiesAllowed: boolean;
  readonly weight: number;
  /** Whose answer it is; −1 where nobody noted it. */
  readonly listener: number;
  /** Place in which each was offered, residual level in LU, whether it is a yardstick known by name. */
  readonly circumstances: readonly (readonly [place: number, levelLu: number, isNamed: 0 | 1])[];
}

/** Order to a worker: one scale over all answers. */
export interface RankHeardTask {
  /** The same key, with the same units and answers that only grow, lets a thread go on from where it was. */
  readonly key: string;
  readonly units: number;
  readonly answers: readonly IndexedAnswer[];
  /** The thread has so many answers under this key already, the last of them this one: `answers` are those after it. */
  readonly after?: { readonly count: number; readonly lastId: number };
  /** Given with names shown: not on the scale, but they tell what a name does. */
  readonly sighted: readonly IndexedAnswer[];
  readonly stratumProbability: number;
  /** Places and strata are those among these units; null: among all. */
  readonly among: readonly number[] | null;
  readonly withEffects: boolean;
  /** The unit to be placed, who may be asked about, and how. */
  readonly place: {
    readonly unit: number;
    readonly opponents: readonly number[];
    readonly kind: 'pair' | 'heat';
    readonly goal: PlacingGoal;
    /** Measured points of every unit, for a hint at where to begin; null where the person wants none. */
    readonly points: readonly (number | null)[] | null;
  } | null;
}

export interface RankHeardResult {
  readonly items: readonly (ScaleItem & { readonly stratum: number })[];
  readonly components: number;
  readonly bridges: readonly Bridge[];
  readonly tie: number;
  /** Deviation of a listener's own log worths about those of all, and how many listeners stand for it. */
  readonly tasteSd: number;
  readonly listeners: number;
  readonly iterations: number;
  readonly logLikelihood: number;
  readonly effects: readonly (AnswerEffect & { readonly name: 'order' | 'level' | 'sighted' })[];
  readonly placing:
    | (Placement & {
        readonly question: { readonly items: readonly number[]; readonly sdAfter: number } | null;
        readonly sdNow: number;
        readonly standing: GoalStanding;
        readonly expected: ExpectedQuestions | null;
        readonly hint: WorthHint | null;
      })
    | null;
}

/** What a thread remembers of the last scale, so that one more answer costs little. */
interface Warm {
  readonly key: string;
  readonly table: AnswerTable;
  readonly ids: readonly number[];
  readonly listeners: ReadonlyMap<number, ListenerAnswers>;
  readonly fit: WorthFit;
  /** Of these listeners: what they would say again. Places new units. */
  readonly posterior: WorthPosterior;
  /** Answers since the curvature was computed whole. */
  readonly since: number;
}
const warm = new Map<string, Warm>();
const MOST_WARM = 4;
/** After so many quick answers the covariance is computed whole again: until then the others' curvature is held. */
const MOST_QUICK = 5;
/** Up to so many units the whole computation is quick enough to be done every time. */
const FEW_UNITS = 300;

/**
 * Fits, ranks, and proposes the next question.
 *
 * @returns null where `after` is asked for and the thread does not remember it: then all answers have to be sent
 */
export default function rankHeard(task: RankHeardTask): RankHeardResult | null {
  const remembered = fitted(task);
  if (!remembered) return null;
  const { fit, table, listeners } = remembered;
  const scatter = listenerScatter(fit, [...listeners.values()]);
  // A place on the scale is one for any listener; a new unit is placed as those hear it who answer.
  const posterior = task.place ? remembered.posterior : worthPosterior(fit, { listeners: scatter });
  const graph = comparisonGraph(table);
  const scale = scaleFrom(fit, posterior, graph);
  const { among } = task;
  const places = new Map(among && placesAmong(fit.logWorth, posterior, among).map((place, i) => [among[i], place]));
  const items = scale.items.map((item, i) => ({ ...item, ...places.get(i) }));
  const order = [...(among ?? items.keys())].sort((a, b) => items[a].place - items[b].place);
  const strata = strataOf(
    order.map((i) => posterior.draws[i]),
    task.stratumProbability,
    probabilityOfBeating,
  );
  const stratumOf = new Map(order.map((item, i) => [item, strata[i]]));
  return {
    items: items.map((item, i) => ({ ...item, stratum: stratumOf.get(i) ?? 1 })),
    components: graph.components,
    bridges: graph.bridges,
    tie: fit.tie,
    tasteSd: scatter.tasteSd,
    listeners: scatter.listeners,
    iterations: fit.iterations,
    logLikelihood: fit.logLikelihood,
    effects: task.withEffects ? effects(task) : [],
    placing: task.place && placing(task, task.place, fit, posterior),
  };
}

function fitted(task: RankHeardTask): Warm | null {
  const next = task.after ? continued(task, task.after) : begun(task);
  if (!next) return null;
  warm.delete(task.key);
  warm.set(task.key, next);
  for (const key of warm.keys()) if (warm.size > MOST_WARM) warm.delete(key);
  return next;
}

function continued(task: RankHeardTask, after: NonNullable<RankHeardTask['after']>): Warm | null {
  const before = warm.get(task.key);
  const isKnown =
    before?.table.items === task.units && before.ids.length === after.count && before.ids.at(-1) === after.lastId;
  return isKnown ? grown(before, task.answers) : null;
}

/** From all answers: where those of the last time are among them, from there on. */
function begun(task: RankHeardTask): Warm {
  const before = warm.get(task.key);
  const ids = task.answers.map((a) => a.id);
  const isGrown =
    before?.table.items === task.units && before.ids.length <= ids.length && before.ids.every((id, i) => id === ids[i]);
  return isGrown ? grown(before, task.answers.slice(before.ids.length)) : whole(task, ids);
}

function whole(task: RankHeardTask, ids: readonly number[]): Warm {
  const table = new AnswerTable(task.units);
  const listeners = new Map<number, ListenerAnswers>();
  for (const answer of task.answers) addTo(table, listeners, answer);
  const fit = fitWorths(table);
  return { key: task.key, table, listeners, ids, fit, posterior: worthPosterior(fit), since: 0 };
}

function grown(before: Warm, added: readonly IndexedAnswer[]): Warm {
  if (added.length === 0) return before;
  const { table, listeners } = before;
  const own = new Map(listeners);
  for (const answer of added) addTo(table, own, answer);
  const ids = [...before.ids, ...added.map((a) => a.id)];
  const fit = fitWorths(before.table, USUAL_PENALTY, before.fit.parameters, before.posterior.covariance);
  const since = before.since + added.length;
  if (before.table.items <= FEW_UNITS || since > MOST_QUICK)
    return { ...before, listeners: own, ids, fit, posterior: worthPosterior(fit), since: 0 };
  const told = added.flatMap((a) => toldByOrder(fit.logWorth, a.items, a.weight));
  const posterior = updatedPosterior(before.posterior, before.fit.logWorth, fit.logWorth, told);
  return { ...before, listeners: own, ids, fit, posterior, since };
}

function addTo(table: AnswerTable, listeners: Map<number, ListenerAnswers>, answer: IndexedAnswer): void {
  const { items, outcome, tiesAllowed, weight, listener } = answer;
  const own = listeners.get(listener) ?? new ListenerAnswers();
  listeners.set(listener, own);
  for (const into of [table, own])
    if (outcome === null) into.addOrder({ items, weight });
    else into.addPair({ a: items[0], b: items[1], outcome, tiesAllowed, weight });
}

/** Smaller contrasts tell nothing: levels that were matched to a hundredth of a LU cannot show what a LU does. */
const LEAST_CONTRAST = { order: 1, level: 0.05, sighted: 1 } as const;

/** Each effect by itself, over the answers that tell of it. */
function effects(task: RankHeardTask): RankHeardResult['effects'] {
  const names = ['order', 'level', 'sighted'] as const;
  return names.flatMap((name, c) => {
    const all = name === 'sighted' ? [...task.answers, ...task.sighted] : task.answers;
    const telling = all.filter(
      (a) =>
        a.circumstances.length === a.items.length &&
        a.circumstances.some((x) => Math.abs(x[c] - a.circumstances[0][c]) >= LEAST_CONTRAST[name]),
    );
    // Fewer answers tell nothing that could be believed.
    if (telling.length < 20) return [];
    const effect = answerEffect(
      task.units,
      all.map((a) => ({
        ...a,
        // Being heard first: the first place against all others.
        covariate: a.items.map((_, i) => {
          const value = a.circumstances.at(i)?.[c] ?? 0;
          return name === 'order' ? (a.circumstances.length > 0 && value === 0 ? 1 : 0) : value;
        }),
      })),
    );
    return [{ ...effect, name, answers: telling.length }];
  });
}

function placing(
  task: RankHeardTask,
  { unit, opponents, kind, goal, points }: NonNullable<RankHeardTask['place']>,
  fit: WorthFit,
  before: WorthPosterior,
): RankHeardResult['placing'] {
  const { stratumProbability } = task;
  const bounds = stratumBounds(fit.logWorth, before.draws, unit, stratumProbability);
  const hint = points && hintFromPoints(fit.logWorth, points, unit);
  const { logWorth, posterior } = hint ? withHint(fit.logWorth, before, unit, hint) : { logWorth: fit.logWorth, posterior: before }; // prettier-ignore
  const placement = placementOf(posterior.draws, unit, bounds, stratumProbability);
  const standing = goalStanding(logWorth, posterior.draws, unit, goal, bounds, stratumProbability);
  const state = { logWorth, posterior, tie: kind === 'pair' ? fit.tie : 0 };
  const heat = kind === 'heat' ? nextHeat(state, unit, opponents, standing.border) : null;
  const question = heat ?? nextPair(state, unit, opponents, standing.border);
  return {
    ...placement,
    standing,
    hint,
    sdNow: standardDeviation(placesOf(posterior.draws, unit)),
    question: question && { items: question.items, sdAfter: question.expectedSd },
    expected:
      question && !standing.isSettled
        ? expectedQuestions(
            borderDistances(posterior.draws, unit, standing.borders),
            distanceVariance(posterior, unit, standing.border),
            question.gain,
            stratumProbability,
          )
        : null,
  };
}
