import { describe, expect, it } from 'vitest';
import { AnswerTable } from './comparison-answers';
import { comparisonGraph, unbeaten } from './comparison-graph';
import { fitWorths, NO_PENALTY, USUAL_PENALTY } from './fit-worths';
import { errorsAgainst, toldByOrder, updatedPosterior, worthPosterior } from './worth-posterior';
import { worthScale } from './worth-scale';

/** Counts of "first over second" and "second over first". */
function tableOf(items: number, rows: readonly (readonly [number, number, number, number, number?])[]): AnswerTable {
  const table = new AnswerTable(items);
  for (const [a, b, first, second, ties = 0] of rows) {
    const tiesAllowed = rows.some((r) => r.length > 4);
    table.addPair({ a, b, outcome: 1, tiesAllowed, weight: first });
    table.addPair({ a, b, outcome: 0, tiesAllowed, weight: second });
    table.addPair({ a, b, outcome: 0.5, tiesAllowed, weight: ties });
  }
  return table;
}

/** R: summary(SoundQuality$preference, pcmatrix = FALSE) of psychotools (Choisel & Wickelmaier 2007). */
const SOUND_QUALITY = tableOf(
  8,
  [
    [0, 1, 268], [0, 2, 46], [1, 2, 85], [0, 3, 94], [1, 3, 126], [2, 3, 468], [0, 4, 65], [1, 4, 99], [2, 4, 391],
    [3, 4, 358], [0, 5, 65], [1, 5, 104], [2, 5, 443], [3, 5, 394], [4, 5, 411], [0, 6, 81], [1, 6, 142], [2, 6, 504],
    [3, 6, 436], [4, 6, 458], [5, 6, 432], [0, 7, 61], [1, 7, 101], [2, 7, 399], [3, 7, 369], [4, 7, 381], [5, 7, 373],
    [6, 7, 333],
  ].map(([a, b, wins]) => [a, b, wins, 783 - wins] as const),
); // prettier-ignore

/** R: data(baseball) of BradleyTerry2; Baltimore, Boston, Cleveland, Detroit, Milwaukee, New York, Toronto. Home, away, home wins, away wins. */
const BASEBALL = [
  [4, 3, 4, 3], [4, 6, 4, 2], [4, 5, 4, 3], [4, 1, 6, 1], [4, 2, 4, 2], [4, 0, 6, 0], [3, 4, 3, 3], [3, 6, 4, 2],
  [3, 5, 4, 3], [3, 1, 6, 0], [3, 2, 6, 1], [3, 0, 4, 3], [6, 4, 2, 5], [6, 3, 4, 3], [6, 5, 2, 4], [6, 1, 4, 3],
  [6, 2, 4, 2], [6, 0, 6, 0], [5, 4, 3, 3], [5, 3, 5, 1], [5, 6, 2, 5], [5, 1, 4, 3], [5, 2, 4, 2], [5, 0, 6, 1],
  [1, 4, 5, 1], [1, 3, 2, 5], [1, 6, 3, 3], [1, 5, 4, 2], [1, 2, 5, 2], [1, 0, 6, 0], [2, 4, 2, 5], [2, 3, 3, 3],
  [2, 6, 3, 4], [2, 5, 4, 3], [2, 1, 4, 2], [2, 0, 2, 4], [0, 4, 2, 5], [0, 3, 1, 5], [0, 6, 1, 6], [0, 5, 2, 4],
  [0, 1, 1, 6], [0, 2, 3, 4],
] as const; // prettier-ignore

const relative = (logWorth: Float64Array, to: number): number[] => Array.from(logWorth, (x) => x - logWorth[to]);

