import { describe, expect, it } from 'vitest';
import { rankUnits } from '#core/rules/rank';
import type { Rubric } from '#core/rules/rubric';
import type { UnitFacts } from '#core/rules/criterion-points';
import { rankingLines, standingSentences, unitUnderTest } from './standing';

describe('ranking', () => {
  const rubric: Rubric = {
    id: 't',
    version: 1,
    name: 'T',
    category: 'microphone',
    stratumProbability: 0.9,
    weights: { sound: 1, build: 1 },
    criteria: [
      { id: 'sound', name: 'Sound', meaning: '…', kind: 'by-hand', repeatability: 0.2 },
      { id: 'build', name: 'Build', meaning: '…', kind: 'by-hand', repeatability: 0.2 },
    ],
  };
  const unit = (id: string, sound: number | null, build: number): UnitFacts => ({
    id,
    figures: {},
    prices: [],
    byHand: {
      build: { value: build, reason: null },
      ...(sound === null ? {} : { sound: { value: sound, reason: null } }),
    },
  });
  const ranked = rankUnits([unit('a', 5, 4.9), unit('b', 2, 2), unit('c', 2, 1.9), unit('d', null, 2)], rubric);
  const names = Object.fromEntries(
    ['a', 'b', 'c', 'd'].map((id, i) => [
      id,
      {
        maker: 'M',
        model: id.toUpperCase(),
        label: 'x',
        onDesk: i > 0,
        isControl: false,
        lastTested: `2026-01-0${i + 1}`,
      },
    ]),
  );

  it('has a head per stratum, in words that its figures give', () => {
    const lines = rankingLines(ranked);
    expect(lines[0]).toMatchObject({ kind: 'stratum', stratum: 1 });
    const share = Math.min(99, Math.floor(100 * (ranked[0].beatsNext ?? 0)));
    expect(lines[0].kind === 'stratum' && lines[0].words).toBe(`One unit; it beats the next one down with ${share} %`);
    expect(lines.filter((l) => l.kind === 'unit')).toHaveLength(4);
    expect(lines.filter((l) => l.kind === 'stratum').length).toBe(ranked[3].stratum);
  });

  it('asks about the unit on the desk that was tested last', () => {
    expect(unitUnderTest(ranked, names)?.id).toBe('d');
    // A control unit is heard in every session, and asked about only where nothing else is in hand.
    const control = { ...names, d: { ...names['d'], isControl: true } };
    expect(unitUnderTest(ranked, control)?.id).toBe('c');
    const alone = Object.entries(control).map(([id, n]) => [id, { ...n, onDesk: id === 'd' }] as const);
    expect(unitUnderTest(ranked, Object.fromEntries(alone))?.id).toBe('d');
    expect(
      unitUnderTest(ranked, Object.fromEntries(Object.entries(names).map(([id, n]) => [id, { ...n, onDesk: false }]))),
    ).toBeNull();
  });

  it('tells a newcomer where a unit settles, with whom, how surely, and what is missing', () => {
    const criteria = new Map([
      ['sound', 'Sound'],
      ['build', 'Build'],
    ]);
    const top = standingSentences(ranked[0], ranked, names, criteria);
    expect(top[0]).toBe(
      'Place 1 of 4; with 90 % probability between 1 and 1.'.replace('and 1.', `and ${ranked[0].rank90[1]}.`),
    );
    expect(top[1]).toContain('to itself');
    expect(top[2]).toMatch(/beats the next one down, M .* with a probability of \d+ %/);
    const gap = ranked.find((u) => u.id === 'd');
    expect(gap && standingSentences(gap, ranked, names, criteria).join(' ')).toContain('Missing: Sound.');
  });
});
