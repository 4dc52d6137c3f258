import { FftPlan } from '../dsp/fft';
import { fftSize, transformReal } from '../dsp/real-transform';
import { spectralFilter } from '../dsp/spectral-filter';
import { powerToDb } from '../units';
import { followDecay, type Decay } from './decay';
import { measured, notMeasured, type Measurement } from './measurement';
import type { QuantityId } from './registry';

/** A figure with its standard uncertainty. */
export interface RoomFigure {
  readonly value: number;
  readonly uncertainty: number;
}

/** Figures of a room, of one band. */
export interface RoomFigures {
  /** Seconds; null where the decay meets the noise too early. */
  readonly edt: RoomFigure | null;
  readonly t20: RoomFigure | null;
  readonly t30: RoomFigure | null;
  readonly c50: RoomFigure | null;
  readonly directToReverberant: RoomFigure | null;
  /** How far the decay stands above the noise at its beginning, dB. */
  readonly headroomDb: number;
}

/** The same by octave. */
export interface RoomReport extends RoomFigures {
  readonly octaves: readonly (RoomFigures & { readonly centreHz: number })[];
  /** Seconds behind the direct sound that were recorded at all frequencies. */
  readonly reachS: number;
}

/** Octaves that a room is told by (ISO 3382-2). */
export const ROOM_OCTAVES_HZ = [125, 250, 500, 1000, 2000, 4000] as const;

/** Direct sound: until 2.5 ms after the first arrival (common practice, no source). */
const DIRECT_S = 0.0025;
const EARLY_S = 0.05;
/** The noise must lie this far below the end of a fit (ISO 3382-1:2009 5.3.3, ISO 3382-2:2008 5.3: 10 dB; from memory). */
const HEADROOM_DB = 10;
/** A recording must go on for at least this long after the sweep, or there is no decay in it. */
const LEAST_REACH_S = 0.1;
/** The flank of an octave's filter reaches this far. */
const OCTAVE_REACH = 2;
/** A decay that falls by less than this was none: a click in a free field. */
const LEAST_DECAY_S = 0.03;
const DB_PER_NEPER = 10 / Math.LN10;

interface Fit {
  readonly from: number;
  readonly to: number;
  /** Standard deviation re T of one response: a·T·√((1 + b/10)/(B·T)). */
  readonly a: number;
  readonly b: number;
}

/**
 * Fits, and the deviations of ISO 3382-2:2008 (formulas 4 and 5, from memory) with n = 10, which that standard gives to
 * an integrated impulse response; that of the early decay, which it does not have, by the same law for half the range, and 0.8 of it as simulated.
 * `npm run coverage` holds them against simulated decays.
 */
const FITS = {
  edt: { from: 0, to: -10, a: 0.8 * 0.88 * 2 ** 1.16, b: 1.9 },
  t20: { from: -5, to: -25, a: 0.88, b: 1.9 },
  t30: { from: -5, to: -35, a: 0.55, b: 1.52 },
} as const satisfies Record<string, Fit>;

/**
 * Room figures from an impulse response: decay followed into the noise (see {@link followDecay}), then line fits; each
 * only where the noise leaves it the headroom of ISO 3382-2.
 *
 * @param response - impulse response, the direct sound somewhere near its beginning, its end not faded
 * @param sampleRate - in hertz
 * @param reachS - seconds behind the direct sound that were recorded, up to a frequency: a sweep that is recorded until
 *   half a second after its end has that much behind its highest tone, and more behind the lower ones
 */
export function roomReport(
  response: Float64Array,
  sampleRate: number,
  reachS: (highestHz: number) => number = () => Infinity,
): RoomReport {
  let start = 0;
  for (let i = 1; i < response.length; i++) if (Math.abs(response[i]) > Math.abs(response[start])) start = i;
  const upTo = (highestHz: number): number =>
    start + Math.max(1, Math.round(Math.min(1e3, reachS(highestHz)) * sampleRate));
  const own = response.subarray(start, upTo(Infinity));
  const decay = followDecay(own, sampleRate);
  return {
    ...figuresOf(decay, sampleRate, effectiveBandwidth(own, sampleRate)),
    octaves: ROOM_OCTAVES_HZ.filter((hz) => hz * Math.SQRT2 < sampleRate / 2).map((centreHz) => ({
      centreHz,
      ...figuresOf(
        followDecay(
          octaveOf(response, sampleRate, centreHz).subarray(start, upTo(centreHz * OCTAVE_REACH)),
          sampleRate,
        ),
        sampleRate,
        centreHz / Math.SQRT2,
      ),
    })),
    reachS: Math.max(0, Math.min(reachS(Infinity), own.length / sampleRate)),
  };
}