describe('Bradley–Terry worths', () => {
  it('agree with R psychotools 0.7-2 on SoundQuality: btmodel, worth, logLik, standard errors', () => {
    const fit = fitWorths(SOUND_QUALITY, NO_PENALTY);
    const total = fit.logWorth.reduce((s, x) => s + Math.exp(x), 0);
    const worths = Array.from(fit.logWorth, (x) => Math.exp(x) / total);
    [
      0.0145181097, 0.0260042254, 0.1977130956, 0.1433212424, 0.1732895141, 0.1527875811, 0.1197370756, 0.172629156,
    ].forEach((worth, i) => expect(worths[i]).toBeCloseTo(worth, 8));
    expect(fit.logLikelihood).toBeCloseTo(-11840.8462817, 5);
    const errors = errorsAgainst(worthPosterior(fit), 7);
    [0.05148292077, 0.04581034572, 0.03929396205, 0.0389445842, 0.03907943329, 0.03896775243, 0.03899618455, 0].forEach(
      (se, i) => expect(errors[i]).toBeCloseTo(se, 8),
    );
  });

  it('agree with R BradleyTerry2 1.1 on baseball, without a home advantage', () => {
    const fit = fitWorths(tableOf(7, BASEBALL), NO_PENALTY);
    [0, 1.107697705, 0.683852769, 1.436408432, 1.581355877, 1.247617845, 1.294485124].forEach((ability, i) =>
      expect(relative(fit.logWorth, 0)[i]).toBeCloseTo(ability, 7),
    );
    const errors = errorsAgainst(worthPosterior(fit), 0);
    [0, 0.333877908, 0.331876399, 0.339568187, 0.343255664, 0.335860616, 0.336669093].forEach((se, i) =>
      expect(errors[i]).toBeCloseTo(se, 5),
    );
  });

  it('agree with R BradleyTerry2 on baseball with the home advantage as a covariate', () => {
    const table = new AnswerTable(7, 1);
    for (const [a, b, home, away] of BASEBALL) {
      table.addPair({ a, b, outcome: 1, tiesAllowed: false, weight: home, covariates: [1] });
      table.addPair({ a, b, outcome: 0, tiesAllowed: false, weight: away, covariates: [1] });
    }
    const fit = fitWorths(table, NO_PENALTY);
    expect(fit.covariates[0]).toBeCloseTo(0.302260656, 7);
    [0, 1.143802653, 0.704694457, 1.475357214, 1.619554994, 1.281340403, 1.327110398].forEach((ability, i) =>
      expect(relative(fit.logWorth, 0)[i]).toBeCloseTo(ability, 7),
    );
    const errors = errorsAgainst(worthPosterior(fit), 0);
    expect(errors[1]).toBeCloseTo(0.337842189, 5);
    expect(errors[6]).toBeCloseTo(0.340322209, 5);
  });

  it('agree with R BradleyTerry2 on the journal citations', () => {
    // data(citations), countsToBinomial: cited over citing; Biometrika, Comm Statist, JASA, JRSS-B.
    const fit = fitWorths(
      tableOf(4, [
        [0, 1, 730, 33], [0, 2, 498, 320], [0, 3, 221, 284], [1, 2, 68, 813], [1, 3, 17, 276], [2, 3, 142, 325],
      ]), // prettier-ignore
      NO_PENALTY,
    );
    [0, -2.9490724968, -0.4795697698, 0.2689540558].forEach((ability, i) =>
      expect(relative(fit.logWorth, 0)[i]).toBeCloseTo(ability, 8),
    );
    const errors = errorsAgainst(worthPosterior(fit), 0);
    [0, 0.1025453354, 0.0605887292, 0.0708299651].forEach((se, i) => expect(errors[i]).toBeCloseTo(se, 6));
  });

  it("agree with R psychotools' Davidson model where ties occur", () => {
    // Invented counts, fitted by psychotools 0.7-2: btmodel(paircomp(...), undecided = TRUE), E as reference.
    const fit = fitWorths(
      tableOf(5, [
        [0, 1, 12, 5, 3], [0, 2, 14, 4, 2], [0, 3, 15, 1, 4], [0, 4, 11, 3, 6], [1, 2, 8, 7, 5], [1, 3, 12, 5, 3],
        [1, 4, 9, 7, 4], [2, 3, 10, 4, 6], [2, 4, 7, 7, 6], [3, 4, 6, 9, 5],
      ]), // prettier-ignore
      NO_PENALTY,
    );
    [1.3607556155, 0.281136361, 0.0563174402, -0.6708901799, 0].forEach((worth, i) =>
      expect(relative(fit.logWorth, 4)[i]).toBeCloseTo(worth, 8),
    );
    expect(Math.log(fit.tie)).toBeCloseTo(-0.4526889986, 8);
    expect(fit.logLikelihood).toBeCloseTo(-196.341585013, 8);
    const errors = errorsAgainst(worthPosterior(fit), 4);
    [0.3679698557, 0.3363505752, 0.3356519651, 0.3476771847].forEach((se, i) => expect(errors[i]).toBeCloseTo(se, 6));
  });
});

