import { convolve } from '#core/dsp/convolve';
import { REFERENCE_DISTANCE_M } from './microphone';
import { arrivals, type Room } from './room';

/** What comes back early, re the direct sound at the reference distance. */
export interface EarlyReflections {
  /** As a pressure microphone hears it. */
  readonly pressure: Float64Array;
  /** As a figure of eight hears it. Any first-order pattern α + (1 − α)·cos θ is a sum of the two. */
  readonly gradient: Float64Array;
}

/** As many as one run of the demo needs, for the passage and for its beginning. */
const MOST_KEPT = 12;
/** The same voice is heard by many microphones in the same places: its reflections are made once. */
const kept = new Map<string, { readonly dry: Float64Array; readonly made: EarlyReflections }>();

/**
 * Early reflections of a voice in a room, without its direct sound; remembered for the last places.
 *
 * @param dry - the voice; remembered by identity, so it is not to be written to
 * @param room - where it is heard
 * @param distanceM - from the source
 * @param angleDeg - by which the microphone is turned away from it
 * @param sampleRate - in hertz
 * @returns null for a place where nothing comes back
 */
export function earlyReflections(
  dry: Float64Array,
  room: Room,
  distanceM: number,
  angleDeg: number,
  sampleRate: number,
): EarlyReflections | null {
  const [, ...reflections] = arrivals(room, distanceM, angleDeg);
  if (reflections.length === 0) return null;
  const key = JSON.stringify([room, distanceM, angleDeg, sampleRate, dry.length]);
  const known = kept.get(key);
  if (known?.dry === dry) return known.made;
  const last = Math.max(...reflections.map((r) => r.delayS));
  const [pressure, gradient] = [0, 1].map(() => new Float64Array(Math.round(last * sampleRate) + 1));
  for (const { delayS, distanceM: way, reflection, angleDeg: from } of reflections) {
    const [at, gain] = [Math.round(delayS * sampleRate), (reflection * REFERENCE_DISTANCE_M) / way];
    pressure[at] += gain;
    gradient[at] += gain * Math.cos((from * Math.PI) / 180);
  }
  const length = dry.length + pressure.length - 1;
  const made = { pressure: convolve(dry, pressure, length), gradient: convolve(dry, gradient, length) };
  kept.delete(key);
  kept.set(key, { dry, made });
  for (const oldest of kept.keys()) if (kept.size > MOST_KEPT) kept.delete(oldest);
  return made;
}
