import { describe, expect, it } from 'vitest';
import type { Run, SpecimenRow } from '#contracts/specimen';
import { cameWords, classWords } from './unit-summary';
import { whyNotRanked } from './why-not-ranked';
import { row } from '../../testing/rows';

describe('the first look at a unit', () => {
  const sheet = (change: Partial<SpecimenRow>, purposes: Run['purpose'][] = ['unit']) => ({
    row: row(change),
    runs: purposes.map((purpose) => ({ purpose, source: 'lent' }) as Run),
  });
  it('says what it is by the classes of its kind', () => {
    const classes = { connection: ['USB-C'], loopback: ['no'], pattern: ['omni'] };
    expect(classWords(sheet({ category: 'interface', classes }))).toEqual(['USB-C', 'loopback: no']);
    expect(classWords(sheet({}))).toEqual([]);
  });
  it('says how it came and when it was tested', () => {
    expect(cameWords(sheet({}))).toBe('lent, tested 2026-05-02, on the desk');
    expect(cameWords(sheet({ firstTested: '2025-01-01', onDesk: false }))).toBe('lent, tested 2025-01-01 to 2026-05-02, put away'); // prettier-ignore
    expect(cameWords(sheet({ firstTested: null, lastTested: null }, []))).toBe('not tested, on the desk');
  });
  it('says truly why it has no place', () => {
    expect(whyNotRanked(sheet({ hasRules: false }))).toMatch(/no rules/);
    expect(whyNotRanked(sheet({ lastTested: null }, []))).toBe('not tested yet');
    expect(whyNotRanked(sheet({}, ['opening', 'closing']))).toMatch(/the rig’s/);
    expect(whyNotRanked(sheet({ failedAnalyses: 1, waitingAnalyses: 1 }))).toBe('an analysis failed');
    expect(whyNotRanked(sheet({ waitingAnalyses: 1 }))).toBe('being measured');
    expect(whyNotRanked(sheet({}))).toMatch(/nothing that its rules count/);
  });
});
