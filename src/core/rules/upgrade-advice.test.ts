import { expect, it } from 'vitest';
import type { UnitFacts } from './criterion-points';
import type { Rubric } from './rubric';
import { upgradeAdvice } from './upgrade-advice';

const RUBRIC: Rubric = {
  id: 'r',
  version: 1,
  name: 'R',
  category: 'interface',
  criteria: [
    { id: 'sound', name: 'Sound', meaning: 'm', kind: 'by-hand', repeatability: 0.3 },
    { id: 'value', name: 'Value', meaning: 'm', kind: 'price', currency: 'EUR', basis: ['street'], curve: [[10, 5], [1000, 0]], limit: null }, // prettier-ignore
  ],
  weights: { sound: 1, value: 9 },
  stratumProbability: 0.9,
};
const figure = (value: number, uncertainty = 0.2, between = 0, bound: 'exact' | 'at-most' = 'exact') => ({ value, uncertainty, between, bound, notMeasured: null }); // prettier-ignore
const unit = (id: string, sound: number, amount: number | null, change: Partial<UnitFacts> = {}): UnitFacts => ({
  id,
  figures: {},
  byHand: { sound: { value: sound, reason: null } },
  prices: amount === null ? [] : [{ amount, currency: 'EUR', kind: 'street', date: '2026-01-01' }],
  ...change,
});
const advice = (old: UnitFacts, next: UnitFacts) => upgradeAdvice([old, next], RUBRIC, old.id, next.id, { draws: 4000 }); // prettier-ignore

// P(4 ± 0.3 is above x ± 0.3) is Φ((4 − x)/0.424): from a table of the normal distribution.
it.each([
  [3, 0.9908, 'clearly better'],
  [3.6, 0.8271, 'probably better'],
  [4, 0.5, 'not told apart'],
  [4.4, 0.1729, 'probably worse'],
  [5, 0.0092, 'clearly worse'],
] as const)('from %f to 4 points: %f, %s, whatever it costs', (sound, probability, verdict) => {
  const found = advice(unit('old', sound, 20), unit('new', 4, 900));
  // 4,000 draws leave 0.8 % at the middle.
  expect(Math.abs(found.probability - probability)).toBeLessThan(0.025);
  expect(found.verdict).toBe(verdict);
  expect(found.costsMore).toBe(880);
});

it('names figures that differ beyond the uncertainty of both, and which way', () => {
  const old = unit('o', 3, 1, { figures: { einA: figure(-125), noiseFigure: figure(6, 0.2, 1), einZ: figure(-122), rearRejection: figure(10) } }); // prettier-ignore
  const next = unit('n', 3, 1, { figures: { einA: figure(-128), noiseFigure: figure(3.5, 0.2, 1), einZ: figure(-129, 0.2, 0, 'at-most'), rearRejection: figure(8) } }); // prettier-ignore
  expect(advice(old, next).figures).toEqual([
    { quantity: 'einA', old: -125, new: -128, isBetter: true },
    // 2.5 dB apart, two of 1.44 dB: none. A limit is no figure.
    { quantity: 'rearRejection', old: 10, new: 8, isBetter: false },
  ]);
});

it('counts as gained and lost what both sheets say, and nothing that one is silent about', () => {
  const old = unit('o', 3, 1, { sheet: { loopback: false, phantom: true, connection: ['USB 2'], weight: 300, instrumentInputs: 1 } }); // prettier-ignore
  const next = unit('n', 3, null, { sheet: { loopback: true, phantom: false, connection: ['USB 2', 'USB-C'], weight: 900, directMonitoring: true } }); // prettier-ignore
  const { gained, lost, costsMore } = advice(old, next);
  expect([gained, lost]).toEqual([['USB-C', 'loopback'], ['phantom power']]); // prettier-ignore
  expect(costsMore).toBeNull();
});

it('is preferred by ear as far as the answers tell; unheard, nothing is said', () => {
  const heard = (logWorth: number, se: number) => ({ heard: { logWorth, se, answers: 20 } });
  // A difference of 0.5 with standard errors of 0.3 and 0.4: Φ(1) = 0.8413.
  expect(advice(unit('o', 3, 1, heard(0, 0.3)), unit('n', 3, 1, heard(0.5, 0.4))).heard).toBeCloseTo(0.8413, 4);
  expect(advice(unit('o', 3, 1, heard(0, 0.3)), unit('n', 3, 1)).heard).toBeNull();
});

it('goes by the rule of the kind: other probabilities, and a sum that is not to be passed', () => {
  const by = (upgrade: Rubric['upgrade'], sound = 3.6, price: number | null = 900) => {
    const [old, next] = [unit('old', sound, 20), unit('new', 4, price)];
    return upgradeAdvice([old, next], { ...RUBRIC, ...(upgrade ? { upgrade } : {}) }, 'old', 'new', { draws: 4000 });
  };
  const rule = { clearly: 0.8, probably: 0.7, mostMore: null };
  // 83 % is clear where 80 % will do, and nothing where 85 % is asked for.
  expect([by(undefined).verdict, by(rule).verdict, by({ ...rule, clearly: 0.95, probably: 0.85 }).verdict]).toEqual(['probably better', 'clearly better', 'not told apart']); // prettier-ignore
  expect(by({ ...rule, clearly: 0.8 }, 4.4).verdict).toBe('clearly worse');
  expect(by(undefined).rule).toEqual({ clearly: 0.9, probably: 0.75, mostMore: null });
  const most = (mostMore: number | null, price: number | null = 900) => by({ ...rule, mostMore }, 3.6, price).isTooDear;
  expect([most(879.99), most(880), most(null), most(0, 20), most(0, 20.01), most(100, null)]).toEqual([true, false, false, false, true, false]); // prettier-ignore
});
