import {
  abxWords,
  agreementWords,
  consistencyWords,
  matchingWords,
  sequentialAbxWords,
  timesIn,
} from '#core/rules/listening/plain-words';
import { ABX_DEFAULTS, abxResult, sequentialAbx } from '#core/stats/abx';
import { agreement } from '#core/stats/agreement';
import { binomialTail } from '#core/stats/binomial';
import { consistency } from '#core/stats/circular-triads';
import { AnswerTable } from '#core/stats/comparison-answers';
import { matchingTail, matchingTailOfRounds } from '#core/stats/matching';
import { SCREENING, screenListeners, summariseRatings, type RatedTrial } from '#core/stats/rating-screening';
import { comparisonGraph } from '#core/stats/comparison-graph';
import { fitWorths } from '#core/stats/fit-worths';
import { ListenerAnswers, listenerScatter } from '#core/stats/listener-scatter';
import { worthPosterior } from '#core/stats/worth-posterior';
import { scaleFrom } from '#core/stats/worth-scale';
import type { Answer, NewTest, Reveal, TestPage, TrialDocument } from '#contracts/listening';
import { codeOf, heardFromAnswer, heardItem, isRight, itemOfCode, orderOf } from './heard-from-answer';
import { packReveal, packSentences } from './pack-result';
import { panelSentences } from './panel/panel-sentences';
import { isRanked } from './trial-plan';
import type { ItemRow } from './test-item';
import type { SittingRow } from './sitting';

/** A sitting with its trials. */
export interface SittingAnswers {
  readonly sitting: SittingRow;
  readonly trials: readonly { readonly trial: TrialDocument; readonly answer: Answer | null }[];
}

type Result = Omit<NonNullable<TestPage['result']>, 'words'>;
type Sentence = Result['sentences'][number];
const TOGETHER = 'Together';

/** What a revealed test shows, and what may be concluded from it. */
export function testResult(test: NewTest, items: readonly ItemRow[], all: readonly SittingAnswers[]): Result {
  const kept = all.filter((a) => a.sitting.left_out === null);
  const screened = test.design === 'ratings' ? screenedOut(items, kept) : new Map<string, string>();
  // By sitting: two listeners may have one name.
  const counted = kept.filter((a) => !screened.has(a.sitting.id));
  return {
    sentences: [
      ...kept.flatMap(({ sitting: { id, listener } }) => {
        const words = screened.get(id);
        return words === undefined ? [] : [{ about: listener, words }];
      }),
      ...sentencesOf(test, items, counted, all),
      ...controlSentences(counted),
    ],
    worths: worthsOf(test, items, counted),
    ratings: test.design === 'ratings' ? ratingsOf(items, counted) : [],
    // A pack has one key for all; hundreds of listeners each with theirs would say the same.
    reveals: test.design === 'pack' ? packReveal(items) : all.map((answers) => revealOf(test, items, answers)),
  };
}

/** @param all - with those who were left out: whether somebody listened is told by them as well */
function sentencesOf(
  test: NewTest,
  items: readonly ItemRow[],
  counted: readonly SittingAnswers[],
  all: readonly SittingAnswers[],
): Sentence[] {
  switch (test.design) {
    case 'abx':
      return abxSentences(test, counted);
    case 'names':
      return nameSentences(items, counted);
    case 'panel':
      return panelSentences(counted.map(({ sitting, trials }) => ({ listener: sitting.listener, trials })), (id) => itemName(items, id)); // prettier-ignore
    case 'pack':
      return [...packSentences(items, counted, all), together(agreementWords(agreementOf(items, counted)))];
    case 'pairs':
      return [...pairSentences(items, counted), together(agreementWords(agreementOf(items, counted)))];
    default:
      return [together(agreementWords(agreementOf(items, counted)))];
  }
}

const together = (words: string): Sentence => ({ about: TOGETHER, words });

function abxSentences(test: NewTest, counted: readonly SittingAnswers[]): Sentence[] {
  const { detectable } = ABX_DEFAULTS;
  const each = counted.map(({ sitting, trials }) => ({
    about: sitting.listener,
    rights: trials.flatMap(({ trial, answer }) => (answer ? (isRight(trial, answer) ?? []) : [])),
  }));
  const own = each.map(({ about, rights }) => ({
    about,
    words: test.openEnded
      ? sequentialAbxWords(sequentialAbx(rights), detectable)
      : abxWords(abxResult(rights.filter(Boolean).length, rights.length), detectable),
  }));
  // Open-ended tests end when they go well: their trials must not be added up as if the number had been fixed.
  if (test.openEnded || each.length < 2) return own;
  const rights = each.flatMap((e) => e.rights);
  return [...own, together(abxWords(abxResult(rights.filter(Boolean).length, rights.length), detectable))];
}

