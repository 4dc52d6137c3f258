import { standardDeviation } from '../stats/moments';
import { quantileSorted } from '../stats/quantile';
import { powerToDb } from '../units';
import { measured, notMeasured, type Measurement } from './measurement';
import type { Segment } from './speech-segments';

/** Frames in which the hiss exceeds the body by more than this are fricatives (common practice, no source). */
const FRICATIVE_DB = -6;
/** Frames this far below the loud ones of the clip are noise, whatever their balance. */
const LEAST_RE_LOUD_DB = -35;
const LEAST_FRAMES = 5;

/**
 * Hiss of the fricatives: power at 5–10 kHz re 1–5 kHz in the frames that hold a fricative, 90th percentile.
 *
 * @param frames - two numbers per frame: mean square at 1–5 kHz and at 5–10 kHz, mean of the channels
 * @param frameS - seconds per frame
 * @param speech - where somebody speaks
 */
export function sibilance(frames: Float64Array, frameS: number, speech: readonly Segment[]): Measurement {
  const condition = '5–10 kHz re 1–5 kHz in fricative frames, 90th percentile';
  const places = spokenFrames(speech, frameS, Math.floor(frames.length / 2));
  if (places.length === 0) return notMeasured('sibilance', condition, 'No speech was found.');
  const ratioAt = (f: number): number => powerToDb(frames[2 * f + 1] / frames[2 * f]);
  if (Number.isNaN(ratioAt(places[0]))) {
    return notMeasured('sibilance', condition, 'The sample rate is too low: 5–10 kHz must be in the file.');
  }
  const powers = new Float64Array(places.length);
  for (let i = 0; i < powers.length; i++) powers[i] = frames[2 * places[i]] + frames[2 * places[i] + 1];
  const loud = quantileSorted(powers.slice().sort(), 0.9);
  const hissing: number[] = [];
  const fricatives: number[] = [];
  for (let i = 0; i < places.length; i++) {
    const ratio = ratioAt(places[i]);
    const isHiss = Number.isFinite(ratio) && ratio > FRICATIVE_DB;
    if (!isHiss || !(powerToDb(powers[i] / loud) > LEAST_RE_LOUD_DB)) continue;
    hissing.push(places[i]);
    fricatives.push(ratio);
  }
  // Frames of one fricative are one reading: they come out of one mouth at one moment.
  const sounds = hissing.filter((f, k) => k === 0 || f - hissing[k - 1] > 2).length;
  if (fricatives.length < LEAST_FRAMES) {
    return notMeasured('sibilance', condition, 'Too few fricatives: read a text with s and sh in it.');
  }
  const sorted = Float64Array.from(fricatives).sort();
  const sd = standardDeviation(fricatives);
  return measured('sibilance', quantileSorted(sorted, 0.9), condition, {
    spread: { sd, count: fricatives.length, of: 'fricative frames' },
    // Normal approximation of a quantile's error: sqrt(p(1 − p)/n) over the density at the 90th percentile, 0.1755/s,
    // with n the fricatives.
    uncertainty: (sd * Math.sqrt(0.09 / sounds)) / 0.1755,
    settings: { fricativeFrames: fricatives.length, fricatives: sounds },
  });
}

/** Frames that lie in speech as a whole. */
function spokenFrames(speech: readonly Segment[], frameS: number, count: number): number[] {
  const places: number[] = [];
  for (const { startS, endS } of speech) {
    for (let f = Math.ceil(startS / frameS); f < count && (f + 1) * frameS <= endS; f++) places.push(f);
  }
  return places;
}