describe('Plackett–Luce worths', () => {
  it('agree with the exploded logit of R survival 3.5 on orders of unlike lengths', () => {
    // clogit(y ~ item + strata(st), method = "exact") over every stage of every order; item 1 as reference.
    const table = new AnswerTable(5);
    for (const order of [
      [1, 2, 3, 4, 5],
      [2, 1, 3, 5, 4],
      [1, 3, 2, 4, 5],
      [5, 1, 2, 3, 4],
      [3, 1, 5, 2],
      [2, 4, 1],
      [4, 1, 2, 5, 3],
    ])
      // prettier-ignore
      table.addOrder({ items: order.map((i) => i - 1), weight: 1 });
    const fit = fitWorths(table, NO_PENALTY);
    [0, -0.514724995016, -0.977453343546, -1.59479480574, -1.6410357091].forEach((worth, i) =>
      expect(relative(fit.logWorth, 0)[i]).toBeCloseTo(worth, 8),
    );
    expect(fit.logLikelihood).toBeCloseTo(-25.8010377615, 8);
    const errors = errorsAgainst(worthPosterior(fit), 0);
    [0, 0.677443201758, 0.746558909787, 0.796482887066, 0.801125284321].forEach((se, i) =>
      expect(errors[i]).toBeCloseTo(se, 7),
    );
  });

  it('takes an order of two for a pair', () => {
    const pairs = tableOf(3, [[0, 1, 3, 1], [1, 2, 2, 2], [0, 2, 4, 1]]); // prettier-ignore
    const orders = new AnswerTable(3);
    for (const [items, weight] of [
      [[0, 1], 3],
      [[1, 0], 1],
      [[1, 2], 2],
      [[2, 1], 2],
      [[0, 2], 4],
      [[2, 0], 1],
    ] as const)
      // prettier-ignore
      orders.addOrder({ items, weight });
    const [a, b] = [fitWorths(pairs), fitWorths(orders)];
    expect(a.logLikelihood).toBeCloseTo(b.logLikelihood, 9);
    a.logWorth.forEach((x, i) => expect(x).toBeCloseTo(b.logWorth[i], 9));
  });

  it('reads covariates of orders as those of pairs', () => {
    const pairs = new AnswerTable(3, 1);
    const orders = new AnswerTable(3, 1);
    for (const [a, b, x, y] of [
      [0, 1, 1, 0],
      [1, 0, 0.5, 0],
      [1, 2, 0, 1],
      [2, 0, 1, 0],
      [0, 2, 0, 1],
    ] as const) {
      // prettier-ignore
      pairs.addPair({ a, b, outcome: 1, tiesAllowed: false, weight: 1, covariates: [x - y] });
      orders.addOrder({ items: [a, b], weight: 1, covariates: [[x], [y]] });
    }
    const [a, b] = [fitWorths(pairs), fitWorths(orders)];
    expect(a.covariates[0]).toBeCloseTo(b.covariates[0], 8);
    expect(Math.abs(a.covariates[0])).toBeGreaterThan(0.05);
    const [u, v] = [worthPosterior(a), worthPosterior(b)];
    u.covariance.forEach((x, i) => expect(x).toBeCloseTo(v.covariance[i], 8));
  });
});