function nameSentences(items: readonly ItemRow[], counted: readonly SittingAnswers[]): Sentence[] {
  const each = counted.flatMap(({ sitting, trials }) =>
    trials.flatMap(({ trial, answer }) =>
      trial.kind === 'names' && answer?.kind === 'names'
        ? [{ about: sitting.listener, clips: trial.items.length, right: rightNames(items, trial, answer) }]
        : [],
    ),
  );
  const own = each.map(({ about, clips, right }) => ({
    about,
    words: matchingWords(right, clips, matchingTail(right, clips)),
  }));
  if (each.length < 2) return own;
  const right = each.reduce((s, e) => s + e.right, 0);
  const clips = each.map((e) => e.clips);
  return [
    ...own,
    together(
      matchingWords(
        right,
        clips.reduce((s, n) => s + n, 0),
        matchingTailOfRounds(right, clips),
      ),
    ),
  ];
}

function rightNames(items: readonly ItemRow[], trial: TrialDocument, answer: Answer & { kind: 'names' }): number {
  return trial.items.filter((id, i) => items.find((item) => item.id === id)?.specimen_id === answer.names[codeOf(i)])
    .length;
}

function pairSentences(items: readonly ItemRow[], counted: readonly SittingAnswers[]): Sentence[] {
  const ids = items.filter((i) => i.role === 'unit' || i.role === 'yardstick').map((i) => i.id);
  const own = counted.flatMap(({ sitting, trials }) => {
    const beats = ids.map(() => ids.map(() => false));
    let decided = 0;
    for (const { trial, answer } of trials) {
      if (trial.kind !== 'pair' || trial.control !== null || answer?.kind !== 'pair' || answer.preferred === null)
        continue;
      const winner = itemOfCode(trial, answer.preferred);
      const [a, b] = trial.items.map((id) => ids.indexOf(id));
      beats[ids[a] === winner ? a : b][ids[a] === winner ? b : a] = true;
      decided++;
    }
    const about = sitting.listener;
    if (ids.length < 3) return [];
    return decided === (ids.length * (ids.length - 1)) / 2
      ? [{ about, words: consistencyWords(consistency(beats)) }]
      : [{ about, words: 'Consistency needs every pair decided; some were left open.' }];
  });
  return [...own, ...firstHeard(counted)];
}

/** Sign test over all decided pairs: is the clip that was offered first preferred more often than the other? */
function firstHeard(counted: readonly SittingAnswers[]): Sentence[] {
  const firsts = counted.flatMap(({ trials }) =>
    trials.flatMap(({ trial, answer }) =>
      trial.kind === 'pair' && trial.control !== 'worse' && answer?.kind === 'pair' && answer.preferred !== null
        ? [answer.preferred === codeOf(0)]
        : [],
    ),
  );
  if (firsts.length < 10) return [];
  const first = firsts.filter(Boolean).length;
  const most = Math.max(first, firsts.length - first);
  const p = Math.min(1, 2 * binomialTail(most, firsts.length, 0.5));
  const how = `The clip offered first was preferred in ${first} of ${firsts.length} decided pairs`;
  return [
    together(
      p <= 0.05
        ? `${how}: chance alone does this ${timesIn(p)}. Order matters here; orders are balanced over listeners, so that most of it cancels.`
        : `${how}: no effect of the order is shown (chance alone: ${timesIn(p)}).`,
    ),
  ];
}

/** What the checks on the listener found. */
function controlSentences(counted: readonly SittingAnswers[]): Sentence[] {
  return counted.flatMap(({ sitting, trials }) =>
    trials.flatMap(({ trial, answer }): Sentence[] => {
      if (trial.kind !== 'pair' || answer?.kind !== 'pair' || trial.control === null) return [];
      const about = sitting.listener;
      if (trial.control === 'same')
        return answer.preferred === null
          ? [{ about, words: 'Found the same clip twice to be alike.' }]
          : [{ about, words: `Preferred one of two equal clips, the one offered ${answer.preferred === codeOf(0) ? 'first' : 'second'}: preferences of this listener include that much chance.` }]; // prettier-ignore
      const preferred = answer.preferred === null ? null : itemOfCode(trial, answer.preferred);
      // The low-passed copy is the item that is not among the units; the plan puts it beside its original.
      return preferred !== null && preferred === worseOf(trial, trials)
        ? [{ about, words: 'Preferred the copy without highs (low-passed at 3.5 kHz) to its original. Consider leaving these answers out, with this reason.' }] // prettier-ignore
        : [{ about, words: preferred === null ? 'Did not tell the copy without highs from its original.' : 'Knew the copy without highs from its original.' }]; // prettier-ignore
    }),
  );
}

