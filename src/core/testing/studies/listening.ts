import { AnswerTable } from '../../stats/comparison-answers';
import { fitWorths } from '../../stats/fit-worths';
import { ListenerAnswers, listenerScatter } from '../../stats/listener-scatter';
import { standardNormal } from '../../stats/normal';
import { seededBits, uniform } from '../../stats/random';
import { rankDistribution } from '../../stats/place-distribution';
import { standardErrors, worthPosterior } from '../../stats/worth-posterior';

/** How often stated 90 % intervals hold the truth. */
export interface IntervalCoverage {
  readonly design: string;
  readonly logWorth: number;
  readonly place: number;
  /** The same if answers, not listeners, were counted. */
  readonly byAnswers: { readonly logWorth: number; readonly place: number };
}

/** A design of listening. */
export interface ListeningDesign {
  readonly items: number;
  readonly listeners: number;
  readonly answersEach: number;
  /** Deviation of a listener's log worths about those of all. */
  readonly tasteSd: number;
  /** Whether answers fade over four half-lives. */
  readonly fades?: boolean;
}

const NINETY = 1.6448536269514722;
/** Slope of a logistic curve that is averaged over normal tastes (Zeger, Liang & Albert, Biometrics 44, 1988). */
const AVERAGED = 0.346;

/**
 * Answers of listeners who each have a taste of their own. The truth is the log odds with which a listener drawn at
 * random prefers one thing, which is what a scale of all answers estimates.
 */
export function listeningStudy(design: ListeningDesign, trials: number): IntervalCoverage {
  const { items, listeners, answersEach, tasteSd, fades = false } = design;
  const inside = { logWorth: 0, place: 0, answersLog: 0, answersPlace: 0 };
  const averaged = 1 / Math.sqrt(1 + AVERAGED * 2 * tasteSd ** 2);
  for (let t = 0; t < trials; t++) {
    const bits = seededBits(`listening ${JSON.stringify(design)} ${t}`);
    const own = Array.from({ length: items }, () => 1.5 * standardNormal(bits));
    const table = new AnswerTable(items);
    const all = Array.from({ length: listeners }, () => {
      const taste = own.map((w) => w + tasteSd * standardNormal(bits));
      const answers = new ListenerAnswers();
      for (let k = 0; k < answersEach; k++) {
        const a = Math.floor(uniform(bits) * items);
        const b = (a + 1 + Math.floor(uniform(bits) * (items - 1))) % items;
        const outcome = uniform(bits) < 1 / (1 + Math.exp(taste[b] - taste[a])) ? 1 : 0;
        const weight = fades ? 2 ** ((-4 * k) / answersEach) : 1;
        for (const into of [table, answers]) into.addPair({ a, b, outcome, tiesAllowed: false, weight });
      }
      return answers;
    });
    const fit = fitWorths(table);
    const truth = own.map((w) => averaged * w);
    const centre = truth.reduce((s, w) => s + w, 0) / items;
    const places = truth.map((w) => 1 + truth.filter((v) => v > w).length);
    const count = (listenersToo: boolean): [number, number] => {
      const posterior = worthPosterior(fit, { listeners: listenersToo ? listenerScatter(fit, all) : null });
      const se = standardErrors(posterior);
      const spread = rankDistribution(posterior.draws);
      const logs = truth.filter((w, i) => Math.abs(fit.logWorth[i] - (w - centre)) <= NINETY * se[i]).length;
      const held = places.filter((p, i) => p >= spread[i].interval[0] && p <= spread[i].interval[1]).length;
      return [logs / items / trials, held / items / trials];
    };
    const [log, place] = count(true);
    const [answersLog, answersPlace] = count(false);
    inside.logWorth += log;
    inside.place += place;
    inside.answersLog += answersLog;
    inside.answersPlace += answersPlace;
  }
  const name = `${listeners} ${listeners === 1 ? 'listener' : 'listeners'} × ${answersEach} answers about ${items}, tastes ±${tasteSd}${fades ? ', fading' : ''}`;
  return {
    design: name,
    logWorth: inside.logWorth,
    place: inside.place,
    byAnswers: { logWorth: inside.answersLog, place: inside.answersPlace },
  };
}
