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

it('holds each figure against its own history, and tells how many were held', () => {
  const rejection = (day: string, value: number) => row(day, value, { quantity: 'rearRejection' });
  const rows = [...HISTORY, ...DAYS.map((day, i) => rejection(day, 15 + 0.2 * (i % 2)))];
  const two = of([row('2026-05-01', -60), rejection('2026-05-01', 3)], rows);
  expect(two.figures.map((f) => [f.quantity, f.verdict, f.history.map((h) => h.value)])).toEqual([
    ['noiseReSpeechA', 'agrees', [-60, -59.8, -60, -59.8]],
    ['rearRejection', 'off', [15, 15.2, 15, 15.2]],
  ]);
  expect(two.note).toMatch(/^1 of 2 figures/);
  // One that has no history of its own is not counted, and leaves the other's limit as it is.
  const fresh = of([row('2026-05-01', -60), rejection('2026-05-01', 3)]);
  expect(fresh.figures.map((f) => f.verdict)).toEqual(['agrees', 'no-history']);
  expect(fresh.note).toMatch(/^0 of 1 figures/);
  expect(fresh.figures[0].limit).toBe(of([row('2026-05-01', -60)]).figures[0].limit);
});

it('of a day that was read several times its mean is history, as one day, with its uncertainty', () => {
  const twice = [row('2026-01-01', -59, { run_id: 'a' }), row('2026-01-01', -61, { run_id: 'b' }), ...HISTORY.slice(1)];
  const health = of([row('2026-05-01', -60)], twice).figures[0];
  expect(health.count).toBe(4);
  expect(health.offset).toBeCloseTo(of([row('2026-05-01', -60)]).figures[0].offset ?? NaN, 9);
  // Two readings today are surer than one; of those whose uncertainty nobody knows the known one stands.
  const limit = (today: ControlFigureRow[]) => of(today).figures[0].limit ?? NaN;
  const wide = (uncertainty: number | null, run: string) => row('2026-05-01', -60, { run_id: run, uncertainty });
  expect(limit([wide(2, 'a'), wide(2, 'b')])).toBeLessThan(limit([wide(2, 'a')]));
  expect(limit([wide(2, 'a'), wide(null, 'b')])).toBeCloseTo(limit([wide(2, 'a'), wide(2, 'b')]), 12);
  expect(limit([wide(null, 'a')])).toBeLessThan(limit([wide(2, 'a')]));
});

it('counts no figure of a version that cannot be compared, or of none that is known', () => {
  const other = DAYS.map((day) => row(day, -40, { protocol_version: 7 }));
  expect(of([row('2026-05-01', -60)], other).verdict).toBe('no-history');
  const mixed = of(
    [row('2026-05-01', -60)],
    [...HISTORY, ...other].sort((a, b) => (a.day < b.day ? -1 : 1)),
  );
  expect(mixed.figures[0].history.map((h) => h.value)).toEqual([-60, -59.8, -60, -59.8]);
  expect(of([row('2026-05-01', -60, { protocol_version: 7 })]).verdict).toBe('no-history');
});

it('speaks of one earlier session where there is one, and shows no drift that it has no limit for', () => {
  expect(of([row('2026-05-01', -60)], HISTORY.slice(0, 1)).note).toContain('1 earlier session gives');
  const today = [row('2026-05-01', -60), row('2026-05-01', -57, { purpose: 'closing' })];
  const alone = of(today, []);
  expect(alone.figures[0].limit).toBeNull();
  expect(alone.drift).toEqual([]);
});