/** The item of a control pair that no other trial of the sitting offers. */
function worseOf(trial: TrialDocument, trials: SittingAnswers['trials']): string | null {
  const elsewhere = new Set(trials.filter((t) => t.trial !== trial).flatMap((t) => t.trial.items));
  return trial.items.find((id) => !elsewhere.has(id)) ?? null;
}

/** Sittings that BS.1534 screens out, with the reason. */
function screenedOut(items: readonly ItemRow[], kept: readonly SittingAnswers[]): Map<string, string> {
  const roleOf = (id: string): string => items.find((i) => i.id === id)?.role ?? '';
  const rated = kept.flatMap(({ sitting, trials }) =>
    trials.flatMap(({ trial, answer }): RatedTrial[] => {
      if (trial.kind !== 'ratings' || answer?.kind !== 'ratings') return [];
      const of = (role: string): number | null => {
        const index = trial.items.findIndex((id) => roleOf(id) === role);
        return index < 0 ? null : (answer.ratings[codeOf(index)] ?? null);
      };
      return [{ listener: sitting.id, reference: of('reference') ?? 100, midAnchor: of('anchor-mid') }];
    }),
  );
  return new Map(
    screenListeners(rated)
      .filter((s) => !s.isKept)
      .map((s) => [
        s.listener,
        s.lowReference > SCREENING.share * s.trials
          ? 'Rated the hidden reference below 90: screened out (ITU-R BS.1534).'
          : 'Rated the 7 kHz anchor above 90: screened out (ITU-R BS.1534).',
      ]),
  );
}

function ratingsOf(items: readonly ItemRow[], counted: readonly SittingAnswers[]): Result['ratings'] {
  const ratings = new Map<string, number[]>();
  for (const { trials } of counted)
    for (const { trial, answer } of trials)
      if (trial.kind === 'ratings' && answer?.kind === 'ratings')
        trial.items.forEach((id, i) => ratings.set(id, [...(ratings.get(id) ?? []), answer.ratings[codeOf(i)] ?? 0]));
  return items
    .flatMap((item) => {
      const own = ratings.get(item.id);
      if (!own) return [];
      const { median, quartiles, median95, count } = summariseRatings(own);
      return [{ name: nameOf(item), role: item.role, median, quartiles: [...quartiles] as [number, number], median95: median95 && ([...median95] as [number, number]), count }]; // prettier-ignore
    })
    .sort((a, b) => b.median - a.median);
}

/** Agreement over all that every listener ordered: further rounds stand above earlier ones. */
function agreementOf(items: readonly ItemRow[], counted: readonly SittingAnswers[]): ReturnType<typeof agreement> {
  const ids = items.filter(isRanked).map((i) => i.id);
  const scores = counted.flatMap(({ trials }) => {
    const score = new Map<string, number>();
    for (const { trial, answer } of trials) {
      if (!answer) continue;
      if (trial.kind === 'order')
        orderOf(trial, answer).forEach((id, place) => score.set(id, trial.round * 100 - place));
      if (trial.kind === 'ratings' && answer.kind === 'ratings')
        trial.items.forEach((id, i) => score.set(id, answer.ratings[codeOf(i)] ?? 0));
      if (answer.kind === 'points' && score.size === 0)
        trial.items.forEach((id, i) => { if (codeOf(i) in answer.points) score.set(id, answer.points[codeOf(i)]); }); // prettier-ignore
      if (trial.kind === 'pair' && trial.control === null && answer.kind === 'pair')
        trial.items.forEach((id, i) => {
          const won = answer.preferred === null ? 0.5 : answer.preferred === codeOf(i) ? 1 : 0;
          score.set(id, (score.get(id) ?? 0) + won);
        });
    }
    return ids.every((id) => score.has(id)) ? [ids.map((id) => score.get(id) ?? 0)] : [];
  });
  return agreement(scores);
}

