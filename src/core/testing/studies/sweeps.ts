import { convolve } from '../../dsp/convolve';
import { BiquadCascade } from '../../dsp/biquad';
import { butterworthHighPass } from '../../dsp/butterworth';
import { fractionalOctaveBands } from '../../dsp/fractional-octave';
import { exponentialSweep } from '../../dsp/exponential-sweep';
import { fitDistanceLadder } from '../../measure/distance-ladder';
import { measureResponse, type MeasuredResponse } from '../../measure/response-report';
import { roomReport, type RoomFigure } from '../../measure/room-acoustics';
import { standardNormal } from '../../stats/normal';
import { seededBits } from '../../stats/random';
import { powerToDb } from '../../units';
import { colouredNoise, NOISY_RATE } from '../noisy-takes';
import { coverage, type Coverage, type Trial } from './coverage';

/** The sweep that all of these play. */
export const STUDY_SWEEP = exponentialSweep({ lowHz: 20, highHz: 20_000, seconds: 3 }, NOISY_RATE, -6);
const PERIOD_S = 0.4;

/** Noise that decays by 60 dB in a time, 1.5 s of it. */
export const decayingNoise = (t60: number, seed: string): Float64Array =>
  colouredNoise(1.5, 0.05, null, seed).map((x, i) => x * Math.exp((-6.9078 * i) / NOISY_RATE / t60));

/** A recorded sweep: quiet before it, a response, quiet after it, noise all through. */
export function recordedSweep(response: Float64Array, noiseRms: number, seed: string): Float64Array {
  const before = Math.round(PERIOD_S * NOISY_RATE);
  const wet = convolve(STUDY_SWEEP, response, STUDY_SWEEP.length + NOISY_RATE);
  const out = colouredNoise((before + wet.length) / NOISY_RATE, noiseRms, null, seed);
  wet.forEach((x, i) => (out[before + i] += x));
  return out;
}

/** Reverberation times of decays of known length, without and with noise. */
export function roomStudy(trials: number): Coverage[] {
  const figure = (f: RoomFigure | null, truth: number): Trial | null =>
    f && { error: f.value - truth, u: f.uncertainty };
  return [0.2, 0.3, 0.8].flatMap((t60) => {
    const reports = Array.from({ length: trials }, (_, t) =>
      roomReport(decayingNoise(t60, `room ${t60} ${t}`), NOISY_RATE),
    );
    const c50 = powerToDb(Math.exp((13.8155 * 0.05) / t60) - 1);
    return [
      coverage(
        `T20 of ${t60} s, broadband`,
        reports.map((r) => figure(r.t20, t60)),
      ),
      coverage(
        `T30 of ${t60} s, broadband`,
        reports.map((r) => figure(r.t30, t60)),
      ),
      coverage(
        `EDT of ${t60} s, broadband`,
        reports.map((r) => figure(r.edt, t60)),
      ),
      coverage(
        `C50 of ${t60} s, broadband`,
        reports.map((r) => figure(r.c50, c50)),
      ),
      coverage(
        `T20 of ${t60} s, 500 Hz`,
        reports.map((r) => figure(r.octaves[2].t20, t60)),
      ),
      coverage(
        `T20 of ${t60} s, 2 kHz`,
        reports.map((r) => figure(r.octaves[4].t20, t60)),
      ),
    ];
  });
}

/** T20 and T30 from sweeps recorded in noise; the sweep's own level re the noise over its length. */
export function noisyRoomStudy(trials: number): Coverage[] {
  return [
    [0.3, 30],
    [0.2, 40],
    [0.3, 50],
  ].flatMap(([t60, snrDb]) => {
    const found: MeasuredResponse[] = Array.from({ length: trials }, (_, t) => {
      const response = decayingNoise(t60, `noisy ${t60} ${t}`);
      response[0] = 1;
      const level = Math.sqrt(convolve(STUDY_SWEEP, response).reduce((s, x) => s + x * x, 0) / STUDY_SWEEP.length);
      return measureResponse(STUDY_SWEEP, recordedSweep(response, level * 10 ** (-snrDb / 20), `n ${t}`), NOISY_RATE, { withRoom: true }); // prettier-ignore
    });
    const trial = (f: RoomFigure | null): Trial | null => f && { error: f.value - t60, u: f.uncertainty };
    return [
      coverage(
        `T20 of ${t60} s, sweep ${snrDb} dB above the noise`,
        found.map((m) => trial(m.room?.t20 ?? null)),
      ),
      coverage(
        `T30 of ${t60} s, sweep ${snrDb} dB above the noise`,
        found.map((m) => trial(m.room?.t30 ?? null)),
      ),
    ];
  });
}

