import { describe, expect, it } from 'vitest';
import { BiquadCascade, cascadeGainDb, type Biquad } from '../../dsp/biquad';
import { butterworthHighPass } from '../../dsp/butterworth';
import { peaking } from '../../dsp/eq-biquads';
import { exponentialSweep } from '../../dsp/exponential-sweep';
import { difference } from '../../measure/difference';
import type { Measurement } from '../../measure/measurement';
import { measureResponse } from '../../measure/response-report';
import { lcgNoise, mixed, scaled, syllables } from '../../testing/signals';
import { analysedTake } from '../../testing/takes';
import type { AnalysedTake } from '../run/analysed-take';
import { pairGroups, pairMeasurements } from './pair-groups';
import { settingWords, type TakePair } from './take-pair';

const RATE = 48_000;
const MIDDLE_HZ = [500, 630, 800, 1000, 1250, 1600, 2000];
const SWEEP = { lowHz: 20, highHz: 20_500, seconds: 3 };
const played = exponentialSweep(SWEEP, RATE, -6);

const through = (samples: Float64Array, ...sections: readonly Biquad[]): Float64Array => {
  const out = Float64Array.from(samples);
  new BiquadCascade(sections).process(out);
  return out;
};
/** A little noise, so that a take is none of a machine's. */
const hiss = (length: number, seed: number, levelDb = -80): Float64Array => scaled(lcgNoise(length, 1, seed), levelDb);

async function sweepTake(gainDb: number, seed: number, ...sections: readonly Biquad[]): Promise<AnalysedTake> {
  const padded = new Float64Array(played.length + RATE);
  padded.set(scaled(played, -20), RATE / 2);
  const recorded = mixed(through(padded, ...sections), hiss(padded.length, seed));
  const response = { ...measureResponse(played, recorded, RATE, { gateMs: 300 }), room: null };
  return analysedTake('sweep', recorded, { gainDb, response });
}

const pair = (plays: TakePair['plays'], fitted: AnalysedTake, without: AnalysedTake, rest: Partial<TakePair> = {}): TakePair => ({ varies: 'part', setting: null, plays, fitted, without, difference: null, ...rest }); // prettier-ignore
const figures = (...pairs: readonly TakePair[]): Measurement[] => pairMeasurements(pairGroups(pairs));
const find = (list: readonly Measurement[], id: string): Measurement => {
  const found = list.find((m) => m.quantity === id);
  if (!found) throw new Error(`no ${id} among ${list.map((m) => m.quantity).join(', ')}`);
  return found;
};

describe('a noise from outside', () => {
  const street = (levelDb: number, seed: number): Float64Array => scaled(lcgNoise(8 * RATE, 1, seed), levelDb);
  const take = (levelDb: number, seed: number, gain: Partial<AnalysedTake>) =>
    analysedTake('other', street(levelDb, seed), gain);

  // 10.5 dB are 91 % of the energy and 70 % of the amplitude: 1 − 10^−1.05 and 1 − 10^−0.525, arithmetic.
  it.each([
    ['at one gain', { gainDb: 40 }, { gainDb: 40 }, 0],
    ['at noted gains that differ', { gainDb: 46 }, { gainDb: 40 }, 6],
    ['at one place of the dial', { gainDb: null, dial: '50 %' }, { gainDb: null, dial: '50%' }, 0],
  ] as const)('that a shield takes 10.5 dB of comes back as 10.5 dB %s', async (_, withGain, withoutGain, turned) => {
    const list = figures(pair('noise', await take(-40.5 + turned, 1, withGain), await take(-30, 2, withoutGain)));
    for (const id of ['outsideLessZ', 'outsideLessA']) {
      const found = find(list, id);
      // Eight seconds of white noise scatter by a few hundredths of a decibel.
      expect(Math.abs((found.value ?? NaN) - 10.5)).toBeLessThan(0.1);
      expect(found.condition).toContain('91 % of the energy, 70 % of the amplitude');
      expect(found.uncertainty).toBeGreaterThan(turned === 0 ? 0 : 0.49);
    }
  });

  it.each([
    ['the dial moved', { gainDb: null, dial: '50 %' }, { gainDb: null, dial: '60 %' }, /dial at 50 % and dial at 60 %/],
    ['the gain is not known', { gainDb: null }, { gainDb: 40 }, /not known/],
    ['the gain is automatic', { gainDb: null, dial: 'auto' }, { gainDb: null, dial: 'auto' }, /automatic/],
  ] as const)('is not measured where %s', async (_, withGain, withoutGain, words) => {
    const list = figures(pair('noise', await take(-40, 1, withGain), await take(-30, 2, withoutGain)));
    expect(find(list, 'outsideLessA')).toMatchObject({ value: null, notMeasured: expect.stringMatching(words) as string }); // prettier-ignore
  });

  it('that goes down to the noise of the device is taken away by that much at least', async () => {
    const quiet = (seed: number) => analysedTake('other', street(-70, seed), { gainDb: 40 });
    const list = figures(
      pair('noise', await take(-70, 1, { gainDb: 40 }), await take(-30, 2, { gainDb: 40 })),
      pair('silence', await quiet(3), await quiet(4)),
    );
    expect(find(list, 'outsideLessA').bound).toBe('at-least');
  });
});

