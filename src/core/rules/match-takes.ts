import { assign } from '../stats/assignment';
import { mean } from '../stats/moments';
import type { BandLevel } from '../measure/third-octave-spectrum';
import { byName, longestHint } from './match-files';
import { powerToDb } from '../units';

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
  /** Median length of this step's takes so far; null for the first time. */
  readonly usualS: number | null;
}

/** A file, or a piece of one, with what was measured of it. */
export interface MatchableTake {
  readonly name: string;
  readonly durationS: number;
  readonly speechS: number;
  readonly integratedLufs: number | null;
  readonly plosives: number;
  readonly thirdOctave: readonly BandLevel[];
  /** Correlation with the protocol's sweep, 0…1; null where nobody looked. */
  readonly sweepLikeness: number | null;
  /** Gain, where it is known; levels are compared at equal gain. */
  readonly gainDb: number | null;
}

/** What a recording seems to hold. */
export type ContentKind = 'silence' | 'tone' | 'sweep' | 'passage' | 'line' | 'sound';

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
const PASSAGE_S = 9;
/** A sweep spreads its energy evenly over octaves; speech falls off by far more. */
const SWEEP_SPREAD_DB = 7.5;
/** Even from behind, a recorded sweep correlates better with the played one than speech ever does (labelled takes). */
const SWEEP_LIKENESS = 0.12;
const TONE_ABOVE_DB = 18;
const QUIET_LUFS = -48;

interface Evidence {
  readonly score: number;
  readonly reasons: readonly string[];
  readonly doubts: readonly string[];
}

/**
 * Proposes a step for each take from its name, its place in the order, its length and what it holds. All are weighed
 * together and the best assignment as a whole is taken, so that one misleading name does not push the others aside.
 * A step is given away once.
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
  // One column more per take: "no step". It costs what the weakest acceptable match would.
  const best = Math.max(...table.flat().map((e) => e.score), LEAST_SCORE);
  const cost = table.map((row) => [...row.map((e) => best - e.score), ...takes.map(() => best - LEAST_SCORE)]);
  return assign(cost).map((column, t) => {
    const found = column < steps.length ? table[t][column] : null;
    const rival = Math.max(LEAST_SCORE, ...table[t].filter((_, s) => s !== column).map((e) => e.score));
    return {
      name: takes[t].name,
      step: found ? steps[column].id : null,
      content: contents[t],
      reasons: found?.reasons ?? ['no step fits, or all that fit are taken'],
      doubts: found?.doubts ?? [],
      certainty: found ? Math.max(0, Math.min(1, (found.score - rival) / WEIGHTS.content)) : 0,
    };
  });
}

/** What a recording seems to hold, from its figures. */
export function contentOf(take: MatchableTake): ContentKind {
  const levels = take.thirdOctave.filter((b) => b.centreHz >= 80 && b.centreHz <= 10_000 && b.levelDbfs !== null);
  const sorted = levels.map((b) => b.levelDbfs ?? -Infinity).sort((a, b) => b - a);
  if (take.sweepLikeness !== null && take.sweepLikeness >= SWEEP_LIKENESS) return 'sweep';
  // A tone fills its own band, and leaks into the two beside it.
  if (sorted.length > 4 && sorted[0] - sorted[3] > TONE_ABOVE_DB) return 'tone';
  if (take.integratedLufs === null || (take.integratedLufs < QUIET_LUFS && take.speechS < 0.5)) return 'silence';
  const average = mean(sorted);
  const spread = Math.sqrt(mean(sorted.map((l) => (l - average) ** 2)));
  // Without the sweep itself to compare with, only its even spectrum tells.
  if (
    take.sweepLikeness === null &&
    sorted.length > 12 &&
    spread < SWEEP_SPREAD_DB &&
    highShare(take.thirdOctave) > -10
  )
    return 'sweep';
  if (take.speechS >= PASSAGE_S) return 'passage';
  if (take.speechS >= 0.5) return 'line';
  return take.integratedLufs < QUIET_LUFS + 8 ? 'silence' : 'sound';
}

/** Level from 4 to 10 kHz re that from 250 Hz to 1 kHz, decibels. */
function highShare(bands: readonly BandLevel[]): number {
  const power = (low: number, high: number): number =>
    bands.reduce(
      (s, b) => (b.centreHz >= low && b.centreHz <= high && b.levelDbfs !== null ? s + 10 ** (b.levelDbfs / 10) : s),
      0,
    );
  return powerToDb(power(4000, 10_000) / power(250, 1000));
}