function figuresOf(decay: Decay, sampleRate: number, bandwidthHz: number): RoomFigures {
  const { levels, energy, headroomDb } = decay;
  const total = energy[0];
  const at = (seconds: number): number => energy[Math.min(energy.length - 1, Math.round(seconds * sampleRate))];
  const time = ({ from, to, a, b }: Fit): RoomFigure | null => {
    if (headroomDb < -to + HEADROOM_DB) return null;
    const value = (60 / (from - to)) * fallTime(levels, from, to, sampleRate);
    if (!(value > LEAST_DECAY_S) || !Number.isFinite(value)) return null;
    return { value, uncertainty: a * value * Math.sqrt((1 + b / 10) / (bandwidthHz * value)) };
  };
  const [edt, t20, t30] = [time(FITS.edt), time(FITS.t20), time(FITS.t30)];
  const constant = ((t20 ?? edt)?.value ?? 0) / (6 * Math.LN10);
  const ratio = (seconds: number, isDirect: boolean): RoomFigure | null => {
    const late = at(seconds);
    const early = total - late;
    if (!(late > 0) || !(early > 0) || constant === 0 || headroomDb < 10 + HEADROOM_DB) return null;
    // Energy of decaying noise: as many independent readings as bandwidth times twice its time constant.
    const readings = (s: number): number => Math.max(1, bandwidthHz * Math.min(s, 2 * constant));
    const variance = 1 / readings(Infinity) + (isDirect ? 0 : 1 / readings(seconds));
    return { value: powerToDb(early / late), uncertainty: DB_PER_NEPER * Math.sqrt(variance) };
  };
  return { edt, t20, t30, c50: ratio(EARLY_S, false), directToReverberant: ratio(DIRECT_S, true), headroomDb };
}

/** Bandwidth of white noise that would scatter as much: (∫S)²/∫S². */
function effectiveBandwidth(response: Float64Array, sampleRate: number): number {
  const fft = new FftPlan(fftSize(Math.min(response.length, sampleRate)));
  const { re, im } = transformReal(fft, response.subarray(0, fft.size));
  let [sum, squares] = [0, 0];
  // Smoothed over 64 bins: each alone scatters by as much as it holds.
  for (let k = 64; k + 64 <= fft.size / 2; k += 64) {
    let power = 0;
    for (let i = k; i < k + 64; i++) power += re[i] ** 2 + im[i] ** 2;
    sum += power;
    squares += power ** 2;
  }
  return squares > 0 ? (sum ** 2 / squares) * ((64 * sampleRate) / fft.size) : sampleRate / 2;
}

/** One octave, without delay: the square of a third-order Butterworth pair, as the two passes of a filter would give. */
function octaveOf(response: Float64Array, sampleRate: number, centreHz: number): Float64Array {
  const [low, high] = [centreHz / Math.SQRT2, centreHz * Math.SQRT2];
  return spectralFilter(response, sampleRate, (f) => ({
    re: f === 0 ? 0 : 1 / (1 + (low / f) ** 6) / (1 + (f / high) ** 6),
    im: 0,
  }));
}

/** Seconds in which a line through the levels between two limits falls by their distance. */
function fallTime(levels: Float64Array, from: number, to: number, sampleRate: number): number {
  let [n, st, sl, stt, stl] = [0, 0, 0, 0, 0];
  for (let i = 0; i < levels.length && levels[i] >= to; i++) {
    if (levels[i] > from) continue;
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
export function roomMeasurements(room: RoomFigures & { readonly reachS: number }): Measurement[] {
  const headroom = Number.isFinite(room.headroomDb) ? `${room.headroomDb.toFixed(0)} dB above the noise` : 'no noise';
  const condition = `broadband, integrated impulse response, ${headroom}`;
  const hasEnd = room.reachS >= LEAST_REACH_S;
  const plain = (id: QuantityId, figure: RoomFigure | null, needsDb: number): Measurement =>
    figure
      ? measured(id, figure.value, condition, { uncertainty: figure.uncertainty, settings: { headroomDb: Math.min(999, room.headroomDb) } })
      : notMeasured(id, condition, !hasEnd ? 'The recording ends with the sweep: record on until the room has died away.' : `The decay meets the noise too early: it needs ${needsDb} dB above the noise, and has ${Math.max(0, Math.min(999, room.headroomDb)).toFixed(0)}.`); // prettier-ignore
  const needs = (fit: Fit): number => -fit.to + HEADROOM_DB;
  return [
    plain('edt', room.edt, needs(FITS.edt)),
    plain('t20', room.t20, needs(FITS.t20)),
    plain('t30', room.t30, needs(FITS.t30)),
    plain('c50', room.c50, 10 + HEADROOM_DB),
    plain('directToReverberant', room.directToReverberant, 10 + HEADROOM_DB),
  ];
}
