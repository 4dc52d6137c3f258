import { describe, expect, it } from 'vitest';
import { listeningStudy } from '../testing/studies/listening';
import { anotherReadingStudy } from '../testing/studies/rig';
import { share } from '../testing/studies/coverage';
import { AnswerTable } from './comparison-answers';
import { correlationLength } from './correlation-length';
import { fitWorths } from './fit-worths';
import { trigamma } from './gamma';
import { ListenerAnswers, listenerScatter, USUAL_TASTE_SD } from './listener-scatter';
import { standardDeviation } from './moments';
import { standardNormal } from './normal';
import { hintFromPoints, withHint } from './observed-worth';
import { deviationBetween, pooledScatter } from './pooled-scatter';
import { seededBits } from './random';
import { weightedMedian } from './weighted-median';
import { standardErrors, worthPosterior } from './worth-posterior';

describe('scatter over listeners', () => {
  /** Three things, each pair answered by each listener so many times, the first winning so often. */
  const answered = (listeners: number, weight = 1) => {
    const table = new AnswerTable(3);
    const all = Array.from({ length: listeners }, () => {
      const own = new ListenerAnswers();
      for (const [a, b, wins, losses] of [
        [0, 1, 6, 4],
        [1, 2, 7, 3],
        [0, 2, 8, 2],
      ])
        for (let k = 0; k < wins + losses; k++)
          for (const into of [table, own])
            into.addPair({ a, b, outcome: k < wins ? 1 : 0, tiesAllowed: false, weight });
      return own;
    });
    return { table, all, fit: fitWorths(table, { worth: 1e-6, others: 0 }) };
  };

  // Written out: with one curvature H per listener, L of them and no prior, the covariance is H⁻¹/L + τ²/L on contrasts.
  it('of one listener is that of the answers, and that of one taste more', () => {
    const { all, fit } = answered(1);
    const plain = standardErrors(worthPosterior(fit));
    const wide = standardErrors(worthPosterior(fit, { listeners: listenerScatter(fit, all) }));
    // A log worth against the mean of three: two thirds of the variance of a taste.
    wide.forEach((se, i) => expect(se ** 2).toBeCloseTo(plain[i] ** 2 + (2 / 3) * USUAL_TASTE_SD ** 2, 4));
  });

  it('of many alike listeners falls with their number, and tells that they are alike', () => {
    const { all, fit } = answered(20);
    const scatter = listenerScatter(fit, all);
    expect(scatter.listeners).toBe(20);
    expect(scatter.tasteSd).toBeLessThan(0.5);
    const plain = standardErrors(worthPosterior(fit));
    const wide = standardErrors(worthPosterior(fit, { listeners: scatter }));
    wide.forEach((se, i) => expect(se ** 2).toBeCloseTo(plain[i] ** 2 + ((2 / 3) * scatter.tasteSd ** 2) / 20, 4));
  });

  it('draws have the covariance that the errors say', () => {
    const { all, fit } = answered(3);
    const posterior = worthPosterior(fit, { listeners: listenerScatter(fit, all), draws: 4000 });
    const errors = standardErrors(posterior);
    // 4,000 draws: a deviation of 1.1 %.
    posterior.draws.forEach((d, i) => expect(standardDeviation(d) / errors[i]).toBeCloseTo(1, 1));
  });

  it('answers that weigh a quarter scatter by a quarter of it less: the error does not grow as if they were lost', () => {
    const [whole, faded] = [answered(8), answered(8, 0.25)];
    const se = ({ fit, all }: ReturnType<typeof answered>) => standardErrors(worthPosterior(fit, { listeners: listenerScatter(fit, all) })); // prettier-ignore
    const [a, b] = [se(whole), se(faded)];
    // All fade alike: nothing is known less than before. (Tastes are told a little less well.)
    a.forEach((x, i) => expect(Math.abs(b[i] / x - 1)).toBeLessThan(0.15));
    expect(standardErrors(worthPosterior(faded.fit))[0]).toBeGreaterThan(
      1.8 * standardErrors(worthPosterior(whole.fit))[0],
    );
  });

  // 40 catalogues of 12: 480 log worths, those of one catalogue hanging together: a deviation of some 2 to 3 %.
  it.each([
    [{ items: 12, listeners: 1, answersEach: 120, tasteSd: 0.7 }, 0.85],
    [{ items: 12, listeners: 5, answersEach: 40, tasteSd: 0.7 }, 0.86],
    [{ items: 12, listeners: 10, answersEach: 30, tasteSd: 0, fades: true }, 0.86],
  ])('stated 90 %% intervals cover what they state: %o', (design, least) => {
    const { logWorth, place } = listeningStudy(design, 40);
    expect(logWorth).toBeGreaterThan(least);
    expect(logWorth).toBeLessThan(0.975);
    expect(place).toBeGreaterThan(least);
  });
});

