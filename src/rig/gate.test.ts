import { expect, it } from 'vitest';
import { pickupRunFigures } from '#core/gear/microphone/run-figures';
import { lcgNoise, mixed, scaled, syllables } from '#core/testing/signals';
import { analysedTake } from '#core/testing/takes';
import { addGate } from './gate';

const RATE = 48_000;
const GATE = { thresholdDbfs: -48, closedDb: 24, holdS: 0.3 };
const noise = (seconds: number, seed: number): Float64Array => scaled(lcgNoise(seconds * RATE, 1, seed), -70);
const spoken = (): Float64Array => mixed(syllables([[0.4, 3], [4.6, 7]], 9, -20, RATE, 5), noise(9, 1)); // prettier-ignore

it('opens for words and closes behind them', () => {
  const samples = spoken();
  const before = Float64Array.from(samples);
  addGate(samples, RATE, GATE);
  const rms = (x: Float64Array, fromS: number, toS: number): number => 10 * Math.log10(x.subarray(fromS * RATE, toS * RATE).reduce((s, v) => s + v * v, 0) / ((toS - fromS) * RATE)); // prettier-ignore
  expect(rms(samples, 1, 2)).toBeCloseTo(rms(before, 1, 2), 6);
  expect(rms(before, 3.6, 4.4) - rms(samples, 3.6, 4.4)).toBeCloseTo(24, 1);
});

it('leaves no noise figure: neither from the pauses of the speech, nor from a silent take that it keeps closed', async () => {
  const [speech, silence] = [spoken(), noise(6, 3)];
  const open = [await analysedTake('speech', speech.slice()), await analysedTake('silence', silence.slice())];
  for (const samples of [speech, silence]) addGate(samples, RATE, GATE);
  const gated = [await analysedTake('speech', speech), await analysedTake('silence', silence)];
  const figure = (takes: typeof open) => pickupRunFigures(takes).measurements.find((m) => m.quantity === 'noiseReSpeechA'); // prettier-ignore
  expect(figure(open)?.value).not.toBeNull();
  expect(figure(gated)?.notMeasured).toMatch(
    /gate or an expander hides it.*The silent take is no louder than its pauses/,
  );
  expect(figure(gated.slice(0, 1))?.notMeasured).toMatch(/gate or an expander hides it/);
  // A silent take that was recorded with the gate off is the noise.
  expect(figure([gated[0], open[1]])?.value).toBeCloseTo(figure(open)?.value ?? NaN, 1);
});
