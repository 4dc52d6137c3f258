import { expect, it } from 'vitest';
import { analysisOfVariance, fTail } from './analysis-of-variance';
import { studentCdf } from './student-t';

// NIST StRD, analysis of variance, "SiRstv" (resistivity of silicon wafers by five instruments) and "AtmWtAg" (atomic
// weight of silver by two), with their certified values; the files lie in scipy's tests.
const SIRSTV = [
  [196.3052, 196.124, 196.189, 196.2569, 196.3403],
  [196.3042, 196.3825, 196.1669, 196.3257, 196.0422],
  [196.1303, 196.2005, 196.2889, 196.0343, 196.1811],
  [196.2795, 196.1748, 196.1494, 196.1485, 195.9885],
  [196.2119, 196.1051, 196.185, 196.0052, 196.209],
];
const SILVER = [
  [8681568, 8681465, 8681572, 8681785, 8681446, 8681903, 8681526, 8681494, 8681616, 8681587, 8681519, 8681486, 8681419, 8681569, 8681508, 8681672, 8681385, 8681518, 8681662, 8681424, 8681360, 8681333, 8681610, 8681477], // prettier-ignore
  [8681079, 8681344, 8681513, 8681197, 8681604, 8681385, 8681642, 8681365, 8681151, 8681082, 8681517, 8681448, 8681198, 8681482, 8681334, 8681609, 8681101, 8681512, 8681469, 8681360, 8681254, 8681261, 8681450, 8681368], // prettier-ignore
].map((group) => group.map((digits) => 107 + digits / 1e7));

it('agrees with the certified values of NIST', () => {
  const silicon = analysisOfVariance(SIRSTV);
  expect(silicon?.f).toBeCloseTo(1.18046237440255, 9);
  expect(silicon?.withinSd).toBeCloseTo(1.04076068334656e-1, 10);
  expect([silicon?.betweenDegrees, silicon?.withinDegrees]).toEqual([4, 20]);
  const silver = analysisOfVariance(SILVER);
  // Seven digits of 107.868… are in common: nine of fifteen are left.
  expect(silver?.f).toBeCloseTo(15.946733567793, 4);
});

it('has the tail of a t that is squared, and of published tables', () => {
  for (const t of [0.5, 1, 2.3]) expect(fTail(t * t, 1, 7)).toBeCloseTo(2 * (1 - studentCdf(t, 7)), 12);
  // e-Handbook, 1.3.6.7.3, upper critical values at 5 %: 4.965 (1, 10), 2.711 (5, 20).
  expect(fTail(4.965, 1, 10)).toBeCloseTo(0.05, 4);
  expect(fTail(2.711, 5, 20)).toBeCloseTo(0.05, 4);
});

it('says nothing where nothing was repeated, or all repeats are one number', () => {
  expect(analysisOfVariance([[1], [2], [3]])).toBeNull();
  expect(analysisOfVariance([[1, 2]])).toBeNull();
  expect(analysisOfVariance([[1, 1], [2, 2]])).toBeNull(); // prettier-ignore
});