describe('a booster, by sweep', () => {
  it('gives its gain back, the noted gains taken off', async () => {
    // The level in the file is the same: what the booster adds was turned back at the interface.
    const found = find(figures(pair('sweep', await sweepTake(30, 1), await sweepTake(55, 2))), 'gainAdded');
    expect(found.value).toBeCloseTo(25, 1);
    expect(found.uncertainty).toBeGreaterThan(0.49);
  });

  it.each([
    [1, 90],
    [2, 110],
    [4, 140],
  ])('shows a hidden low-cut of order %i at %i Hz', async (order, hz) => {
    const list = figures(
      pair('sweep', await sweepTake(40, 1, ...butterworthHighPass(order, hz, RATE)), await sweepTake(40, 2)),
    );
    const found = find(list, 'hiddenLowCut');
    expect(Math.abs((found.value ?? NaN) / hz - 1)).toBeLessThan(0.03);
    expect(found.condition).toContain(`order ${order}`);
  });

  it('without one says how far down none was found, not zero', async () => {
    const list = figures(pair('sweep', await sweepTake(40, 1), await sweepTake(40, 2)));
    const found = find(list, 'hiddenLowCut');
    expect(found).toMatchObject({ bound: 'at-most', condition: 'none found, by sweep' });
    expect(found.value).toBeGreaterThanOrEqual(30);
    expect(find(list, 'tonalChange').value).toBeLessThan(0.1);
  });

  it('tells the change of each third octave as the filter has it', async () => {
    const bell = peaking(RATE, 250, 4, 0.9);
    const groups = pairGroups([pair('sweep', await sweepTake(40, 1, bell), await sweepTake(40, 2))]);
    const bands = groups[0].tonal?.bands ?? [];
    const exact = (hz: number) => cascadeGainDb([bell], hz, RATE);
    const zero = MIDDLE_HZ.reduce((s, hz) => s + exact(hz) / MIDDLE_HZ.length, 0);
    for (const hz of [80, 160, 250, 1000, 4000, 10_000]) {
      const found = bands.find((b) => b.hz === hz)?.db ?? NaN;
      // 0.15 dB: a band is a mean over its width, the formula a point.
      expect(Math.abs(found - (exact(hz) - zero))).toBeLessThan(0.15);
    }
    expect(find(pairMeasurements(groups), 'tonalChange').settings['hz']).toBe(250);
  });
});

describe('words with a part and without it', () => {
  const SPANS = [[0.4, 3] as const, [3.6, 6.8] as const].map((s) => [...s] as [number, number]);
  const passage = syllables(SPANS, 9, -20, RATE, 5);
  const noisy = (levelDb: number, seed: number): Float64Array => mixed(passage, hiss(9 * RATE, seed, levelDb));

  it('change their noise re speech by what the noise was changed', async () => {
    const list = figures(
      pair('text', await analysedTake('other', noisy(-66, 1)), await analysedTake('speech', noisy(-60, 2))),
    );
    for (const id of ['noiseChangeZ', 'noiseChangeA']) {
      // 0.6 dB: the noise is read from a second and a half of pauses, twice.
      expect(Math.abs((find(list, id).value ?? NaN) + 6)).toBeLessThan(0.6);
      expect(find(list, id).uncertainty).toBeGreaterThan(0);
    }
  });

  it('need no gain for that, but one for the gain that was added', async () => {
    const unknown = { gainDb: null };
    const list = figures(
      pair(
        'text',
        await analysedTake('other', noisy(-66, 1), unknown),
        await analysedTake('speech', noisy(-60, 2), unknown),
      ),
    );
    expect(find(list, 'noiseChangeA').value).not.toBeNull();
    expect(find(list, 'gainAdded')).toMatchObject({ value: null, notMeasured: expect.stringMatching(/not known/) as string }); // prettier-ignore
  });

  it('of one performance tell the filter between them', async () => {
    const sections = [peaking(RATE, 3000, -5, 1)];
    const [bare, filtered] = [noisy(-80, 1), through(noisy(-80, 1), ...sections)];
    const list = figures(
      pair('text', await analysedTake('other', filtered), await analysedTake('speech', bare), {
        difference: difference(bare, filtered, RATE),
      }),
    );
    const found = find(list, 'tonalChange');
    expect(found.settings['hz']).toBe(3150);
    expect(found.condition).toMatch(/^one performance through both, at 3\.15 kHz: \d\.\d dB less$/);
    const exact = (hz: number): number => cascadeGainDb(sections, hz, RATE);
    const zero = MIDDLE_HZ.reduce((s, hz) => s + exact(hz) / MIDDLE_HZ.length, 0);
    // 0.3 dB: what a filter between two clips has to come back within.
    expect(Math.abs((found.value ?? NaN) + (exact(3150) - zero))).toBeLessThan(0.3);
  });
});

describe('settings of a part', () => {
  it('are what was noted of the take with it alone', () => {
    expect(settingWords({ lowCut: 'on', pad: '', phantom: true, voice: 'Ada' }, { phantom: true })).toBe('low cut on');
    expect(settingWords({ phantom: true, dial: '7' }, {})).toBeNull();
  });

  it('make groups of their own; the plain one gives the figures of the run', async () => {
    const [bare, plain, cut] = [
      await sweepTake(40, 1),
      await sweepTake(40, 2),
      await sweepTake(40, 3, ...butterworthHighPass(2, 120, RATE)),
    ];
    const groups = pairGroups([pair('sweep', cut, bare, { setting: 'low cut on' }), pair('sweep', plain, bare)]);
    expect(groups.map((g) => g.setting)).toEqual([null, 'low cut on']);
    expect(find(pairMeasurements(groups), 'hiddenLowCut').bound).toBe('at-most');
    expect(find(groups[1].figures, 'hiddenLowCut').condition).toMatch(/order 2, by sweep, low cut on/);
  });
});