/** How well a content fits what a step plays: 1 well, 0 unknown, −1 not at all. */
function fit(content: ContentKind, playKind: string): number {
  const fits: Readonly<Record<string, readonly ContentKind[]>> = {
    text: ['passage'],
    phrase: ['line'],
    sung: ['line', 'passage'],
    silence: ['silence'],
    sweep: ['sweep'],
    tone: ['tone'],
    noise: ['sweep', 'sound'],
    knocks: ['sound', 'line'],
    walk: ['line', 'passage', 'sound'],
    wind: ['sound'],
    recording: ['sound', 'line', 'passage'],
  };
  const wanted = fits[playKind];
  if (!wanted) return 0;
  if (wanted.includes(content)) return 1;
  // A passage read short and a long line look alike.
  return (content === 'passage' || content === 'line') && (playKind === 'text' || playKind === 'phrase') ? -0.3 : -1;
}

const CONTENT_WORDS: Readonly<Record<ContentKind, string>> = {
  silence: 'silence',
  tone: 'a steady tone',
  sweep: 'a sweep',
  passage: 'a long reading',
  line: 'a short line',
  sound: 'some other sound',
};

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
  const suits = fit(content, step.playKind);
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
  if (step.role === 'plosive' && content === 'line') {
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
type LevelShifts = ReadonlyMap<LevelGroup, number>;

const groupOf = (step: MatchableStep): LevelGroup | null => {
  if (step.role === 'distance' || step.role === 'sweep') return step.role;
  // Front and back are read alike; what parts them is their level.
  return (step.role === 'speech' || step.role === 'rear') && step.playKind === 'text' ? 'facing' : null;
};
type LevelGroup = 'distance' | 'sweep' | 'facing';
const GROUP_CONTENT: Readonly<Record<LevelGroup, ContentKind>> = {
  distance: 'line',
  sweep: 'sweep',
  facing: 'passage',
};
/** A cardioid in a room loses about this much from behind; figure-of-eight and omni less. Common practice, no source. */
const BEHIND_DB = -8;

/** Level that a step would have re its group's first, if the unit were a cardioid in the open. */
function expectedDb(step: MatchableStep): number {
  const far = step.role === 'distance' ? -20 * Math.log10((step.distanceM ?? 0.15) / 0.15) * 0.8 : 0;
  const cosine = Math.cos(((step.angleDeg ?? 0) * Math.PI) / 180);
  if (step.role === 'rear') return BEHIND_DB;
  return far + (step.role === 'sweep' ? 20 * Math.log10(Math.max(0.12, (1 + cosine) / 2)) : 0);
}

const levelOf = (take: MatchableTake): number | null =>
  take.integratedLufs === null ? null : take.integratedLufs - (take.gainDb ?? 0);

function levelShifts(
  takes: readonly MatchableTake[],
  contents: readonly ContentKind[],
  steps: readonly MatchableStep[],
): LevelShifts {
  const shifts = new Map<LevelGroup, number>();
  for (const group of ['distance', 'sweep', 'facing'] as const) {
    const content = GROUP_CONTENT[group];
    const levels = takes.flatMap((t, i) => (contents[i] === content ? (levelOf(t) ?? []) : []));
    const expected = steps.filter((s) => groupOf(s) === group).map(expectedDb);
    // The loudest of each belong together: a line or two of other steps may be among the takes.
    if (levels.length > 1 && expected.length > 1) shifts.set(group, Math.max(...levels) - Math.max(...expected));
  }
  return shifts;
}

function levelFit(take: MatchableTake, content: ContentKind, step: MatchableStep, shifts: LevelShifts): number | null {
  const group = groupOf(step);
  const shift = group === null ? undefined : shifts.get(group);
  const level = levelOf(take);
  if (group === null || shift === undefined || level === null || content !== GROUP_CONTENT[group]) return null;
  const fits = Math.max(-1, 1 - Math.abs(level - shift - expectedDb(step)) / 4);
  // The back of some units is loud: their names say more than this.
  return group === 'facing' ? fits / 2 : fits;
}
