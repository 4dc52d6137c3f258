import { describe, expect, it } from 'vitest';
import { clipMeasurements } from '../../measure/clip-measurements';
import { lcgNoise, mixed, scaled, syllables } from '../../testing/signals';
import { analyse } from '../../testing/signals';
import { analysedTake } from '../../testing/takes';
import type { AnalysedTake } from '../run/analysed-take';
import { windAlone } from '../run/wind-alone';
import { fieldFigures, linkFigures, windBySpeed } from './field-figures';

const RATE = 48_000;
const noise = (db: number, seed: number, seconds = 4) => scaled(lcgNoise(seconds * RATE, 1, seed), db);
const speech = await analysedTake('speech', mixed(syllables([[0.4, 3], [3.6, 6.8]], 8, -20, RATE, 5), noise(-80, 1, 8))); // prettier-ignore
const wind = (db: number, windSpeedMs: number | null, gainDb = 40) => analysedTake('wind', noise(db, 3), { windSpeedMs, gainDb }); // prettier-ignore
const figure = (takes: AnalysedTake[], id: string) =>
  fieldFigures([speech, ...takes], speech).find((m) => m.quantity === id);

describe('wind at several speeds', () => {
  it('has a highest usable one, whatever the gains are', async () => {
    const quiet = await wind(-40, 4);
    const loud = await wind(-28, 8, 40);
    const found = figure([quiet, loud], 'windUsable');
    const a = (t: AnalysedTake) => t.aDbfs - speech.loudness.integratedLufs;
    const share = (-10 - a(quiet)) / (a(loud) - a(quiet));
    expect(found?.bound).toBe('exact');
    expect(found?.value).toBeCloseTo(4 * 2 ** share, 6);
    expect(found?.condition).toBe('A-weighted wind noise at −10 dB re speech, from 4, 8 m/s');
    // Six decibels more gain for the same wind: six less in the file.
    expect(figure([await wind(-46, 4, 34), loud], 'windUsable')?.value).toBeCloseTo(4 * 2 ** share, 6);
  });

  it('stand side by side by their speeds, each re the speech at equal gain', async () => {
    const [light, strong] = [await wind(-40, 4), await wind(-28, 8, 46)];
    const found = windBySpeed([strong, speech, light], speech);
    expect(found?.map((p) => p.speedMs)).toEqual([4, 8]);
    expect(found?.[0].aDb).toBeCloseTo(light.aDbfs - speech.loudness.integratedLufs, 9);
    // Six decibels more gain than at the speech are taken off.
    expect(found?.[1].aDb).toBeCloseTo(strong.aDbfs - 6 - speech.loudness.integratedLufs, 9);
    expect(windBySpeed([light, { ...strong, gainDb: null }], speech)).toBeNull();
  });

  it('is a limit where words may be drowned in it, and so is the speed that it leaves usable', async () => {
    const [quiet, near] = [await wind(-45, 4), await wind(-24, 8)];
    expect(Math.abs(near.aDbfs - speech.aDbfs)).toBeLessThan(3);
    expect(windBySpeed([quiet, near], speech)?.map((p) => p.bound)).toEqual(['exact', 'at-most']);
    expect(figure([quiet, near], 'windUsable')).toMatchObject({ bound: 'at-least' });
    expect(figure([quiet, { ...near, windSpeedMs: 3 }], 'windUsable')).toMatchObject({ bound: 'at-most', value: 3 });
  });

  it('is read between the words that were spoken into it, and is a limit where they leave no pause', async () => {
    const words = syllables([[0.5, 3]], 6, -20, RATE, 8); // prettier-ignore
    const spoken = await analysedTake('wind', mixed(words, noise(-48, 3, 6)), { windSpeedMs: 4, gainDb: 40 });
    const alone = await analysedTake('wind', noise(-48, 3, 6), { windSpeedMs: 4, gainDb: 40 });
    const strong = await wind(-28, 8);
    const at4 = (take: AnalysedTake) => windBySpeed([take, strong], speech)?.[0].aDb ?? NaN;
    expect(spoken.aDbfs - alone.aDbfs).toBeGreaterThan(15);
    expect(at4(spoken)).toBeCloseTo(at4(alone), 0);
    const apart = (take: AnalysedTake, wordsDb = -90) => windAlone(take, wordsDb);
    expect(apart(spoken)).toMatchObject({ from: 'between the words', bound: 'exact' });
    expect(apart({ ...spoken, noise: spoken.noise && { ...spoken.noise, bound: 'at-most' } }).bound).toBe('at-most');
    expect(apart({ ...spoken, noise: null })).toMatchObject({ bound: 'at-most', aDbfs: spoken.aDbfs });
    // Nobody was found to speak: nobody did where the wind lies far below a voice, a voice adds nothing far above.
    expect(apart(alone, alone.aDbfs - 7)).toMatchObject({ from: 'whole take', bound: 'exact' });
    expect(apart(alone, alone.aDbfs - 5)).toMatchObject({ bound: 'at-most' });
    expect(apart(alone, alone.aDbfs + 2)).toMatchObject({ bound: 'at-most' });
    expect(apart(alone, alone.aDbfs + 4)).toMatchObject({ bound: 'exact' });
  });

  it('is not told from one speed, nor from speeds that nobody noted', async () => {
    expect(figure([await wind(-40, 4)], 'windUsable')).toBeUndefined();
    expect(figure([await wind(-40, null), await wind(-30, null)], 'windUsable')).toBeUndefined();
  });

  it('is not measured where no gain can be held against that of the speech', async () => {
    const unknown = [await wind(-40, 4), await wind(-28, 8)].map((t) => ({ ...t, gainDb: null }));
    expect(figure(unknown, 'windUsable')).toMatchObject({ value: null });
  });
});

it('clothing that rubs: its loudest moment, and what a tenth of the time exceeds', async () => {
  const rubbing = mixed(noise(-60, 1, 10), Float64Array.from(noise(-20, 2, 10), (x, i) => (i % (2 * RATE) < 0.3 * RATE ? x : 0))); // prettier-ignore
  const rub = await analysedTake('rub', rubbing, { gainDb: 46 });
  const [loudest, tenth] = [figure([rub], 'rubLoudest'), figure([rub], 'rubTenth')];
  // Six decibels of gain are taken off.
  expect(loudest?.value).toBeCloseTo(rub.loudest.aDbfs - 46 - (speech.loudness.integratedLufs - 40), 9);
  // A seventh of the time rubs: a tenth exceeds nearly as much, a steady noise 40 dB lower does not reach it.
  expect((loudest?.value ?? 0) - (tenth?.value ?? 0)).toBeLessThan(6);
  expect(figure([{ ...rub, gainDb: null, dial: 'auto' }], 'rubLoudest')?.notMeasured).toMatch(/automatic/);
});

it('drop-outs of a walk are told by its minutes', async () => {
  const samples = mixed(syllables([[0.2, 9.8]], 10, -20, RATE, 7), noise(-60, 9, 10));
  for (const atS of [2, 4, 6]) samples.fill(0, atS * RATE, (atS + 0.03) * RATE);
  const walk = {
    ...(await analysedTake('range-walk', samples)),
    clip: clipMeasurements(await analyse([samples], RATE)),
  };
  const [found] = linkFigures(walk);
  expect(found.value).toBeCloseTo(18, 0);
  expect(found.condition).toMatch(/^3 in 0\.2 min/);
  expect(linkFigures(undefined)).toEqual([]);
});
