import { expect, it } from 'vitest';
import type { Protocol } from '#contracts/protocol';
import { runDocumentSchema } from '#contracts/run-document';
import { newPlanSchema, plannedUnitSchema, takeSettingsSchema } from '#contracts/session-plan';
import { runOfSlot, type FinishedSlot, type KeptTake } from './run-of-slot';

const UNIT = plannedUnitSchema.parse({ maker: 'Oarlock', model: 'Purser', label: 'A', source: 'lent' });
const PLAN = newPlanSchema.parse({
  title: 'A session',
  day: '2026-05-02',
  category: 'microphone',
  protocol: 'desk-voice',
  protocolVersion: 3,
  units: [UNIT],
});
const PROTOCOL = {
  steps: [
    { id: 'speech', distanceM: 0.15, angleDeg: 0 },
    { id: 'silence', distanceM: null, angleDeg: null },
  ],
} as Protocol;
const take = (change: Partial<KeptTake> = {}, settings: object = {}): KeptTake => ({
  step: 'speech',
  attempt: 2,
  container: 'wav',
  sha256: 'a'.repeat(64),
  settings: takeSettingsSchema.parse({ gainDb: 36, ...settings }),
  findings: [],
  overruled: [],
  note: '',
  ...change,
});
const of = (change: Partial<FinishedSlot> = {}) =>
  runOfSlot({ plan: PLAN, protocol: PROTOCOL, unit: UNIT, purpose: 'unit', takes: [take()], tables: [], fullScaleDbu: null, ...change }); // prettier-ignore

it('is a run document that anybody could import, with a file for each take', () => {
  const { document, clips } = of({ takes: [take(), take({ step: 'silence', attempt: 1, container: 'flac', sha256: 'b'.repeat(64) })] }); // prettier-ignore
  expect(runDocumentSchema.parse(document)).toMatchObject({
    specimen: { maker: 'Oarlock', model: 'Purser', label: 'A', category: 'microphone' },
    date: '2026-05-02',
    protocol: 'desk-voice',
    protocolVersion: 3,
    source: 'lent',
    purpose: 'unit',
  });
  expect(clips).toEqual({ 'speech-2.wav': 'a'.repeat(64), 'silence-1.flac': 'b'.repeat(64) });
  expect(document.takes.map((t) => t.file)).toEqual(Object.keys(clips));
});

it('takes distance and angle from the take, else from the step', () => {
  expect(of().document.takes[0]).toMatchObject({ gainDb: 36, distanceM: 0.15, angleDeg: 0 });
  expect(of({ takes: [take({}, { distanceM: 0.3, angleDeg: 45 })] }).document.takes[0]).toMatchObject({
    distanceM: 0.3,
    angleDeg: 45,
  });
  const [silence] = of({ takes: [take({ step: 'silence' })] }).document.takes;
  expect(['distanceM' in silence, 'angleDeg' in silence, 'note' in silence]).toEqual([false, false, false]);
});

it("keeps the rig, its input's full scale, the purpose, tables, notes and every further setting", () => {
  const { document } = of({
    plan: { ...PLAN, rig: 'desk' },
    fullScaleDbu: 9.5,
    purpose: 'closing',
    tables: [{ step: 'latency', cells: [] }],
    takes: [take({ note: 'window open' }, { pad: '−10', lowCut: '80 Hz', dial: '3', pattern: 'cardioid', phantom: false, voice: 'low' })], // prettier-ignore
  });
  expect(document).toMatchObject({ rig: 'desk', inputFullScaleDbu: 9.5, purpose: 'closing', tables: [{ step: 'latency' }] }); // prettier-ignore
  expect(document.takes[0]).toMatchObject({
    note: 'window open',
    settings: { pad: '−10', lowCut: '80 Hz', dial: '3', pattern: 'cardioid', phantom: false, voice: 'low' },
  });
  const bare = of().document;
  expect(['rig' in bare, 'inputFullScaleDbu' in bare, bare.takes[0].settings]).toEqual([false, false, {}]);
});

it('says of each overruled finding what it was', () => {
  const found = { check: 'clipped', weight: 'redo', what: '12 samples at full scale', next: 'Turn down' } as const;
  const reason = { check: 'clipped', reason: 'only a knock' } as const;
  expect(of({ takes: [take({ findings: [found], overruled: [reason] })] }).document.takes[0].overruled).toEqual([
    { ...reason, what: '12 samples at full scale' },
  ]);
});

it('keeps the level at the source, the level at the input and the wind of a take, and makes up none', () => {
  const noted = { levelDbSpl: 94, levelDbu: -20, windSpeedMs: 6.5 };
  expect(of({ takes: [take({}, noted)] }).document.takes[0]).toMatchObject(noted);
  const [plain] = of().document.takes;
  expect(Object.keys(noted).filter((key) => key in plain)).toEqual([]);
  // Nothing is a level as well: 0 dBu, 0 m/s.
  const zero = { levelDbu: 0, windSpeedMs: 0 };
  expect(of({ takes: [take({}, zero)] }).document.takes[0]).toMatchObject(zero);
});

it('a step that the protocol has not any more lends no distance', () => {
  const [gone] = of({ takes: [take({ step: 'gone' })] }).document.takes;
  expect(['distanceM' in gone, 'angleDeg' in gone]).toEqual([false, false]);
});
