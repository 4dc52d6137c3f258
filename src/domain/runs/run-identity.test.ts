import { expect, it } from 'vitest';
import { runDocumentSchema, type RunDocumentInput } from '#contracts/run-document';
import { runIdentity } from './run-identity';

const RUN: RunDocumentInput = {
  format: 'sediment-run/1',
  specimen: { maker: 'Oarlock', model: 'Purser', label: 'A', category: 'microphone' },
  date: '2026-05-02',
  protocol: 'desk-voice',
  protocolVersion: 1,
  source: 'bought',
  takes: [
    { step: 'speech', file: 'a.wav', gainDb: 40, distanceM: 0.15, angleDeg: 0 },
    { step: 'silence', file: 'b.wav', gainDb: 40 },
  ],
};
const HASHES: Record<string, string> = { 'a.wav': 'aa', 'b.wav': 'bb', 'renamed.wav': 'aa', 'other.wav': 'cc' };
const of = (change: Partial<RunDocumentInput>): string =>
  runIdentity(runDocumentSchema.parse({ ...RUN, ...change }), (file) => HASHES[file] ?? null);
const take = (change: object): Partial<RunDocumentInput> => ({
  takes: [{ ...RUN.takes[0], ...change }, RUN.takes[1]],
});

it('is the same whatever files are called, and whatever is noted beside the recordings', () => {
  expect(of(take({ file: 'renamed.wav' }))).toBe(of({}));
  expect(of(take({ note: 'window open' }))).toBe(of({}));
  expect(of({ prices: [{ amount: 9, currency: 'EUR', kind: 'street', date: '2026-05-01' }] })).toBe(of({}));
});

it.each<[string, Partial<RunDocumentInput>]>([
  ['gain', take({ gainDb: 41 })],
  ['distance', take({ distanceM: 0.3 })],
  ['angle', take({ angleDeg: 90 })],
  ['step', take({ step: 'rear' })],
  ['recording', take({ file: 'other.wav' })],
  ['day', { date: '2026-05-03' }],
  ['protocol', { protocol: 'field-voice' }],
  ['version of the protocol', { protocolVersion: 2 }],
  ['source', { source: 'lent' }],
  ['label', { specimen: { ...RUN.specimen, label: 'B' } }],
  ['maker', { specimen: { ...RUN.specimen, maker: 'Marlfen' } }],
  ['model', { specimen: { ...RUN.specimen, model: 'Fen' } }],
  ['kind of gear', { specimen: { ...RUN.specimen, category: 'interface' } }],
])('is another one with another %s', (_, change) => {
  expect(of(change)).not.toBe(of({}));
});

it('of tables alone is what stands in them; beside recordings they make no other run', () => {
  const table = (value: number): RunDocumentInput['tables'] => [{ step: 'latency', cells: [{ row: '48 kHz', column: '64', value, source: 'typed', clip: null }] }]; // prettier-ignore
  const alone = (value: number): string => of({ takes: [], tables: table(value) });
  expect(alone(5.5)).toBe(alone(5.5));
  expect(alone(5.5)).not.toBe(alone(6.5));
  expect(of({ tables: table(5.5) })).toBe(of({}));
});
