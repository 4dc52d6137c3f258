import { describe, expect, it } from 'vitest';
import { abxResult, sequentialAbx } from '../../stats/abx';
import { agreement } from '../../stats/agreement';
import { answerEffect } from '../../stats/answer-effect';
import { chiSquaredTail } from '../../stats/chi-squared';
import { consistency } from '../../stats/circular-triads';
import { seededBits, uniform } from '../../stats/random';
import { balancedOrder, williamsSquare } from './balanced-order';
import { drawHeats, heatCount, nextRound } from './heats';
import { abxWords, agreementWords, consistencyWords, effectWords, matchingWords, sequentialAbxWords, timesIn } from './plain-words'; // prettier-ignore

describe("Williams' squares", () => {
  it.each([2, 3, 4, 5, 6, 7, 8])('of %i: every thing in every place, and after every other, equally often', (n) => {
    const square = williamsSquare(n);
    expect(square).toHaveLength(n % 2 === 0 ? n : 2 * n);
    const places = new Map<string, number>();
    const follows = new Map<string, number>();
    for (const row of square)
      row.forEach((x, i) => {
        places.set(`${x}/${i}`, (places.get(`${x}/${i}`) ?? 0) + 1);
        if (i > 0) follows.set(`${row[i - 1]}>${x}`, (follows.get(`${row[i - 1]}>${x}`) ?? 0) + 1);
      });
    expect([places.size, new Set(places.values()).size]).toEqual([n * n, 1]);
    expect([follows.size, new Set(follows.values()).size]).toEqual([n * (n - 1), 1]);
  });

  it('are used in turn', () => {
    expect(balancedOrder(4, 5)).toEqual(williamsSquare(4)[1]);
    expect([balancedOrder(1, 3), balancedOrder(0, 1)]).toEqual([[0], []]);
  });
});

describe('heats', () => {
  const ids = Array.from({ length: 11 }, (_, i) => i + 1);

  it('hold everybody once, are of about one size, and never of one alone', () => {
    for (let count = 2; count <= 30; count++)
      for (let size = 2; size <= 6; size++) {
        const heats = drawHeats(
          Array.from({ length: count }, (_, i) => i),
          size,
          'random',
          'x',
        );
        expect(heats.flat().sort((a, b) => a - b)).toEqual(Array.from({ length: count }, (_, i) => i));
        const sizes = heats.map((h) => h.length);
        // Three meet in one of the heats where an odd number goes in twos.
        expect(Math.max(...sizes)).toBeLessThanOrEqual(size === 2 && count % 2 === 1 ? 3 : size);
        expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(1);
        expect(Math.min(...sizes)).toBeGreaterThan(1);
      }
  });

  it('seeded: the three strongest meet only later', () => {
    expect(drawHeats(ids, 4, 'seeded', '')).toEqual([[1, 6, 7], [2, 5, 8, 11], [3, 4, 9, 10]]); // prettier-ignore
    expect(drawHeats(ids, 4, 'random', 'a')).not.toEqual(drawHeats(ids, 4, 'random', 'b'));
  });

  it('winners meet until one heat is left', () => {
    const first = drawHeats(ids, 4, 'seeded', '');
    expect(nextRound(first, 4, 's').flat().sort()).toEqual([1, 2, 3]);
    expect(nextRound([[1, 2, 3]], 4, 's')).toEqual([]);
    expect([heatCount(11, 4), heatCount(4, 4), heatCount(17, 4), heatCount(9, 2), heatCount(3, 2)]).toEqual([
      4, 1, 8, 7, 1,
    ]);
  });
});

