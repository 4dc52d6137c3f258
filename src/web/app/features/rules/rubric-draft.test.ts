import { describe, expect, it } from 'vitest';
import type { UnitFacts } from '#core/rules/criterion-points';
import { criterionAxis, criterionValue } from '#core/rules/criterion-value';
import type { Criterion, Rubric } from '#core/rules/rubric';
import { protocolSchema } from '#contracts/protocol';
import inputStage from '../../../../server/seed/protocol-input-stage-2.json' with { type: 'json' };
import rubric from '../../../../server/seed/rubric-interface-2.json' with { type: 'json' };
import { curvePath, frameOf, knotAt, xOf, yOf } from './curve-geometry';
import {
  SOURCES,
  criterionId,
  draftProblems,
  firstRubric,
  measuredChoices,
  sourceWords,
  tableCells,
  withCriterion,
  withKnot,
  withMoreKnots,
  withSource,
  withoutCriterion,
} from './rubric-draft';
import { movesSentence } from './who-moves';

const PROTOCOLS = [protocolSchema.parse(inputStage)];
const RUBRIC = rubric as unknown as Rubric;
const BASE = { id: 'c', name: 'C', meaning: 'm' };
const facts = (change: Partial<UnitFacts>): UnitFacts => ({ id: '1', figures: {}, byHand: {}, prices: [], ...change });

describe('a criterion of another source', () => {
  it.each(SOURCES.map((s) => s.value))(
    '%s: is one that can be saved at once, name and meaning as they were',
    (source) => {
      const made = withSource(BASE, source, 'interface', PROTOCOLS, () => [-128, -120]);
      expect(made).toMatchObject({ ...BASE, kind: source });
      expect(draftProblems(withCriterion(firstRubric('interface'), made as Criterion), PROTOCOLS)).toEqual([]);
    },
  );
  it('starts from what the catalogue has, the better end first', () => {
    const made = withSource(BASE, 'measured', 'interface', PROTOCOLS, (id) => (id === 'einA' ? [-128, -120] : []));
    expect(made).toMatchObject({ quantity: 'einA', curve: [[-128, 5], [-124, 2.5], [-120, 0]] }); // prettier-ignore
    // All alike: a curve all the same.
    expect(withSource(BASE, 'measured', 'interface', PROTOCOLS, () => [-120])).toMatchObject({ curve: [[-121, 5], [-120, 2.5], [-119, 0]] }); // prettier-ignore
  });
  it('is not offered where the kind has nothing of it', () => {
    expect(withSource(BASE, 'table', 'headphones', [], () => [])).toBeNull();
    expect(measuredChoices('headphones')).toEqual(
      expect.arrayContaining(['sideDifference', 'outsideLessA', 'impedance']),
    );
    expect(measuredChoices('headphones')).not.toContain('einA');
    expect(withSource(BASE, 'table', 'interface', [], () => [])).toBeNull();
    expect(measuredChoices('interface')).toEqual(expect.arrayContaining(['einA', 'noiseFigure', 'einZ']));
    expect(measuredChoices('interface')).not.toContain('rearRejection');
    expect(tableCells('interface', PROTOCOLS)).toContainEqual({ protocol: 'input-stage', step: 'latency', row: '48 kHz', column: '64', label: 'Latency by rate and buffer: 48 kHz, 64 (ms)' }); // prettier-ignore
  });
});

describe('a draft of rules', () => {
  it('gains and loses criteria with their weights, in every use', () => {
    const more = withCriterion(RUBRIC, { ...BASE, kind: 'by-hand', repeatability: 0.2 });
    expect(more.weights['c']).toBe(1);
    const used = { ...more, uses: [{ name: 'x', weights: { c: 3, noise: 1 } }] };
    const less = withoutCriterion(used, 'c');
    expect([less.weights['c'], less.uses?.[0].weights, less.criteria.length]).toEqual([undefined, { noise: 1 }, RUBRIC.criteria.length]); // prettier-ignore
  });
  it('names criteria so that none is there twice', () => {
    expect(criterionId('Round trip!', [])).toBe('round-trip');
    expect(criterionId('Round trip', ['round-trip', 'round-trip-2'])).toBe('round-trip-3');
    expect(criterionId('48 kHz', [])).toBe('khz');
    expect(criterionId('…', [])).toBe('criterion');
  });
  it('says what is wrong by the names that people read', () => {
    const [first, ...rest] = RUBRIC.criteria;
    const bent = { ...RUBRIC, criteria: [{ ...first, curve: [[3, 1], [2, 5]] } as Criterion, ...rest] }; // prettier-ignore
    expect(draftProblems(RUBRIC, PROTOCOLS)).toEqual([]);
    expect(draftProblems(bent, PROTOCOLS)[0]).toMatch(/^Noise, curve: knots must stand in ascending order/);
    expect(draftProblems({ ...RUBRIC, criteria: [] }, PROTOCOLS).length).toBeGreaterThan(0);
    expect(draftProblems({ ...RUBRIC, weights: Object.fromEntries(RUBRIC.criteria.map((c) => [c.id, 0])) }, PROTOCOLS)).toEqual(['weights: at least one criterion has to count']); // prettier-ignore
  });
  it('says in few words what a criterion is made of', () => {
    expect(RUBRIC.criteria.map((c) => sourceWords(c, 'interface').slice(0, 24))).toEqual([
      'measured: Equivalent inp',
      'table “latency”: 48 kHz,',
      'by hand',
      'how many of 7: Loopback,',
      'by hand',
      'price in EUR: street, el',
    ]);
  });
});

