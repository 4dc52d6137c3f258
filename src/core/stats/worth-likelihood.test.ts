import { describe, expect, it } from 'vitest';
import { AnswerTable } from './comparison-answers';
import { seededBits, uniform } from './random';
import { WorthLikelihood } from './worth-likelihood';

const ITEMS = 5;

interface Kind {
  readonly covariates: number;
  readonly withTies: boolean;
  readonly pairs: number;
  readonly orders: number;
}
/** Answers of all kinds at random: pairs with and without ties, orders of two to five, weights, covariates. */
function answers({ covariates, withTies, pairs, orders }: Kind): AnswerTable {
  const bits = seededBits(`answers ${covariates}`);
  const table = new AnswerTable(ITEMS, covariates);
  const numbers = (): number[] => Array.from({ length: covariates }, () => 2 * uniform(bits) - 1);
  const weight = (): number => 0.5 + uniform(bits);
  for (let i = 0; i < pairs; i++) {
    const a = Math.floor(uniform(bits) * ITEMS);
    const b = (a + 1 + Math.floor(uniform(bits) * (ITEMS - 1))) % ITEMS;
    const tiesAllowed = withTies && i % 3 !== 0;
    const outcome = tiesAllowed && i % 3 === 1 ? 0.5 : uniform(bits) < 0.6 ? 1 : 0;
    table.addPair({ a, b, outcome, tiesAllowed, weight: weight(), covariates: numbers() });
  }
  for (let i = 0; i < orders; i++) {
    const items = Array.from({ length: ITEMS }, (_, k) => k)
      .map((k) => [uniform(bits), k])
      .sort(([x], [y]) => x - y)
      .map(([, k]) => k)
      .slice(0, 2 + (i % 4));
    table.addOrder({ items, weight: weight(), covariates: items.map(numbers) });
  }
  return table;
}

const KINDS: readonly (readonly [string, Kind])[] = [
  ['pairs', { covariates: 0, withTies: false, pairs: 30, orders: 0 }],
  ['pairs with ties', { covariates: 0, withTies: true, pairs: 30, orders: 0 }],
  ['pairs with ties and two covariates', { covariates: 2, withTies: true, pairs: 30, orders: 0 }],
  ['orders', { covariates: 0, withTies: false, pairs: 0, orders: 12 }],
  ['orders with two covariates', { covariates: 2, withTies: false, pairs: 0, orders: 12 }],
  ['all of it', { covariates: 3, withTies: true, pairs: 20, orders: 8 }],
];
const PENALTY = { worth: 0.3, others: 0.05 };
const at = (size: number): Float64Array => {
  const bits = seededBits('parameters');
  return Float64Array.from({ length: size }, () => 1.6 * uniform(bits) - 0.8);
};

describe.each(KINDS)('the likelihood of %s', (_, kind) => {
  const table = answers(kind);
  const likelihood = new WorthLikelihood(table, PENALTY, kind.withTies);
  const { size } = likelihood;
  const evaluated = (parameters: Float64Array) => {
    const found = new WorthLikelihood(table, PENALTY, kind.withTies);
    found.evaluate(parameters);
    return found;
  };
  const STEP = 1e-5;
  /** Central differences of a function of the parameters, one by one. */
  const slopes = <T>(of: (likelihood: WorthLikelihood) => T): (readonly [T, T])[] =>
    Array.from({ length: size }, (__, i) => {
      const moved = (by: number): T => of(evaluated(at(size).map((x, k) => (k === i ? x + by : x))));
      return [moved(STEP), moved(-STEP)];
    });

  it('has as many parameters as there are worths, ties and covariates', () => {
    expect(size).toBe(ITEMS + (kind.withTies ? 1 : 0) + kind.covariates);
  });

  it('rises as its gradient says', () => {
    const { gradient } = evaluated(at(size));
    slopes((l) => l.objective).forEach(([up, down], i) => {
      expect(gradient[i], `parameter ${i}`).toBeCloseTo((up - down) / 2 / STEP, 6);
    });
  });

  it('bends as its Hessian says: whole, times a vector, and its diagonal', () => {
    const found = evaluated(at(size));
    const dense = found.dense();
    slopes((l) => l.gradient).forEach(([up, down], i) => {
      for (let k = 0; k < size; k++)
        expect(dense[i * size + k], `${i}, ${k}`).toBeCloseTo((down[k] - up[k]) / 2 / STEP, 5);
    });
    const out = new Float64Array(size);
    for (let i = 0; i < size; i++) {
      const unit = new Float64Array(size);
      unit[i] = 1;
      found.multiply(unit, out);
      for (let k = 0; k < size; k++) expect(out[k], `row ${k} of ${i}`).toBeCloseTo(dense[k * size + i], 10);
    }
    const v = at(size);
    found.multiply(v, out);
    out.forEach((x, k) => {
      expect(x).toBeCloseTo(v.reduce((s, y, i) => s + dense[k * size + i] * y, 0), 10); // prettier-ignore
    });
    // For preconditioning: of covariates in orders it is an upper bound.
    found.diagonal().forEach((d, i) => {
      const isExact = kind.orders === 0 || i < ITEMS + (kind.withTies ? 1 : 0);
      if (isExact) expect(d).toBeCloseTo(dense[i * size + i], 10);
      else expect(d).toBeGreaterThan(0);
    });
  });
});

describe('the likelihood itself', () => {
  it('is that of Davidson for pairs, of Plackett and Luce for orders', () => {
    const table = new AnswerTable(3);
    table.addPair({ a: 0, b: 1, outcome: 1, tiesAllowed: true, weight: 2 });
    table.addPair({ a: 1, b: 2, outcome: 0.5, tiesAllowed: true, weight: 3 });
    table.addPair({ a: 2, b: 0, outcome: 1, tiesAllowed: false, weight: 1 });
    table.addOrder({ items: [2, 0, 1], weight: 2 });
    const found = new WorthLikelihood(table, PENALTY, true);
    const [x, y, z, nu] = [0.4, -0.3, 1.1, 0.7];
    found.evaluate(Float64Array.of(x, y, z, Math.log(nu)));
    const total = (d: number, n: number): number => Math.exp(d / 2) + Math.exp(-d / 2) + n;
    const [wx, wy, wz] = [x, y, z].map(Math.exp);
    const expected =
      2 * Math.log(Math.exp((x - y) / 2) / total(x - y, nu)) +
      3 * Math.log(nu / total(y - z, nu)) +
      Math.log(Math.exp((z - x) / 2) / total(z - x, 0)) +
      2 * Math.log((wz / (wx + wy + wz)) * (wx / (wx + wy)));
    expect(found.logLikelihood).toBeCloseTo(expected, 12);
    const penalty = 0.5 * (0.3 * (x * x + y * y + z * z) + 0.05 * Math.log(nu) ** 2);
    expect(found.objective).toBeCloseTo(expected - penalty, 12);
  });

  it('does not overflow where worths lie far apart', () => {
    const table = new AnswerTable(2);
    table.addPair({ a: 0, b: 1, outcome: 1, tiesAllowed: false, weight: 1 });
    table.addOrder({ items: [0, 1], weight: 1 });
    const found = new WorthLikelihood(table, { worth: 0, others: 0 }, false);
    for (const apart of [2000, -2000]) {
      found.evaluate(Float64Array.of(apart, 0));
      expect(found.logLikelihood).toBeCloseTo(apart > 0 ? 0 : -4000, 9);
      expect(found.dense().every(Number.isFinite)).toBe(true);
    }
  });
});