/** Limits, slope and distortion of a known chain in noise. */
export function responseStudy(trials: number): Coverage[] {
  const [corner, second] = [80, 0.01];
  const measure = (noiseRms: number): MeasuredResponse[] =>
    Array.from({ length: trials }, (_, t) => {
      const before = Math.round(PERIOD_S * NOISY_RATE);
      const out = colouredNoise((before + STUDY_SWEEP.length) / NOISY_RATE + 1, noiseRms, null, `response ${t}`);
      const wet = new Float64Array(out.length - before);
      // x + a·x² has a second harmonic of a·x̂/2.
      STUDY_SWEEP.forEach((x, i) => (wet[i] = x + second * x * x));
      new BiquadCascade(butterworthHighPass(2, corner, NOISY_RATE)).process(wet);
      wet.forEach((x, i) => (out[before + i] += x));
      return measureResponse(STUDY_SWEEP, out, NOISY_RATE);
    });
  const [results, quiet] = [measure(0.01), measure(0.001)];
  const peak = 10 ** (-6 / 20);
  const thd = 20 * Math.log10((second * peak) / 2);
  return [
    coverage('lower limit, −3 dB, of an 80 Hz high-pass', results.map(({ summary: { minus3LowHz: f } }) => f && { error: f.value - MINUS_3_HZ, u: f.u })), // prettier-ignore
    coverage('slope of a flat chain', results.map(({ summary: { slopeDbPerOctave: f } }) => f && { error: f.value - SLOPE_OF_CORNER, u: f.u })), // prettier-ignore
    coverage('harmonic distortion at 1 kHz, noise at −60 dBFS', quiet.map(({ distortion: d }) => d.thdDb === null ? null : { error: d.thdDb - thd, u: d.uncertaintyDb ?? 0, bound: d.bound })), // prettier-ignore
  ];
}

/** Where 10·lg(1 + (80/f)⁴) = 3: a Butterworth high-pass has 3.01 dB at its corner. */
const MINUS_3_HZ = 80 / (10 ** 0.3 - 1) ** 0.25;

/** Slope from 100 Hz on that an 80 Hz Butterworth high-pass of second order leaves, by least squares over log frequency. */
const SLOPE_OF_CORNER = ((): number => {
  const points = fractionalOctaveBands(24, 20, 19_600)
    .map((b) => Math.sqrt(b.lowHz * b.highHz))
    .filter((hz) => hz >= 98 && hz <= 10_200);
  const x = points.map((hz) => Math.log2(hz));
  const y = points.map((hz) => -10 * Math.log10(1 + (80 / hz) ** 4));
  const mx = x.reduce((s, v) => s + v, 0) / x.length;
  return x.reduce((s, v, i) => s + (v - mx) * y[i], 0) / x.reduce((s, v) => s + (v - mx) ** 2, 0);
})();

/** Critical distance from lines that are read anew at each distance. */
export function ladderStudy(trials: number, readingDb = 0.7): Coverage[] {
  return [0.4, 0.8, 1.2].map((critical) => {
    const all = Array.from({ length: trials }, (_, t): Trial => {
      const bits = seededBits(`ladder ${critical} ${t}`);
      const rungs = [0.15, 0.3, 0.6, 1, 1.5].map((distanceM) => ({
        distanceM,
        db: powerToDb(1 / distanceM ** 2 + 1 / critical ** 2) + readingDb * standardNormal(bits),
      }));
      const fit = fitDistanceLadder(rungs);
      const [least, most] = fit?.critical95 ?? [0, null];
      if (!fit || fit.criticalM === null || most === null) return { error: least - critical, u: 0, bound: 'at-least' };
      // The interval itself is what is claimed: inside it counts as within two.
      const half = critical < fit.criticalM ? fit.criticalM - least : most - fit.criticalM;
      return { error: fit.criticalM - critical, u: half / 2 };
    });
    return coverage(`critical distance of ${critical} m, lines read with ±${readingDb} dB`, all);
  });
}