describe('a curve', () => {
  const curve = [[0, 0], [10, 4], [40, 5]] as const; // prettier-ignore
  it('keeps its knots in order while one is dragged, and on the scale', () => {
    expect(withKnot(curve, 1, [12, 3])[1]).toEqual([12, 3]);
    expect(withKnot(curve, 1, [45, 3])[1]).toEqual([10, 3]);
    expect(withKnot(curve, 1, [0, 9])[1]).toEqual([10, 5]);
    expect(withKnot(curve, 0, [-5, -1])[0]).toEqual([-5, 0]);
  });
  it('gets another knot in its longest stretch', () => {
    expect(withMoreKnots(curve)[2]).toEqual([25, 4.5]);
    expect(withMoreKnots([[3, 1]])).toEqual([[3, 1], [4, 2.5]]); // prettier-ignore
  });
  it('is drawn where its values lie, and a place on it is read back', () => {
    const frame = frameOf(curve, [50], 400, 100);
    expect([frame.low, frame.high]).toEqual([-4, 54]);
    expect([xOf(frame, -4), xOf(frame, 54), yOf(frame, 5), yOf(frame, 0)]).toEqual([0, 400, 0, 100]);
    const [x, points] = knotAt(frame, xOf(frame, 10), yOf(frame, 4));
    // To the decimal place that a pixel tells.
    expect(Math.abs(x - 10)).toBeLessThan(0.051);
    expect(points).toBe(4);
    expect(knotAt(frame, 0, -50)[1]).toBe(5);
    expect(curvePath(frame, [[25, 2.5]])).toBe('M0 50.0L200.0 50.0L400 50.0');
    expect(frameOf([[1, 1]], [], 10, 10)).toMatchObject({ low: 0, high: 2 });
  });
});

it('a criterion is read at a number, which has a name and a unit', () => {
  const unit = facts({
    figures: { einA: { value: -127, uncertainty: 0.2, bound: 'exact', notMeasured: null } },
    prices: [{ amount: 99, currency: 'EUR', kind: 'street', date: '2026-01-01' }],
    sheet: { loopback: true, phantom: false, weight: 800 },
    cells: { 'input-stage/latency/48 kHz/64': 6.5 },
  });
  expect(RUBRIC.criteria.map((c) => criterionValue(c, unit))).toEqual([-127, 6.5, null, 1, null, 99]);
  expect(RUBRIC.criteria.map((c) => criterionValue(c, facts({})))).toEqual([null, null, null, null, null, null]);
  const weight: Criterion = { ...BASE, kind: 'sheet-number', field: 'weight', curve: [[0, 5]] };
  expect([criterionValue(weight, unit), criterionAxis(weight, 'interface')]).toEqual([
    800,
    { name: 'Weight', unit: 'g' },
  ]);
  const heard: Criterion = { ...BASE, kind: 'heard', curve: [[0, 3]], leastAnswers: 1, repeatability: 0.3 };
  expect(criterionValue(heard, facts({ heard: { logWorth: 0.4, se: 0.1, answers: 9 } }))).toBe(0.4);
  expect(criterionAxis(RUBRIC.criteria[2], 'interface')).toBeNull();
});

it('who moves is said in one sentence', () => {
  const move = (rises: number, isBeyondDoubt = false) => ({ id: String(rises), before: 3, after: 3 - rises, rises, isBeyondDoubt }); // prettier-ignore
  expect(movesSentence([])).toBe('No unit is ranked yet: nothing moves.');
  expect(movesSentence([move(0)])).toBe('None of 1 units moves.');
  expect(movesSentence([move(0), move(1), move(-1)])).toBe(
    '2 of 3 units move, each of them within what either order leaves open.',
  );
  expect(movesSentence([move(2, true), move(-1)])).toMatch(/^2 of 2 units move, 1 of them further than either order/);
});