describe('plain words', () => {
  it('count chances as people do', () => {
    expect([0.0384, 0.01, 0.004, 0.0001, 1, 0.5].map(timesIn)).toEqual([
      '4 times in 100', 'once in 100', '4 times in 1,000', 'less than once in 1,000', 'practically always', '50 times in 100',
    ]); // prettier-ignore
  });

  it('say what an ABX shows, and what it could have shown', () => {
    expect(abxWords(abxResult(12, 16), 0.75)).toBe(
      '12 of 16 right: a guesser does this 4 times in 100. The difference was heard.',
    );
    expect(abxWords(abxResult(9, 16), 0.75)).toBe(
      '9 of 16 right: no difference shown (a guesser does this 40 times in 100); with 16 trials a listener who hears it 3 times in 4 would have been found 63 % of the time.',
    );
    expect(abxWords(abxResult(4, 4), 0.75)).toContain('At least 5 are needed');
    expect(abxWords(abxResult(0, 0), 0.75)).toContain('Nothing');
    expect(sequentialAbxWords(sequentialAbx(new Array<boolean>(8).fill(true)), 0.75)).toContain('was heard');
    expect(sequentialAbxWords(sequentialAbx(new Array<boolean>(8).fill(false)), 0.75)).toContain('no difference');
    expect(sequentialAbxWords(sequentialAbx([true]), 0.75)).toContain('not decided');
  });

  it('say what guessing, agreement and contradiction mean', () => {
    expect(matchingWords(4, 4, 1 / 24)).toBe('4 of 4 names right: a guesser has as many or more 4 times in 100. The names were recognised.'); // prettier-ignore
    expect(matchingWords(1, 4, 0.6)).toContain('no more than guessing');
    expect(agreementWords(null)).toContain('two listeners');
    expect(agreementWords(agreement([[1, 2, 3, 4, 5], [1, 2, 3, 4, 5], [1, 2, 3, 5, 4]]))).toContain('largely agree'); // prettier-ignore
    expect(agreementWords(agreement([[1, 2, 3], [3, 1, 2]]))).toContain('no common taste'); // prettier-ignore
    expect(consistencyWords(consistency([[false, true, false], [false, false, true], [true, false, false]]))).toContain('1 circular triad '); // prettier-ignore
    expect(
      consistencyWords(
        consistency([
          [false, true],
          [false, false],
        ]),
      ),
    ).toBe('No answer contradicts another.');
    expect(effectWords({ estimate: 0.8, p: 0.001 }, 'being heard first')).toContain('69 %');
    expect(effectWords({ estimate: 0.1, p: 0.6 }, 'being heard first')).toContain('No effect');
  });
});

describe('effects that should not be there', () => {
  const answers = (advantage: number, seed: string) => {
    const bits = seededBits(seed);
    return Array.from({ length: 600 }, () => {
      const a = Math.floor(uniform(bits) * 6);
      const b = (a + 1 + Math.floor(uniform(bits) * 5)) % 6;
      const p = 1 / (1 + Math.exp((b - a) * 0.5 - advantage));
      const outcome = uniform(bits) < p ? (1 as const) : (0 as const);
      return { items: [a, b], outcome, tiesAllowed: false, weight: 1, covariate: [1, 0] };
    });
  };

  it('are found with their size, and not where there are none', () => {
    const found = answerEffect(6, answers(0.7, 'with'));
    expect(found.p).toBeLessThan(0.001);
    // Within two standard errors of the truth.
    expect(Math.abs(found.estimate - 0.7)).toBeLessThan(2 * found.se);
    expect(found.se).toBeGreaterThan(0.05);
    const none = answerEffect(6, answers(0, 'without'));
    expect(none.p).toBeGreaterThan(0.05);
    expect(none.answers).toBe(600);
  });

  it('have a p that fits estimate and standard error', () => {
    const small = answerEffect(6, answers(0.3, 'small'));
    // Likelihood ratio and Wald's test agree for an effect of two standard errors (Agresti, 1.3).
    const wald = chiSquaredTail((small.estimate / small.se) ** 2, 1);
    expect(small.p / wald).toBeGreaterThan(0.8);
    expect(small.p / wald).toBeLessThan(1.25);
    expect(wald).toBeLessThan(0.2);
  });

  it('keep their error: of 60 sets without an effect, about 3 seem to have one', () => {
    let seeming = 0;
    for (let i = 0; i < 60; i++) if (answerEffect(6, answers(0, `set ${i}`)).p < 0.05) seeming++;
    // Binomial(60, 0.05): 8 or more has a probability of 1 %.
    expect(seeming).toBeLessThan(8);
  });
});
