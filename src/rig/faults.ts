import type { BenchFault } from '#contracts/bench';
import { BiquadCascade } from '#core/dsp/biquad';
import { lowPass } from '#core/dsp/eq-biquads';
import { seededBits } from '#core/stats/random';
import { whiteNoise } from './white-noise';

/** What each fault is called on the bench. */
export const FAULT_NAMES: Readonly<Record<BenchFault, string>> = {
  clip: 'Clip: 18 dB too much gain',
  hum: 'Hum of 50 Hz',
  car: 'A car passes',
  'wrong-side': 'Wrong side addressed',
  drift: 'Drift: +1.5 dB at high frequencies',
  radio: 'Telephone bursts',
  gap: 'Cable gap of 60 ms',
};

const CLIP_DB = 18;
const HUM_AMPLITUDE = 0.004;
const HUM_HZ = [50, 100, 150, 250, 350];
const CAR_S = 3;
const CAR_RMS = 0.03;
const RADIO_AMPLITUDE = 0.01;
/** Frame rate of GSM: 26 frames in 120 ms, eight slots each (3GPP TS 45.002). */
const RADIO_HZ = 26 / 0.12;
const RADIO_SLOT_S = 0.12 / 26 / 8;
const DRIFT_DB = 1.5;
const DRIFT_HZ = 4000;
const GAP_S = 0.06;

/**
 * Puts faults into a take, in place. "wrong-side" is done by the bench, which turns the unit round.
 *
 * @param samples - full scale ±1
 * @param faults - which
 * @param sampleRate - in hertz
 * @param seed - decides the car's noise
 */
export function addFaults(
  samples: Float64Array,
  faults: readonly BenchFault[],
  sampleRate: number,
  seed: string,
): void {
  const middle = Math.floor(samples.length / 2);
  if (faults.includes('drift')) liftHighs(samples, sampleRate);
  if (faults.includes('hum')) {
    HUM_HZ.forEach((hz, n) => addTone(samples, hz, HUM_AMPLITUDE / (n + 1), sampleRate, () => 1));
  }
  if (faults.includes('car')) addCar(samples, middle, sampleRate, seed);
  if (faults.includes('radio')) {
    // A burst is the envelope of a carrier, rectified in the first junction it meets.
    for (let i = 0; i < samples.length; i++) {
      const phase = ((i / sampleRate) * RADIO_HZ) % 1;
      if (phase < RADIO_SLOT_S * RADIO_HZ) samples[i] += RADIO_AMPLITUDE;
    }
  }
  if (faults.includes('gap')) samples.fill(0, middle, middle + Math.round(GAP_S * sampleRate));
  const drive = faults.includes('clip') ? 10 ** (CLIP_DB / 20) : 1;
  for (let i = 0; i < samples.length; i++) samples[i] = Math.max(-1, Math.min(1, samples[i] * drive));
}

function addTone(
  samples: Float64Array,
  hz: number,
  amplitude: number,
  sampleRate: number,
  gate: (i: number) => number,
): void {
  for (let i = 0; i < samples.length; i++)
    samples[i] += amplitude * gate(i) * Math.sin((2 * Math.PI * hz * i) / sampleRate);
}

/** First-order shelf: the signal plus a share of what lies above the corner. */
function liftHighs(samples: Float64Array, sampleRate: number): void {
  const low = samples.slice();
  new BiquadCascade([lowPass(sampleRate, DRIFT_HZ, 0.5)]).process(low);
  const share = 10 ** (DRIFT_DB / 20) - 1;
  for (let i = 0; i < samples.length; i++) samples[i] += share * (samples[i] - low[i]);
}

/** Low noise that swells and fades. */
function addCar(samples: Float64Array, middle: number, sampleRate: number, seed: string): void {
  const length = Math.min(samples.length, Math.round(CAR_S * sampleRate));
  const noise = whiteNoise(length, seededBits(`${seed}/car`));
  new BiquadCascade([lowPass(sampleRate, 70, 0.7), lowPass(sampleRate, 300, 0.7)]).process(noise);
  const rms = Math.sqrt(noise.reduce((s, x) => s + x * x, 0) / length);
  const start = Math.max(0, middle - (length >> 1));
  for (let i = 0; i < length && start + i < samples.length; i++) {
    samples[start + i] += ((CAR_RMS * Math.sin((Math.PI * i) / length) ** 2) / rms) * noise[i];
  }
}
