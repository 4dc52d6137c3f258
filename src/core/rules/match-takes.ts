import { assign } from '../stats/assignment';
import { stepRole } from '../gear/kinds';
import type { ExpectedLevel } from '../gear/step-role';
import { CONTENT_WORDS, contentFit, contentOf, type ContentKind, type HeardContent } from './file-content';
import { byName, longestHint } from './match-files';

/** A step that takes can be matched to. */
export interface MatchableStep {
  readonly id: string;
  readonly title: string;
  readonly fileHints: readonly string[];
  /** What is said or played: "text", "phrase", "silence", "sweep", "tone" … */
  readonly playKind: string;
  readonly role: string;
  readonly distanceM: number | null;
  readonly angleDeg: number | null;
  readonly lengthS: { readonly least: number; readonly most: number } | null;
  /** How often the protocol has it done. */
  readonly repeats: number;
  /** Median length of this step's takes so far; null for the first time. */
  readonly usualS: number | null;
}

/** A file, or a piece of one, with what was measured of it. */
export interface MatchableTake extends HeardContent {
  readonly name: string;
  readonly durationS: number;
  readonly plosives: number;
  /** Gain, where it is known; levels are compared at equal gain. */
  readonly gainDb: number | null;
}

/** A proposed match with what speaks for it, and against. */
export interface TakeMatch {
  readonly name: string;
  readonly step: string | null;
  readonly content: ContentKind;
  readonly reasons: readonly string[];
  readonly doubts: readonly string[];
  /** 0…1: how far this match leads the next best one. */
  readonly certainty: number;
}

/** How much each kind of evidence weighs; common practice, no source, and checked on the demo's takes. */
const WEIGHTS = { name: 4, content: 5, length: 2, order: 1, level: 2.5 } as const;
/** A match has to reach this to be proposed at all. */
const LEAST_SCORE = 1;
/** A further take of a step that is repeated, where another step might want it: less than what order alone says. */
const REPEAT_COST = 0.5;
/** A step that is repeated may have been done more often than the protocol asks, up to so many times as often. */
const REPEATS_BEYOND = 3;

interface Evidence {
  readonly score: number;
  readonly reasons: readonly string[];
  readonly doubts: readonly string[];
}

/**
 * Proposes a step for each take from its name, its place in the order, its length and what it holds. All are weighed
 * together and the best assignment as a whole is taken, so that one misleading name does not push the others aside.
 * A step is given away once; one that the protocol repeats, as often as takes speak for it.
 *
 * @param takes - in the order in which they were recorded or dropped
 * @param steps - in the order of the protocol
 */
export function matchTakes(takes: readonly MatchableTake[], steps: readonly MatchableStep[]): TakeMatch[] {
  if (takes.length === 0) return [];
  const contents = takes.map(contentOf);
  const order = takes.map((_, i) => i).sort((a, b) => byName(takes[a].name, takes[b].name));
  const levels = levelShifts(takes, contents, steps);
  const table = takes.map((take, t) =>
    steps.map((step, s) => weigh(take, contents[t], order.indexOf(t), takes.length, step, s, steps.length, levels)),
  );
  const places = placesOf(steps, takes.length);
  // One column more per take: "no step". It costs what the weakest acceptable match would.
  const best = Math.max(...table.flat().map((e) => e.score), LEAST_SCORE);
  const cost = table.map((row) => [
    ...places.map(({ step, isRepeat }) => best - row[step].score + (isRepeat ? REPEAT_COST : 0)),
    ...takes.map(() => best - LEAST_SCORE),
  ]);
  return assign(cost).map((column, t) => {
    const place = column < places.length ? places[column].step : null;
    const found = place === null ? null : table[t][place];
    const rival = Math.max(LEAST_SCORE, ...table[t].filter((_, s) => s !== place).map((e) => e.score));
    return {
      name: takes[t].name,
      step: place === null ? null : steps[place].id,
      content: contents[t],
      reasons: found?.reasons ?? ['no step fits, or all that fit are taken'],
      doubts: found?.doubts ?? [],
      certainty: found ? Math.max(0, Math.min(1, (found.score - rival) / WEIGHTS.content)) : 0,
    };
  });
}

/** Places that takes can be given to: one of each step, and more of those that are repeated. */
function placesOf(steps: readonly MatchableStep[], takes: number): { step: number; isRepeat: boolean }[] {
  return steps.flatMap(({ repeats }, step) =>
    Array.from({ length: repeats < 2 ? 1 : Math.min(takes, REPEATS_BEYOND * repeats) }, (_, i) => ({
      step,
      isRepeat: i > 0,
    })),
  );
}

