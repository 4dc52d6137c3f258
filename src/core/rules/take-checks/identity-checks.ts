import { spectrumDistance } from '../../measure/spectrum-distance';
import { turnedGain } from '../gain-group';
import {
  atUnityGain,
  dbText,
  isSpoken,
  limitOf,
  sameUnitSameStep,
  type CheckedTake,
  type Finding,
  type OtherTake,
} from './take-check';

/** Spectra of one unit, text and voice differ by less; those of unlike units by more. Common practice, no source; see the tests. */
const SAME_UNIT_DB = 3;
/** Another unit has to be nearer by this much to be named. */
const NEARER_DB = 1.5;
/** Level at equal gain: a reader keeps within this. */
const PLACEMENT_DB = 6;
/** A rung of the distance ladder: the room fills up what distance takes away, so the low side is wider. */
const RUNG_ABOVE_DB = 4;
/** Two channels whose levels differ by more have an order. */
const CHANNEL_ORDER_DB = 3;

const nearest = (take: CheckedTake, others: readonly OtherTake[]): { db: number; take: OtherTake } | null => {
  let best: { db: number; take: OtherTake } | null = null;
  for (const other of others) {
    const db = spectrumDistance(take.clip.thirdOctave, other.clip.thirdOctave);
    if (db !== null && (!best || db < best.db)) best = { db, take: other };
  }
  return best;
};

/** Whether the spectrum is that of the specimen's other takes. */
export function unit(take: CheckedTake): Finding | null {
  if (!isSpoken(take) && take.playKind !== 'sweep') return null;
  const own = nearest(take, sameUnitSameStep(take));
  if (!own) return null;
  const limit = limitOf(take, 'unit', SAME_UNIT_DB);
  const other = nearest(
    take,
    take.others.filter((o) => o.isNorm && !o.isSameUnit && o.step === take.step.id),
  );
  // Nearer than this even one's own takes hardly come, so another unit that does is the likelier one.
  const isOther = other !== null && own.db > limit / 2 && other.db < own.db - NEARER_DB;
  if (own.db <= limit && !isOther) return null;
  return {
    check: 'unit',
    weight: isOther ? 'redo' : 'look',
    what: isOther
      ? `The spectrum is ${dbText(own.db)} dB from this unit's other takes, and only ${dbText(other.db)} dB from ${other.take.unit}.`
      : `The spectrum is ${dbText(own.db)} dB (RMS, 100 Hz–12.5 kHz) from this unit's other takes of the step.`,
    next: 'Follow the cable from the unit to the input; look at pad, low-cut and pattern; redo.',
  };
}

/** Whether the front is the front. */
export function side(take: CheckedTake): Finding | null {
  if (take.role !== 'speech' && take.role !== 'rear') return null;
  const level = atUnityGain(take);
  if (level === null) return null;
  const opposite = take.role === 'speech' ? 'rear' : 'speech';
  const mean = (role: string): number | null => {
    const levels = take.others
      .filter((o) => o.isNorm && o.isSameUnit && o.role === role)
      .map(atUnityGain)
      .filter((x) => x !== null);
    return levels.length === 0 ? null : levels.reduce((a, b) => a + b, 0) / levels.length;
  };
  const [own, other] = [mean(take.role), mean(opposite)];
  const next = 'Look for the badge or the dot that marks the front, turn the unit, redo.';
  if (own !== null && other !== null && Math.abs(own - other) >= 4) {
    if (Math.abs(level - other) >= Math.abs(level - own)) return null;
    return {
      check: 'side',
      weight: 'redo',
      what: `At this gain the unit's ${opposite === 'rear' ? 'back' : 'front'} is as loud as this, not its ${opposite === 'rear' ? 'front' : 'back'} (${dbText(level - own)} dB re its other takes of this step).`,
      next,
    };
  }
  // Without a history, the back must at least not be the louder side.
  const isBackLouder = take.role === 'rear' && other !== null && level > other + 2;
  return isBackLouder
    ? {
        check: 'side',
        weight: 'look',
        what: `From behind it is ${dbText(level - other)} dB louder than from the front.`,
        next: `${next} If it is so by nature, keep it.`,
      }
    : null;
}

