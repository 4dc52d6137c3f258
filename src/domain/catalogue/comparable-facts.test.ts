import { expect, it } from 'vitest';
import { protocolSchema, type Protocol } from '#contracts/protocol';
import document from '../../server/seed/protocol-desk-voice-1.json' with { type: 'json' };
import { comparableFacts, countingFacts } from './comparable-facts';
import type { FactRow } from './fact';

const FIRST = protocolSchema.parse(document);
/** The same steps said in other words: figures of both go together. */
const REWORDED: Protocol = { ...FIRST, version: 2, name: 'Desk voice, in other words' };
/** The rear take from twice as far: what depends on it does not. */
const FARTHER: Protocol = {
  ...FIRST,
  version: 3,
  steps: FIRST.steps.map((s) => (s.role === 'rear' || s.id === 'rear' ? { ...s, distanceM: 0.3 } : s)),
};
const ALL = [FIRST, REWORDED, FARTHER];

const fact = (change: Partial<FactRow> = {}): FactRow => ({
  specimen_id: '1',
  quantity: 'rearRejection',
  value: 14,
  uncertainty: 0.5,
  bound: 'exact',
  not_measured: null,
  protocol: FIRST.id,
  protocol_version: 1,
  day: '2026-01-01',
  high_hz: null,
  ...change,
});
const newest = (id: string, value: number) => fact({ specimen_id: id, value, protocol_version: 3, day: '2026-03-01' });

it('of one version the newest figure of each unit counts, with the day where a later run does not have it', () => {
  const facts = [fact(), fact({ value: 15, day: '2026-02-01' }), fact({ specimen_id: '2', value: 9 })];
  expect(comparableFacts(facts, [], ALL).map((f) => [f.specimen_id, f.value, f.remark])).toEqual([
    ['1', 15, null],
    ['2', 9, null],
  ]);
  const [kept] = countingFacts([
    { ...fact(), remark: null },
    { ...fact({ value: null, uncertainty: null, not_measured: 'no rear take', day: '2026-02-01' }), remark: null },
  ]);
  expect([kept.value, kept.remark]).toEqual([14, 'measured on 2026-01-01; the run of 2026-02-01 does not have it']);
});

it('a version that only words things otherwise changes nothing', () => {
  const facts = [fact(), fact({ specimen_id: '2', protocol_version: 2, day: '2026-02-01' })];
  expect(comparableFacts(facts, [], ALL).map((f) => [f.value, f.remark])).toEqual([
    [14, null],
    [14, null],
  ]);
});

it('one whose step was done otherwise is left out, until two units were measured under both', () => {
  const facts = [fact(), newest('2', 10)];
  const out = comparableFacts(facts, [], ALL);
  expect(out.map((f) => f.value)).toEqual([null, 10]);
  expect(out[0].not_measured).toMatch(/^Not comparable: measured under version 1/);

  const both = (id: string, before: number, after: number): FactRow[] => [
    newest(id, after),
    fact({ specimen_id: id, value: before }),
  ];
  expect(comparableFacts(facts, both('7', 12, 10), ALL)[0].value).toBeNull();
  const [moved] = comparableFacts(facts, [...both('7', 12, 10), ...both('8', 16, 13.8)], ALL);
  // Two units lost 2.0 and 2.2 dB from one version to the other.
  expect(moved.value).toBeCloseTo(14 - 2.1, 1);
  expect(moved.uncertainty).toBeGreaterThan(0.5);
  expect(moved.remark).toMatch(/moved by −2\.1\d? ±\d.* as 2 units/);
});

it('a figure read over another band than most is left out, in words; one without a figure stays as it is', () => {
  const facts = [1, 2, 3].map((i) => fact({ specimen_id: `${i}`, quantity: 'noiseReSpeechA', value: -60, high_hz: i === 3 ? 4000 : 20_000 })); // prettier-ignore
  const out = comparableFacts(
    [...facts, fact({ specimen_id: '4', value: null, not_measured: 'no rear take' })],
    [],
    ALL,
  );
  expect(out.map((f) => f.value)).toEqual([-60, -60, null, null]);
  expect(out[2].not_measured).toMatch(/^Not comparable: .*kHz/);
  expect(out[3].not_measured).toBe('no rear take');
});