/** Worths within this test alone. */
function worthsOf(test: NewTest, items: readonly ItemRow[], counted: readonly SittingAnswers[]): Result['worths'] {
  const units = items.filter(isRanked);
  const indexOf = new Map(units.map((u, i) => [u.specimen_id, i]));
  const table = new AnswerTable(units.length);
  let answers = 0;
  const listeners: ListenerAnswers[] = [];
  const isPack = test.design === 'pack';
  for (const { sitting, trials } of counted) {
    const reliability = sitting.reliability ?? 1;
    if (reliability === 0) continue;
    const own = new ListenerAnswers();
    // Votes are many people: they have no taste of one listener.
    if (trials.every(({ trial }) => trial.kind !== 'votes')) listeners.push(own);
    // Of what came back from a pack, the fullest counts: an order and points of one listener are one opinion.
    for (const { trial, answer } of isPack ? trials.slice(0, 1) : trials) {
      if (!answer) continue;
      const facts = heardFromAnswer(test, trial, answer, items.map(heardItem)).map((f) => ({
        ...f,
        weight: f.weight * reliability,
      }));
      for (const { specimens, outcome, tiesAllowed, weight } of facts) {
        const [a, b, ...rest] = specimens.map((s) => indexOf.get(s) ?? 0);
        for (const into of [table, own])
          if (outcome === null) into.addOrder({ items: [a, b, ...rest], weight });
          else into.addPair({ a, b, outcome, tiesAllowed, weight });
        answers++;
      }
    }
  }
  if (answers === 0) return [];
  const fit = fitWorths(table);
  const posterior = worthPosterior(fit, { listeners: listenerScatter(fit, listeners) });
  return scaleFrom(fit, posterior, comparisonGraph(table))
    .items.map((item, i) => ({
      id: units[i].specimen_id,
      name: nameOf(units[i]),
      worth: item.worth,
      logWorth: item.logWorth,
      se: item.se,
      place: item.place,
      place90: [...item.place90] as [number, number],
    }))
    .sort((a, b) => a.place - b.place);
}

const itemName = (items: readonly ItemRow[], id: string): string => {
  const item = items.find((i) => i.id === id);
  return item ? nameOf(item) : '';
};

/** A yardstick takes part without being ranked: it says so wherever it is named. */
const nameOf = (item: ItemRow): string => (item.role === 'yardstick' ? `${item.name} (yardstick)` : item.name);

const ROLE_WORDS: Partial<Record<ItemRow['role'], string>> = {
  'known-worse': 'copy without highs, of ',
  'anchor-low': '3.5 kHz anchor, of ',
  'anchor-mid': '7 kHz anchor, of ',
  reference: 'hidden reference: ',
};

/** The key of one listener's sitting: which code was what, and what was answered. */
export function revealOf(test: NewTest, items: readonly ItemRow[], answers: SittingAnswers): Reveal {
  const nameById = (id: string): string => {
    const item = items.find((i) => i.id === id);
    return item ? `${ROLE_WORDS[item.role] ?? ''}${nameOf(item)}` : '';
  };
  const trials = answers.trials.flatMap(({ trial, answer }) => {
    if (!answer || trial.kind === 'familiarise') return [];
    const order = orderOf(trial, answer);
    const shown = (order.length > 0 ? order : trial.items).map((id, i) => {
      const index = order.length > 0 ? trial.items.indexOf(id) : i;
      return {
        code: codeOf(index),
        name: nameById(id),
        role: items.find((item) => item.id === id)?.role ?? ('unit' as const),
        rating: answer.kind === 'ratings' ? (answer.ratings[codeOf(index)] ?? null) : null,
      };
    });
    return [{ kind: trial.kind, items: shown, words: answerWords(trial, answer, nameById, items) }];
  });
  const alone = answers.sitting.left_out === null ? [answers] : [];
  return {
    listener: answers.sitting.listener,
    trials,
    sentences: [...sentencesOf(test, items, alone, alone), ...controlSentences(alone)]
      .filter((s) => s.about === answers.sitting.listener)
      .map((s) => s.words),
    leftOut: answers.sitting.left_out,
  };
}

function answerWords(
  trial: TrialDocument,
  answer: Answer,
  nameById: (id: string) => string,
  items: readonly ItemRow[],
): string {
  if (trial.kind === 'abx' && answer.kind === 'abx')
    return `X was ${nameById(trial.x)}; ${isRight(trial, answer) ? 'right' : 'not right'}.`;
  if (trial.kind === 'pair' && answer.kind === 'pair')
    return answer.preferred === null ? 'Neither.' : `${nameById(itemOfCode(trial, answer.preferred) ?? '')} preferred.`;
  if (trial.kind === 'names' && answer.kind === 'names')
    return `${rightNames(items, trial, answer)} of ${trial.items.length} right.`;
  if (trial.kind === 'order')
    return `${trial.isFinal ? 'Final' : `Round ${trial.round}`}${trial.isAgain ? ', heard again' : ''}, best first.`;
  if (trial.kind === 'place' && answer.kind === 'place')
    return `${nameById(trial.items.at(-1) ?? '')} put into the table, best first.`;
  return '';
}
