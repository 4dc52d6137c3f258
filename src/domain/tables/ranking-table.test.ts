import { expect, it } from 'vitest';
import { fact, reviewFacts, RUBRIC, unit } from '../review/testing/review-facts';
import { boardExport, boardTable, rankingExport, rankingTable } from './ranking-table';

it('a ranking has a line per unit, best first, with every criterion and why', () => {
  const facts = reviewFacts([unit('1', { noiseReSpeechA: fact(-60) }, 100), unit('2', { noiseReSpeechA: fact(-70) })]);
  const [head, first, second] = rankingTable(rankingExport(facts.standing.ranked, { rubric: RUBRIC, names: facts.names }, '2026-01-01')); // prettier-ignore
  expect(head.slice(0, 4)).toEqual(['place', 'stratum', 'unit', 'points (0 to 5)']);
  expect([first[0], first[2], second[2]]).toEqual([1, 'Thole M2 · A', 'Thole M1 · A']);
  // A price that nobody knows is empty, not zero, and says why.
  const at = head.indexOf('Price (points, 0 to 5)');
  expect([first[at], second[at]]).toEqual([null, 4]);
  expect(String(first[at + 1])).not.toBe('');
});

it('a board has every figure with its doubt; what was not measured is empty, with the reason', () => {
  const units = [
    unit('1', { noiseReSpeechA: fact(-60), truePeak: fact(-3) }),
    unit('2', { noiseReSpeechA: fact(null), rearRejection: fact(12, { bound: 'at-least' }) }),
  ];
  const [head, first, second] = boardTable(
    boardExport(units, (id) => `U${id}`, { category: 'microphone', day: '2026-01-01' }),
  );
  expect(head).toEqual(['unit', 'Noise re speech, A-weighted (dB(A))', 'Noise re speech, A-weighted: standard uncertainty', 'Noise re speech, A-weighted: bound', 'Rear rejection of speech (dB)', 'Rear rejection of speech: standard uncertainty', 'Rear rejection of speech: bound']); // prettier-ignore
  expect(first).toEqual(['U1', -60, 0.5, 'exact', null, null, null]);
  expect(second).toEqual(['U2', null, null, 'No take of it.', 12, 0.5, 'at-least']);
});