function weigh(
  take: MatchableTake,
  content: ContentKind,
  place: number,
  places: number,
  step: MatchableStep,
  ordinal: number,
  ordinals: number,
  levels: LevelShifts,
): Evidence {
  const reasons: string[] = [];
  const doubts: string[] = [];
  let score = 0;
  const hint = longestHint(take.name, step.fileHints);
  if (hint) {
    // A long hint says more than one that may be there by chance.
    score += WEIGHTS.name * Math.min(1, 0.6 + hint.length / 20);
    reasons.push(`the name says "${hint}"`);
  }
  const suits = contentFit(content, step.playKind);
  score += WEIGHTS.content * suits;
  if (suits > 0) reasons.push(`it holds ${CONTENT_WORDS[content]}`);
  else if (suits < 0) doubts.push(`it seems to hold ${CONTENT_WORDS[content]}`);
  const length = lengthFit(take.durationS, step);
  score += WEIGHTS.length * length;
  if (length > 0.6) reasons.push(`its ${take.durationS.toFixed(1)} s are usual here`);
  else if (length < 0) doubts.push(lengthDoubt(take.durationS, step));
  const inOrder = 1 - 2 * Math.abs((place + 0.5) / places - (ordinal + 0.5) / ordinals);
  score += WEIGHTS.order * Math.max(0, inOrder);
  if (places === ordinals && place === ordinal) reasons.push(`it is number ${place + 1} in order`);
  const level = levelFit(take, content, step, levels);
  if (level !== null) {
    score += WEIGHTS.level * level;
    if (level > 0.5) reasons.push('its level suits that distance or angle');
    else if (level < -0.5) doubts.push('its level does not suit that distance or angle');
  }
  if (stepRole(step.role)?.hasPuffs && content === 'line') {
    const hasPuffs = take.plosives >= 3;
    score += hasPuffs ? 2 : -1;
    if (hasPuffs) reasons.push(`${take.plosives} puffs were found`);
  }
  return { score, reasons, doubts };
}

/** What is odd about a length, with the figure that it is held against. */
function lengthDoubt(durationS: number, { lengthS, usualS }: MatchableStep): string {
  const own = `it lasts ${durationS.toFixed(1)} s`;
  if (lengthS && durationS < lengthS.least) return `${own}; the step asks for at least ${lengthS.least} s`;
  if (lengthS && durationS > lengthS.most) return `${own}; the step allows ${lengthS.most} s`;
  return `${own}; ${(usualS ?? 0).toFixed(1)} s are usual here`;
}

function lengthFit(durationS: number, step: MatchableStep): number {
  if (step.usualS !== null) return Math.max(-1, 1 - 3 * Math.abs(Math.log(durationS / step.usualS)));
  if (step.lengthS) return durationS >= step.lengthS.least && durationS <= step.lengthS.most ? 0.5 : -0.5;
  return 0;
}

/** For each group of steps that do the same at several distances or angles: what turns a take's level into an expected one. */
type LevelShifts = ReadonlyMap<string, number>;

/** Where its role expects a step among those that sound alike; null where its level says nothing. */
function expectedLevel(step: MatchableStep): ExpectedLevel | null {
  const expected = stepRole(step.role)?.expectedLevel ?? null;
  return expected?.playKind !== undefined && expected.playKind !== step.playKind ? null : expected;
}

const levelOf = (take: MatchableTake): number | null =>
  take.integratedLufs === null ? null : take.integratedLufs - (take.gainDb ?? 0);

function levelShifts(
  takes: readonly MatchableTake[],
  contents: readonly ContentKind[],
  steps: readonly MatchableStep[],
): LevelShifts {
  const groups = new Map<string, { holds: ContentKind; expected: number[] }>();
  for (const step of steps) {
    const level = expectedLevel(step);
    if (!level) continue;
    const group = groups.get(level.group) ?? { holds: level.holds, expected: [] };
    groups.set(level.group, { ...group, expected: [...group.expected, level.expectedDb(step)] });
  }
  const shifts = new Map<string, number>();
  for (const [group, { holds, expected }] of groups) {
    const levels = takes.flatMap((t, i) => (contents[i] === holds ? (levelOf(t) ?? []) : []));
    // The loudest of each belong together: a line or two of other steps may be among the takes.
    if (levels.length > 1 && expected.length > 1) shifts.set(group, Math.max(...levels) - Math.max(...expected));
  }
  return shifts;
}

function levelFit(take: MatchableTake, content: ContentKind, step: MatchableStep, shifts: LevelShifts): number | null {
  const expected = expectedLevel(step);
  const shift = expected ? shifts.get(expected.group) : undefined;
  const level = levelOf(take);
  if (!expected || shift === undefined || level === null || content !== expected.holds) return null;
  return expected.weight * Math.max(-1, 1 - Math.abs(level - shift - expected.expectedDb(step)) / 4);
}