/** Whether gain and distance can be what was noted. */
export function placement(take: CheckedTake): Finding | null {
  const rule = gainRule(take);
  if (rule) return rule;
  const level = atUnityGain(take);
  if (level === null || !isSpoken(take)) return null;
  const before = sameUnitSameStep(take)
    .map(atUnityGain)
    .filter((x) => x !== null);
  if (before.length > 0) {
    const usual = before.reduce((a, b) => a + b, 0) / before.length;
    const off = level - usual;
    if (Math.abs(off) <= limitOf(take, 'placement', PLACEMENT_DB)) return null;
    return finding(
      `${dbText(Math.abs(off))} dB ${off > 0 ? 'louder' : 'softer'} than this unit at this step at the noted gain${asDistance(take, off)}.`,
    );
  }
  return rung(take, level);
}

const finding = (what: string): Finding => ({
  check: 'placement',
  weight: 'look',
  what,
  next: 'Measure the distance again, read the gain again, correct the note or redo.',
});

/** What a level would mean if all of it came from the distance (−6 dB per doubling). */
function asDistance(take: CheckedTake, off: number): string {
  const noted = take.distanceM ?? take.step.distanceM;
  if (noted === null) return '';
  return `: as if ${(100 * noted * 10 ** (-off / 20)).toFixed(0)} cm rather than ${(100 * noted).toFixed(0)} cm, or another gain`;
}

/** Dials are read to about this. */
const SAME_GAIN_DB = 0.5;
const isSameGain = (a: number, b: number): boolean => Math.abs(a - b) < SAME_GAIN_DB;

function gainRule({ step, gainDb, referenceGainDb }: CheckedTake): Finding | null {
  if (gainDb === null || !step.gain) return null;
  const noted = `The noted gain is ${dbText(gainDb)} dB`;
  if (step.gain.rule === 'as-step' && referenceGainDb !== null) {
    const wanted = turnedGain(referenceGainDb, step.gain.byDb);
    // Below 0 dB the dial may have ended: the least that it has is right.
    if (wanted === null) return gainDb < SAME_GAIN_DB ? null : finding(`${noted}; the rule gives 0 dB or less.`);
    return isSameGain(gainDb, wanted) ? null : finding(`${noted}; the rule gives ${dbText(wanted)} dB.`);
  }
  if (step.gain.rule !== 'fixed' || isSameGain(gainDb, step.gain.gainDb)) return null;
  return finding(`${noted}; the rule gives ${dbText(step.gain.gainDb)} dB.`);
}

/** A rung of the distance ladder against today's nearest one: louder than the inverse-square law allows is too near. */
function rung(take: CheckedTake, level: number): Finding | null {
  const distance = take.distanceM ?? take.step.distanceM;
  if (take.role !== 'distance' || distance === null) return null;
  const rungs = take.others.filter((o) => o.isToday && o.isSameUnit && o.role === 'distance' && o.distanceM !== null);
  const first = rungs.sort((a, b) => (a.distanceM ?? 0) - (b.distanceM ?? 0)).at(0);
  const firstLevel = first ? atUnityGain(first) : null;
  if (!first || firstLevel === null || first.distanceM === null || first.distanceM >= distance) return null;
  const lost = firstLevel - level;
  const free = 20 * Math.log10(distance / first.distanceM);
  if (lost >= -RUNG_ABOVE_DB + Math.min(free, 12) / 2 && lost <= free + RUNG_ABOVE_DB) return null;
  return finding(
    `${dbText(lost)} dB softer than at ${(100 * first.distanceM).toFixed(0)} cm; ${(100 * distance).toFixed(0)} cm should lose up to ${dbText(free)} dB.`,
  );
}

/** Whether left and right lie as in the other takes. */
export function channels(take: CheckedTake): Finding | null {
  const order = (levels: readonly (number | null)[]): number | null => {
    if (levels.length !== 2 || levels[0] === null || levels[1] === null) return null;
    const difference = levels[0] - levels[1];
    return Math.abs(difference) < CHANNEL_ORDER_DB ? null : difference;
  };
  const own = order(take.clip.channelsDbfs);
  const before = sameUnitSameStep(take)
    .map((o) => order(o.clip.channelsDbfs))
    .filter((x) => x !== null);
  if (own === null || before.length === 0 || before.some((b) => Math.sign(b) === Math.sign(own))) return null;
  return {
    check: 'channels',
    weight: 'redo',
    what: `The ${own > 0 ? 'left' : 'right'} channel is ${dbText(Math.abs(own))} dB louder; in the other takes of this step it is the other one.`,
    next: 'Exchange the two cables or inputs, then redo.',
  };
}