describe('between readings', () => {
  it('is the pooled variance less what readings say of themselves', () => {
    // Two groups: variances 1 and 4 with 2 and 1 degrees of freedom: (2·1 + 1·8)/3.
    const groups = [
      [1, 2, 3],
      [0, 4],
    ].map((g) => g.map((value) => ({ value, uncertainty: null as number | null })));
    expect(pooledScatter(groups)).toEqual({ variance: (2 + 8) / 3, degrees: 3 });
    const unsure = groups.map((g) => g.map((r) => ({ ...r, uncertainty: 1 })));
    // Three independent readings of ±1 have an expected sum of squares of 2, two of 1.
    expect(pooledScatter(unsure).variance).toBeCloseTo((10 - 3) / 3, 12);
    expect(pooledScatter([[{ value: 1, uncertainty: null }]])).toEqual({ variance: 0, degrees: 0 });
  });
  it('begins with what is expected, and ends with what repeats show', () => {
    // t(0.975; 6)/1.96 = 2.4469/1.95996.
    expect(deviationBetween({ variance: 0, degrees: 0 }, 1)).toBeCloseTo(2.446912 / 1.959964, 4);
    expect(deviationBetween({ variance: 4, degrees: 100_000 }, 1)).toBeCloseTo(2, 2);
  });
  // 4,000 readings: 95 % with a deviation of 0.35 %; few repeats of a scatter that is larger than expected cover less.
  it('covers another reading in 93 to 97 of 100', () => {
    for (const row of anotherReadingStudy(2000)) {
      expect(share(row), row.figure).toBeGreaterThan(0.925);
      expect(share(row), row.figure).toBeLessThan(0.975);
    }
  });
});

describe('small tools', () => {
  // π²/2 and π²/6 (Abramowitz & Stegun 6.4.4); the others from Σ 1/(x + k)², two million terms and the rest as an integral.
  it.each([
    [0.5, 4.934802200544679],
    [1, 1.6449340668482264],
    [3.7, 0.31003785767],
    [40, 0.02531510384129],
  ])('trigamma(%d)', (x, expected) => {
    expect(trigamma(x)).toBeCloseTo(expected, 8);
  });
  it('weighted median: half of the weight lies on each side', () => {
    expect(weightedMedian([3, 1, 2], [1, 1, 1])).toBe(2);
    expect(weightedMedian([1, 2, 10], [1, 1, 5])).toBe(10);
    expect(weightedMedian([1, 2], [1, 1])).toBe(1.5);
    expect(weightedMedian([], [])).toBe(0);
  });
  // A first-order autoregression with φ = 0.8 hangs together over (1 + φ)/(1 − φ) = 9 values.
  it('how many values hang together', () => {
    const bits = seededBits('ar');
    let state = 0;
    const chain = Array.from({ length: 20_000 }, () => (state = 0.8 * state + standardNormal(bits)));
    expect(Math.abs(correlationLength(chain) - 9)).toBeLessThan(1.2);
    expect(correlationLength(Array.from({ length: 5000 }, () => standardNormal(bits)))).toBeLessThan(1.3);
    expect(correlationLength([1, 1, 1, 1, 1])).toBe(1);
  });
  it('a hint at a worth moves it as two normal readings combine', () => {
    const { fit } = { fit: fitWorths(new AnswerTable(3)) };
    const posterior = worthPosterior(fit, { draws: 2000 });
    const variance = posterior.covariance[0];
    const after = withHint(fit.logWorth, posterior, 0, { logWorth: 2, sd: 1 });
    expect(after.logWorth[0]).toBeCloseTo((2 * variance) / (variance + 1), 9);
    expect(after.posterior.covariance[0]).toBeCloseTo(variance / (variance + 1), 9);
    expect(standardDeviation(after.posterior.draws[0]) ** 2).toBeCloseTo(variance / (variance + 1), 2);
    const worths = [0, 1, 2, 3, 4, 5, 0];
    expect(hintFromPoints(worths, [0, 1, 2, 3, 4, 5, 2.5], 6)?.logWorth).toBeCloseTo(2.5, 9);
    expect(hintFromPoints(worths, [0, 1, 2, 3, 4, 5, null], 6)).toBeNull();
    expect(hintFromPoints(worths, [0, 1, 2, null, null, null, 2], 6)).toBeNull();
  });
});
