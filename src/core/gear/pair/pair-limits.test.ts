import { describe, expect, it } from 'vitest';
import { measured, notMeasured, type Measurement } from '../../measure/measurement';
import { lcgNoise, scaled } from '../../testing/signals';
import { analysedTake } from '../../testing/takes';
import type { AnalysedTake } from '../run/analysed-take';
import { figureBetween } from './figure-between';
import { knocksLess, windLess } from './outside-less';
import { pairGroups } from './pair-groups';
import type { TakePair } from './take-pair';

const RATE = 48_000;
const rumble = async (db: number, seed: number, change: Partial<AnalysedTake>): Promise<AnalysedTake> =>
  analysedTake('wind', scaled(lcgNoise(5 * RATE, 1, seed), db), change);
const pair = (plays: string, fitted: AnalysedTake, without: AnalysedTake): TakePair => ({ varies: 'fur', setting: null, plays, fitted, without, difference: null }); // prettier-ignore
const value = (list: readonly Measurement[], id: string) => list.find((m) => m.quantity === id)?.value;

describe('wind with a part and without it', () => {
  it('is held at one gain and one speed: 18 dB less come back as 18 dB, below 200 Hz and A-weighted', async () => {
    const figures = windLess(
      pair(
        'wind',
        await rumble(-42, 1, { windSpeedMs: 7, gainDb: 46 }),
        await rumble(-30, 2, { windSpeedMs: 7, gainDb: 40 }),
      ),
    );
    // Five seconds of noise in a band of 180 Hz scatter by a tenth of a decibel or two.
    expect(Math.abs((value(figures, 'windLessLow') ?? NaN) - 18)).toBeLessThan(0.5);
    expect(Math.abs((value(figures, 'windLessA') ?? NaN) - 18)).toBeLessThan(0.1);
    expect(figures[0].condition).toMatch(/20–200 Hz, equal gain, wind of 7 m\/s: 98 % of the energy, 87 % of the amp/);
    expect(figures[0].settings['windSpeedMs']).toBe(7);
  });

  it.each([
    [7, 4],
    [7, null],
  ])('at %s and at %s m/s says nothing of the part', async (fitted, without) => {
    const figures = windLess(pair('wind', await rumble(-42, 1, { windSpeedMs: fitted }), await rumble(-30, 2, { windSpeedMs: without }))); // prettier-ignore
    expect(figures.map((m) => m.notMeasured)).toEqual(Array(2).fill(expect.stringMatching(/different speeds/)));
  });
});

it('knocks that were made alike are held at one gain by their loudest moment', async () => {
  const [fitted, without] = [await rumble(-40, 1, { gainDb: 34 }), await rumble(-30, 2, { gainDb: 40 })];
  const [found] = knocksLess(pair('knocks', fitted, without));
  expect(found.value).toBeCloseTo(without.loudest.zDbfs - 40 - (fitted.loudest.zDbfs - 34), 9);
  expect(knocksLess(pair('knocks', { ...fitted, gainDb: null }, without))[0].notMeasured).toMatch(/not known/);
});

describe('one figure minus another', () => {
  const figure = (v: number, u: number | null, bound: Measurement['bound'] = 'exact') => measured('plosives', v, 'x', { uncertainty: u, bound }); // prettier-ignore

  it('is as unsure as both together', () => {
    const found = figureBetween('plosivesLess', 'x', figure(4, 0.3), figure(10, 0.4), -1);
    expect(found).toMatchObject({ value: 6, uncertainty: 0.5, bound: 'exact' });
    expect(figureBetween('plosivesLess', 'x', figure(4, null), figure(10, 0.4), -1).uncertainty).toBeNull();
  });

  it('is a limit where only the one with the part is one, and unknown where the other is', () => {
    expect(figureBetween('noiseChangeA', 'x', figure(-70, 1, 'at-most'), figure(-60, 1))).toMatchObject({ value: -10, bound: 'at-most' }); // prettier-ignore
    expect(figureBetween('noiseChangeA', 'x', figure(-70, 1), figure(-60, 1, 'at-most')).value).toBeNull();
    expect(figureBetween('plosivesLess', 'x', figure(4, 1, 'at-most'), figure(10, 1), -1).value).toBeNull();
    expect(figureBetween('noiseChangeA', 'x', notMeasured('noiseReSpeechA', 'x', 'No silence.'), figure(1, 1)).notMeasured).toBe('No silence.'); // prettier-ignore
  });
});

it('puffs and sibilants are read from their own figures, and only where both halves have them', async () => {
  const quiet = await analysedTake('plosive', scaled(lcgNoise(3 * RATE, 1, 3), -60));
  const withPuffs = (db: number): AnalysedTake => ({ ...quiet, clip: [measured('plosives', db, 'puffs', { uncertainty: 0.5 })] }); // prettier-ignore
  const figures = pairGroups([pair('phrase', withPuffs(3), withPuffs(17))])[0].figures;
  expect(value(figures, 'plosivesLess')).toBe(14);
  expect(value(figures, 'sibilanceChange')).toBeUndefined();
  expect(value(pairGroups([pair('phrase', quiet, withPuffs(17))])[0].figures, 'plosivesLess')).toBeUndefined();
});
