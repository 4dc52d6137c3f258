import { expect, it } from 'vitest';
import { protocolSchema } from '#contracts/protocol';
import document from '../../server/seed/protocol-desk-voice-1.json' with { type: 'json' };
import { rigHealth, type ControlFigureRow } from './rig-health';

const PROTOCOLS = [protocolSchema.parse(document)];
const row = (day: string, value: number, change: Partial<ControlFigureRow> = {}): ControlFigureRow => ({
  day,
  run_id: day,
  purpose: 'opening',
  rig: 'desk',
  rig_id: '1',
  quantity: 'noiseReSpeechA',
  value,
  uncertainty: 0.2,
  protocol: PROTOCOLS[0].id,
  protocol_version: 1,
  ...change,
});
const DAYS = ['2026-01-01', '2026-02-01', '2026-03-01', '2026-04-01'];
const HISTORY = DAYS.map((day, i) => row(day, -60 + 0.2 * (i % 2)));
const of = (today: ControlFigureRow[], rows = HISTORY, rig = '1') =>
  rigHealth([...rows, ...today], today, rig, PROTOCOLS);

it('agrees where today lies within what earlier sessions leave room for, and is off where it does not', () => {
  const agrees = of([row('2026-05-01', -60)]);
  expect([agrees.verdict, agrees.figures[0].count]).toEqual(['agrees', 4]);
  expect(agrees.note).toMatch(/^0 of 1 figures .* 4 earlier sessions give/);
  const off = of([row('2026-05-01', -50)]);
  expect(off.verdict).toBe('off');
  expect(off.note).toMatch(/^1 of 1 figures/);
  expect(off.figures[0].offset).toBeCloseTo(9.9, 5);
});

it('has no verdict without history, and counts no day of its own', () => {
  const alone = rigHealth([row('2026-05-01', -60)], [row('2026-05-01', -60)], '1', PROTOCOLS);
  expect([alone.verdict, alone.note]).toEqual(['no-history', expect.stringMatching(/no history yet/)]);
  // What closed the same day, and what came later, is no history of it.
  const later = of([row('2026-05-01', -60)], [row('2026-05-01', -61, { purpose: 'closing' }), row('2026-06-01', -40)]);
  expect(later.verdict).toBe('no-history');
});

it('holds a changed rig against the one before, and says so; one with a history of its own against that alone', () => {
  const first = of([row('2026-05-01', -60, { rig_id: '2' })], HISTORY, '2');
  expect(first.note).toMatch(/first session of a changed rig/);
  expect(first.figures[0].history).toHaveLength(4);
  const own = [row('2026-04-15', -50, { rig_id: '2', rig: 'new desk' })];
  const second = of([row('2026-05-01', -50, { rig_id: '2' })], [...HISTORY, ...own], '2');
  expect([second.verdict, second.figures[0].history]).toEqual([
    'agrees',
    [{ day: '2026-04-15', rig: 'new desk', value: -50 }],
  ]);
  expect(second.note).not.toMatch(/changed rig/);
});

it('judges levels only, and several readings of a day by their mean', () => {
  const today = [
    row('2026-05-01', -58, { purpose: 'opening' }),
    row('2026-05-01', -62, { purpose: 'closing' }),
    row('2026-05-01', 9000, { quantity: 'responseLow3' }),
  ];
  const health = of(today, [...HISTORY, row('2026-04-01', 80, { quantity: 'responseLow3' })]);
  expect(health.figures.map((f) => [f.quantity, f.today])).toEqual([['noiseReSpeechA', -60]]);
});

it('shows what moved between opening and closing', () => {
  const today = [row('2026-05-01', -60), row('2026-05-01', -57, { purpose: 'closing' })];
  expect(of(today).drift).toEqual([
    { quantity: 'noiseReSpeechA', opening: -60, closing: -57, limit: of(today).figures[0].limit },
  ]);
  expect(of([row('2026-05-01', -60)]).drift).toEqual([]);
});
