import { powerToDb } from '../units';
import { measured, notMeasured, type Measurement } from './measurement';
import type { QuantityId } from './registry';

/** Figures of a room. */
export interface RoomFigures {
  readonly edtS: number | null;
  readonly t20S: number | null;
  readonly t30S: number | null;
  readonly c50Db: number;
  readonly directToReverberantDb: number;
  /** How far the decay can be followed before it meets the noise. */
  readonly rangeDb: number;
}

/** Share of the end of the response that is taken for noise. */
const NOISE_SHARE = 0.1;
const BLOCK_S = 0.005;
/** Direct sound: until 2.5 ms after the first arrival (common practice, no source). */
const DIRECT_S = 0.0025;
const EARLY_S = 0.05;
/** The decay must reach this far below the end of a fit (ISO 3382-2:2008 clause 5.3.2 asks for 10 dB of headroom). */
const HEADROOM_DB = 10;

/**
 * Room figures from an impulse response: backward integration (Schroeder 1965) from where the decay meets the noise,
 * the noise power taken off and the missing tail put back as an exponential (ISO 3382-2:2008 5.3.3), then line fits.
 *
 * @param response - impulse response, the direct sound somewhere near its beginning
 * @param sampleRate - in hertz
 */
export function roomFigures(response: Float64Array, sampleRate: number): RoomFigures {
  let start = 0;
  for (let i = 1; i < response.length; i++) if (Math.abs(response[i]) > Math.abs(response[start])) start = i;
  const energy = response.subarray(start).map((x) => x * x);
  const tail = energy.subarray(Math.floor((1 - NOISE_SHARE) * energy.length));
  const noise = tail.reduce((s, e) => s + e, 0) / tail.length;
  const end = noiseMeeting(energy, noise, Math.round(BLOCK_S * sampleRate));
  const decay = schroeder(energy.subarray(0, end), noise, sampleRate);
  const total = decay[0];
  const levels = decay.map((e) => powerToDb(e / total));
  // Where the noise that is taken off leaves nothing, the decay ends.
  const rangeDb = Math.abs(levels.findLast((level) => Number.isFinite(level)) ?? 0);
  const after = (seconds: number): number => decay[Math.min(decay.length - 1, Math.round(seconds * sampleRate))];
  const time = (from: number, to: number, factor: number): number | null =>
    rangeDb < -to + HEADROOM_DB ? null : factor * fallTime(levels, from, to, sampleRate);
  return {
    edtS: time(0, -10, 6),
    t20S: time(-5, -25, 3),
    t30S: time(-5, -35, 2),
    c50Db: powerToDb((total - after(EARLY_S)) / after(EARLY_S)),
    directToReverberantDb: powerToDb((total - after(DIRECT_S)) / after(DIRECT_S)),
    rangeDb,
  };
}

/** First block whose mean energy is within 6 dB of the noise. */
function noiseMeeting(energy: Float64Array, noise: number, block: number): number {
  for (let from = 0; from + block <= energy.length; from += block) {
    let sum = 0;
    for (const e of energy.subarray(from, from + block)) sum += e;
    if (sum / block <= 4 * noise) return Math.max(block, from);
  }
  return energy.length;
}

function schroeder(energy: Float64Array, noise: number, sampleRate: number): Float64Array {
  const decay = new Float64Array(energy.length);
  let sum = 0;
  for (let i = energy.length - 1; i >= 0; i--) decay[i] = sum += Math.max(0, energy[i] - noise);
  // Slope of the last half of the usable decay, for the tail that the noise hides.
  const [from, to] = [Math.floor(energy.length / 2), energy.length];
  const half = (a: number, b: number): number => energy.subarray(a, b).reduce((s, e) => s + e - noise, 0);
  const middle = Math.floor((from + to) / 2);
  const [early, late] = [half(from, middle), half(middle, to)];
  if (late > 0 && early > late) {
    const perSample = Math.log(early / late) / (middle - from);
    const missing = late / (Math.exp(perSample * (to - middle)) - 1);
    if (Number.isFinite(missing) && perSample * sampleRate > 1)
      for (let i = 0; i < decay.length; i++) decay[i] += missing;
  }
  return decay;
}

/** Seconds in which a line through the levels between two limits falls by their distance. */
function fallTime(levels: Float64Array, from: number, to: number, sampleRate: number): number {
  let [n, st, sl, stt, stl] = [0, 0, 0, 0, 0];
  for (let i = 0; i < levels.length; i++) {
    if (levels[i] > from || levels[i] < to) continue;
    const t = i / sampleRate;
    n++;
    st += t;
    sl += levels[i];
    stt += t * t;
    stl += t * levels[i];
  }
  const slope = (n * stl - st * sl) / (n * stt - st * st);
  return (to - from) / slope;
}

/** The figures with their conditions. */
export function roomMeasurements(room: RoomFigures): Measurement[] {
  const condition = `broadband, noise-compensated, decay followed over ${room.rangeDb.toFixed(0)} dB`;
  const reason = 'The decay meets the noise too early.';
  const plain = (id: QuantityId, value: number | null): Measurement =>
    value === null || !Number.isFinite(value) ? notMeasured(id, condition, reason) : measured(id, value, condition);
  return [
    plain('edt', room.edtS),
    plain('t20', room.t20S),
    plain('t30', room.t30S),
    plain('c50', room.c50Db),
    plain('directToReverberant', room.directToReverberantDb),
  ];
}
