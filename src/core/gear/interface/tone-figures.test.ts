import { describe, expect, it } from 'vitest';
import { readTone } from '../../measure/take-tone';
import type { Measurement } from '../../measure/measurement';
import { lcgNoise, mixed, scaled, sine } from '../../testing/signals';
import type { AnalysedTake } from '../run/analysed-take';
import { toneFigures } from './tone-figures';

const RATE = 48_000;
const SECONDS = 4;
const tone = (hz: number, db: number) => sine(hz, db, SECONDS, RATE);
const noise = (db: number, seed = 1) => scaled(lcgNoise(SECONDS * RATE, 1, seed), db);
/** Tone figures need nothing of a take but its role, its tones and the level that was noted. */
const take = (role: string, channels: readonly Float64Array[], levelDbu: number | null = null): AnalysedTake =>
  ({ role, levelDbu, tone: readTone(channels, RATE) }) as AnalysedTake;
const figure = (id: string, ...takes: AnalysedTake[]): Measurement | undefined => toneFigures(takes).find((m) => m.quantity === id); // prettier-ignore
const reason = (id: string, ...takes: AnalysedTake[]): string => figure(id, ...takes)?.notMeasured ?? 'measured';

describe('figures of an input by tones', () => {
  it('are those of the tones that were recorded, and no others', () => {
    expect(toneFigures([])).toEqual([]);
    expect(toneFigures([take('full-tone', [tone(997, -1)])]).map((m) => m.quantity)).toEqual(['distortion', 'thdTone']);
  });

  it('THD+N of white noise and a harmonic, with the level of the tone in the condition', () => {
    const found = figure('distortion', take('full-tone', [mixed(mixed(tone(997, -1), tone(1994, -101)), noise(-110))]));
    // Uniform noise of amplitude a has a mean square of a²/3; 19.98 of 24 kHz of it in the band; the tone's is 10^−0.1/2.
    const rest = (10 ** -11 / 3) * (19_980 / 24_000) + 10 ** -10.1 / 2;
    expect(Math.abs((found?.value ?? NaN) - 10 * Math.log10(rest / (10 ** -0.1 / 2)))).toBeLessThan(0.1);
    expect(found?.condition).toBe('20 Hz–20 kHz, tone of 997 Hz at −1.0 dBFS');
  });

  it('THD that the noise covers is an upper limit', () => {
    expect(figure('thdTone', take('full-tone', [mixed(tone(997, -1), noise(-60))]))?.bound).toBe('at-most');
    expect(figure('thdTone', take('full-tone', [mixed(tone(997, -1), tone(1994, -61))]))?.bound).toBe('exact');
  });

  it('highest input level: the noted level re what it reads', () => {
    expect(figure('mostInput', take('most-input', [tone(1000, -3)], 9))?.value).toBeCloseTo(12, 2);
    expect(reason('mostInput', take('most-input', [tone(1000, -3)]))).toMatch(/not noted/);
  });

  it('crosstalk, whichever channel is fed, and the difference of channels', () => {
    const quiet = mixed(tone(1000, -96), noise(-120));
    expect(figure('crosstalk', take('one-channel', [tone(1000, -6), quiet]))?.value).toBeCloseTo(-90, 1);
    const swapped = figure('crosstalk', take('one-channel', [quiet, tone(1000, -6)]));
    expect(swapped?.value).toBeCloseTo(-90, 1);
    expect(swapped?.condition).toMatch(/in channel 2/);
    const drowned = figure('crosstalk', take('one-channel', [tone(1000, -6), noise(-60)]));
    expect(drowned?.bound).toBe('at-most');
    expect(figure('channelBalance', take('both-channels', [tone(1000, -6), tone(1000, -6.4)]))?.value).toBeCloseTo(-0.4, 2); // prettier-ignore
  });
});

describe('takes that give no figure say why', () => {
  const clipped = tone(997, 3).map((x) => Math.max(-1, Math.min(1, x)));

  it.each([
    ['no tone', 'dynamicRange', 'faint-tone', [noise(-60)], /no tone was played|not near/],
    ['the wrong level', 'dynamicRange', 'faint-tone', [tone(997, -40)], /−40\.0 dBFS.*−60 dBFS/],
    ['the wrong tone', 'distortion', 'full-tone', [tone(440, -1)], /440 Hz/],
    ['a rate that lies', 'distortion', 'full-tone', [tone(997 * (48 / 44.1), -1)], /1085 Hz.*sample rate/],
    ['a tone in noise', 'distortion', 'full-tone', [mixed(tone(997, -20), noise(-20))], /no tone alone/],
    ['clipping', 'distortion', 'full-tone', [clipped], /clips/],
    ['tones of equal strength', 'modulationDistortion', 'two-tones', [mixed(tone(60, -10), tone(7000, -10))], /0\.0 dB stronger/],
    ['one tone of two', 'modulationDistortion', 'two-tones', [tone(997, -10)], /low and a high tone/],
    ['twins that are none', 'differenceDistortion', 'twin-tones', [mixed(tone(18_000, -10), tone(19_000, -16))], /differ by 6\.0 dB/],
    ['one channel of two', 'crosstalk', 'one-channel', [tone(1000, -6)], /one channel/],
  ] as const)('%s', (_, id, role, channels, words) => {
    expect(reason(id, take(role, channels))).toMatch(words);
  }); // prettier-ignore

  it('too short', () => {
    expect(reason('distortion', take('full-tone', [sine(997, -1, 1)]))).toMatch(/too short/);
  });
});
