import { describe, expect, it } from 'vitest';
import { gainAdvice } from './gain-advice';
import { retestReasons, type RetestFacts } from './retest-reasons';
import { agreement, corrected } from './rig-agreement';
import { sessionTime } from './session-time';

describe('the control unit against its history', () => {
  const of = (...values: number[]) => values.map((value) => ({ value, uncertainty: null }));

  // scipy 1.10: mean 40.125, s 0.25, t.ppf(0.975, 3)·s·√(1 + 1/4) = 0.88952 for [40.1, 40.4, 39.8, 40.2].
  it('has the 95 % prediction interval for one more figure as its limit', () => {
    const { usual, spread, limit, verdict } = agreement(of(40.1, 40.4, 39.8, 40.2), { value: 41, uncertainty: null });
    expect([usual, spread, limit]).toEqual([
      expect.closeTo(40.125, 9),
      expect.closeTo(0.25, 9),
      expect.closeTo(0.8895207841698, 6),
    ]);
    expect(verdict).toBe('agrees');
    expect(agreement(of(40.1, 40.4, 39.8, 40.2), { value: 41.1, uncertainty: null }).verdict).toBe('off');
  });

  it("is no stricter than the figures' own uncertainties allow", () => {
    const history = [40, 40.01, 39.99].map((value) => ({ value, uncertainty: 0.5 }));
    const result = agreement(history, { value: 41, uncertainty: 0.5 });
    // The normal distribution's 97.5 % point: the uncertainties are known, not estimated.
    expect(result.limit).toBeCloseTo(1.96 * 0.5 * Math.sqrt(4 / 3), 2);
    expect(result.verdict).toBe('agrees');
  });

  it('says so where there is no history, and is careful with a single figure', () => {
    expect(agreement([], { value: 1, uncertainty: null })).toMatchObject({ verdict: 'no-history', limit: null });
    expect(agreement(of(40), { value: 40.25, uncertainty: null }).verdict).toBe('agrees');
    expect(agreement(of(40), { value: 41, uncertainty: null }).verdict).toBe('off');
  });

  it('takes the offset off another figure, and adds its uncertainty', () => {
    const offset = agreement(of(40.1, 40.4, 39.8, 40.2), { value: 42.125, uncertainty: null });
    const figure = corrected({ value: -60, uncertainty: 0.3 }, offset);
    expect(figure?.value).toBeCloseTo(-62, 9);
    expect(figure?.uncertainty).toBeCloseTo(Math.hypot(0.3, 0.25 * Math.sqrt(1.25)), 9);
    expect(corrected({ value: 1, uncertainty: null }, agreement([], { value: 1, uncertainty: null }))).toBeNull();
  });
});

describe('gain advice', () => {
  const window = { lowDbfs: -12, highDbfs: -9 };

  it.each([
    [-10.5, 0, 'leave'],
    [-12, 0, 'leave'],
    [-20, 10, 'up by 10 dB'],
    [-3, -8, 'down by 8 dB'],
  ])('turns peaks of %d dBFS by %d dB', (peak, turnDb, words) => {
    const advice = gainAdvice(peak, window);
    expect(advice?.turnDb).toBe(turnDb);
    expect(advice?.text).toContain(words);
    // What it advises puts the peaks into the window.
    expect(gainAdvice(peak + turnDb, window)?.turnDb).toBe(0);
  });

  it('knows that a clipped peak is not known, and that silence says nothing', () => {
    expect(gainAdvice(0, window, true)?.text).toMatch(/at least 11 dB/);
    expect(gainAdvice(-Infinity, window)).toBeNull();
  });
});

describe('the time a session takes', () => {
  it('follows the median pace of past units, or a rule of thumb', () => {
    expect(sessionTime(30, 2, [])).toEqual({ minutes: 72, sessions: 0 });
    const past = [
      { steps: 10, minutes: 16 },
      { steps: 10, minutes: 26 },
      { steps: 15, minutes: 36 },
      { steps: 0, minutes: 5 },
    ];
    // Paces of 1, 2 and 2 minutes a step after the change of 6 minutes is taken off.
    expect(sessionTime(30, 2, past)).toEqual({ minutes: 72, sessions: 3 });
    expect(sessionTime(30, 2, past.slice(0, 1)).minutes).toBe(42);
  });
});

describe('reasons to test again', () => {
  const facts: RetestFacts = {
    lastTested: '2026-01-10',
    onDesk: true,
    isControl: false,
    firmwareOn: null,
    repairedOn: null,
    flaggedOn: null,
    missingFigures: [],
    incomparable: [],
  };
  const kinds = (change: Partial<RetestFacts>): string[] =>
    retestReasons({ ...facts, ...change }, '2026-05-10').map((r) => r.kind);

  it('are none for a unit that is well', () => expect(kinds({})).toEqual([]));

  it.each<[Partial<RetestFacts>, string[]]>([
    [{ repairedOn: '2026-02-01' }, ['repair']],
    [{ repairedOn: '2025-12-01' }, []],
    [{ firmwareOn: '2026-02-01', repairedOn: '2026-03-01' }, ['repair', 'firmware']],
    [{ flaggedOn: '2026-01-10' }, ['drift']],
    [{ lastTested: null }, ['never']],
    [{ lastTested: null, onDesk: false }, []],
    [{ missingFigures: ['Rejection'] }, ['missing']],
    [{ incomparable: ['plosives'] }, ['incomparable']],
    [{ isControl: true }, ['control-due']],
    [{ isControl: true, lastTested: '2026-05-01' }, []],
  ])('%j', (change, expected) => expect(kinds(change)).toEqual(expected));
});
