import { describe, expect, it } from 'vitest';
import { nextStep, stalePrices } from './next-step';
import { row } from '../../testing/rows';

describe('bench', () => {
  it('names the next step, what is wrong first', () => {
    expect(nextStep(row({ failedAnalyses: 2, waitingAnalyses: 1 }))).toMatchObject({
      text: '2 analyses failed',
      kind: 'attention',
      to: { fragment: 'takes' },
    });
    expect(nextStep(row({ takes: 0, lastTested: null }))).toMatchObject({
      text: 'No takes yet',
      to: { screen: '/new-run' },
    });
    // A unit of which only tables were filled in has been tested.
    expect(nextStep(row({ takes: 0, hasRules: false, place: null, review: null })).text).toBe(
      'Measured, nothing published',
    );
    expect(nextStep(row({ waitingAnalyses: 1, missingPoints: ['sound'] }))).toMatchObject({ kind: 'wait' });
    expect(nextStep(row({ missingPoints: ['sound', 'build'] }))).toMatchObject({
      text: 'Points missing: sound, build',
      to: { fragment: 'points' },
    });
    expect(nextStep(row())).toEqual({ kind: 'done', text: 'Published 2026-05-04', action: 'Look at its place', to: { fragment: 'place' } }); // prettier-ignore
    // Nothing is scored where there are no rules, and nothing done where the unit is not ranked.
    expect(nextStep(row({ hasRules: false, place: null }))).toMatchObject({ kind: 'done', to: { fragment: 'takes' } });
    expect(nextStep(row({ place: null }))).toMatchObject({ kind: 'attention', text: 'Scored, not ranked' });
  });

  it('goes on with a review: one that is not begun, one that is, one that is older than the last test', () => {
    expect(nextStep(row({ review: null }))).toMatchObject({ kind: 'open', text: 'Scored, nothing published', to: { screen: '/reviews' } }); // prettier-ignore
    // A second one is not begun beside the first.
    expect(nextStep(row({ review: { id: '7', publishedOn: null } }))).toMatchObject({ kind: 'work', to: { review: '7' } }); // prettier-ignore
    expect(nextStep(row({ lastTested: '2026-05-05' }))).toMatchObject({ text: 'Tested again since it was published 2026-05-04', to: { review: '7' } }); // prettier-ignore
    // Published on the day of the test: written after it.
    expect(nextStep(row({ lastTested: '2026-05-04' })).kind).toBe('done');
  });

  it('asks for a new price after 90 days, of units on the desk only', () => {
    const rows = [row({ id: '1' }), row({ id: '2', onDesk: false }), row({ id: '3', price: null })];
    expect(stalePrices(rows, '2026-07-30').map((r) => r.id)).toEqual([]);
    expect(stalePrices(rows, '2026-07-31').map((r) => r.id)).toEqual(['1']);
  });

  it('a configuration costs what its unit costs, and wants no place where another one counts', () => {
    const of = (configuration: string, counts: boolean) => ({
      family: { main: '1', configuration, varies: configuration === '' ? null : ('pattern' as const), counts },
    });
    const [unit, omni] = [row(of('', true)), row({ id: '2', place: null, ...of('omni', false) })];
    expect(stalePrices([unit, omni], '2027-01-01').map((r) => r.id)).toEqual(['1']);
    expect(nextStep(omni)).toMatchObject({ kind: 'done', to: { fragment: 'configurations' } });
    expect(nextStep(omni).text).toMatch(/another configuration of it counts/);
    expect(nextStep({ ...omni, missingPoints: ['sound'] }).text).toMatch(/Points missing/);
    expect(nextStep(row({ place: null, ...of('', true) })).text).toBe('Scored, not ranked');
  });
});