describe('penalty, components and bridges', () => {
  const apart = tableOf(5, [[0, 1, 3, 0], [2, 3, 1, 1], [3, 4, 2, 1]]); // prettier-ignore

  it('keeps worths finite where maximum likelihood has none', () => {
    const scale = worthScale(apart);
    expect(scale.fit.isConverged).toBe(true);
    expect(scale.items.every((item) => Number.isFinite(item.logWorth) && item.se > 0 && item.se < 2.1)).toBe(true);
    expect(scale.items[0].logWorth).toBeGreaterThan(scale.items[1].logWorth);
  });

  it('is the solution of its own equations: score of each worth equals what the prior pulls', () => {
    const fit = fitWorths(apart);
    const p = 1 / (1 + Math.exp(fit.logWorth[1] - fit.logWorth[0]));
    expect(3 * (1 - p)).toBeCloseTo(USUAL_PENALTY.worth * fit.logWorth[0], 8);
  });

  it('finds components and bridges', () => {
    const graph = comparisonGraph(apart);
    expect(graph.components).toBe(2);
    expect([...graph.component]).toEqual([0, 0, 1, 1, 1]);
    expect(graph.bridges).toHaveLength(3);
    const ring = tableOf(5, [[0, 1, 1, 1], [1, 2, 1, 1], [2, 0, 1, 1], [2, 3, 1, 1]]); // prettier-ignore
    ring.addOrder({ items: [3, 4, 2], weight: 1 });
    expect(comparisonGraph(ring).bridges).toEqual([]);
    expect(comparisonGraph(tableOf(4, [[0, 1, 1, 1], [1, 2, 1, 1], [2, 0, 1, 1], [2, 3, 1, 1]])).bridges) // prettier-ignore
      .toEqual([{ a: 2, b: 3 }]);
  });

  it("tells by Ford's condition whether plain maximum likelihood exists, and who stands in the way", () => {
    expect(unbeaten(SOUND_QUALITY)).toBeNull();
    expect(unbeaten(tableOf(3, [[0, 1, 3, 0], [1, 2, 1, 1]]))).toEqual([0]); // prettier-ignore
    expect(unbeaten(tableOf(3, [[0, 1, 1, 1], [2, 0, 2, 0]]))).toEqual([2]); // prettier-ignore
    expect(unbeaten(apart)).toEqual([0]);
    expect(() => worthPosterior(fitWorths(tableOf(4, [[0, 1, 1, 1], [2, 3, 1, 1]]), NO_PENALTY))).toThrow(RangeError); // prettier-ignore
  });
});

describe('posterior', () => {
  it('draws have the covariance that is reported', () => {
    const { posterior, fit } = worthScale(tableOf(4, [[0, 1, 8, 4], [1, 2, 7, 5], [2, 3, 6, 6], [0, 3, 9, 3]]), undefined, { draws: 20_000 }); // prettier-ignore
    for (let i = 0; i < 4; i++)
      for (let j = 0; j < 4; j++) {
        let sum = 0;
        for (let d = 0; d < 20_000; d++)
          sum += (posterior.draws[i][d] - fit.logWorth[i]) * (posterior.draws[j][d] - fit.logWorth[j]);
        // Standard error of a covariance over 20,000 draws is 1 % of the variances (about 0.15).
        expect(Math.abs(sum / 20_000 - posterior.covariance[i * 4 + j])).toBeLessThan(0.008);
      }
  });

  it('after one more answer is what a whole fit says, nearly', () => {
    const rows = Array.from({ length: 12 }, (_, i) => [i, (i + 1) % 12, 6 + (i % 3), 5] as const);
    const table = tableOf(12, rows);
    const before = worthScale(table, undefined, { draws: 4000 });
    table.addOrder({ items: [3, 0, 7, 9], weight: 1 });
    const fit = fitWorths(table, USUAL_PENALTY, before.fit.parameters, before.posterior.covariance);
    const quick = updatedPosterior(before.posterior, before.fit.logWorth, fit.logWorth, toldByOrder(fit.logWorth, [3, 0, 7, 9])); // prettier-ignore
    const whole = worthScale(table, undefined, { draws: 4000 });
    fit.logWorth.forEach((x, i) => expect(x).toBeCloseTo(whole.fit.logWorth[i], 7));
    for (let i = 0; i < 12; i++) {
      const [own, exact] = [quick.covariance[i * 13], whole.posterior.covariance[i * 13]];
      expect(Math.abs(own / exact - 1)).toBeLessThan(0.02);
      expect(own).toBeLessThan(before.posterior.covariance[i * 13] + 1e-9);
      const drawn = quick.draws[i].reduce((s, x) => s + (x - fit.logWorth[i]) ** 2, 0) / 4000;
      expect(Math.abs(drawn / own - 1)).toBeLessThan(0.12);
    }
  });

  it('puts places as the worths say, and the truth inside nine intervals in ten', () => {
    const scale = worthScale(SOUND_QUALITY);
    expect(scale.items.map((i) => i.place)).toEqual([8, 7, 1, 5, 2, 4, 6, 3]);
    expect(scale.items[0].place90).toEqual([8, 8]);
    expect(scale.items.reduce((s, i) => s + i.worth, 0)).toBeCloseTo(1, 12);
  });
});
