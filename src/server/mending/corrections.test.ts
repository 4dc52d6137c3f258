import { Readable } from 'node:stream';
import { describe, expect, it } from 'vitest';
import type { Change } from '#contracts/correction';
import { rigDocumentSchema } from '#contracts/rig';
import { newPlanSchema, takeSettingsSchema } from '#contracts/session-plan';
import { testApplication } from '../testing/application';
import type { Application } from '../wiring';

const NAMES = { maker: 'Oarlock', model: 'Purser', label: 'A' } as const;

/** A unit with a run of passage and silence, and a price. */
async function withRun(app: Application, names: { maker: string; model: string; label: string } = NAMES) {
  const plan = await app.plans.add(
    newPlanSchema.parse({
      title: 'A session',
      day: '2026-04-01',
      category: 'microphone',
      protocol: 'desk-voice',
      protocolVersion: 3,
      units: [{ ...names, source: 'own' }],
      withControl: false,
    }),
  );
  for (const step of ['speech', 'silence', 'rear'] as const) {
    const wav = await app.bench.take({
      talker: 'high',
      room: 'loft',
      microphone: 'even',
      interface: 'new',
      faults: [],
      playKind: step === 'silence' ? 'silence' : 'text',
      gainDb: 36,
      distanceM: step === 'silence' ? null : 0.15,
      angleDeg: step === 'rear' ? 180 : 0,
      seed: `${step}/${names.model}`,
    });
    const clip = await app.ingest.ingest(Readable.from([wav]), `${step}.wav`, { keepPart: false });
    const settings = takeSettingsSchema.parse({ gainDb: 36, voice: 'high' });
    const take = await app.booth.addTake(plan.slots[0].id, { step, clip: clip.sha256, settings, note: '' });
    await app.booth.decide(take.id, { state: 'kept', overruled: [] });
  }
  const { specimenId, runId } = await app.booth.finish(plan.slots[0].id, { withUndecided: false });
  await app.queue.idle();
  return { specimenId, runId };
}

const correct = (app: Application, change: Change) => app.corrections.correct({ change, reason: '' });
const sheetOf = (app: Application, id: string) => app.catalogue.sheet(id);
const gainToTarget = async (app: Application, id: string): Promise<number> =>
  (await sheetOf(app, id)).runs[0].measurements.find((m) => m.quantity === 'gainToTarget')?.value ?? NaN;

describe('corrections', () => {
  it('of the wind and the level at the input are undone like any; those that do not name them leave them alone', async () => {
    const app = await testApplication();
    const { specimenId } = await withRun(app);
    const first = async () => (await sheetOf(app, specimenId)).runs[0].takes[0];
    const { id: take, gainDb, distanceM, angleDeg, settings, note } = await first();
    const plain = { kind: 'take', take, gainDb, distanceM, angleDeg, settings, note } as const;
    const { id } = await app.corrections.correct({ change: { ...plain, windSpeedMs: 6.7, levelDbu: -20 }, reason: '' });
    expect((await app.corrections.list(specimenId))[0].text).toMatch(/level at the input not noted → −20 dBu, wind not noted → 6\.7 m\/s$/); // prettier-ignore
    await app.corrections.correct({ change: { ...plain, note: 'gusts' }, reason: '' });
    expect(await first()).toMatchObject({ windSpeedMs: 6.7, levelDbu: -20, note: 'gusts' });
    await app.corrections.undo((await app.corrections.list(specimenId))[0].id);
    await app.corrections.undo(id);
    expect(await first()).toMatchObject({ windSpeedMs: null, levelDbu: null, note });
  });

  it('of a gain measure the run anew, keep what stood before, and are undone', async () => {
    const app = await testApplication();
    const { specimenId } = await withRun(app);
    const before = await gainToTarget(app, specimenId);
    const [take] = (await sheetOf(app, specimenId)).runs[0].takes;
    const { distanceM, angleDeg, note } = take;
    const settings = { ...take.settings, pad: '−10' };
    const change: Change = { kind: 'take', take: take.id, gainDb: 30, distanceM, angleDeg, settings, note };
    const { id } = await app.corrections.correct({ change, reason: 'misread the knob' });
    expect((await gainToTarget(app, specimenId)) - before).toBeCloseTo(-6, 6);
    expect((await sheetOf(app, specimenId)).runs[0].takes[0]).toMatchObject({ gainDb: 30, settings: { pad: '−10' } });
    expect(await app.corrections.list(specimenId)).toMatchObject([
      {
        id,
        text: 'Take “Spoken passage, in front” of 2026-04-01: gain 36 dB → 30 dB, pad not noted → −10',
        reason: 'misread the knob',
        undoneAt: null,
      },
    ]);
    await app.corrections.undo(id);
    expect(await gainToTarget(app, specimenId)).toBeCloseTo(before, 9);
    expect((await app.corrections.list(specimenId))[0].undoneAt).not.toBeNull();
    await expect(app.corrections.undo(id)).rejects.toThrow(/undone already/);
    await expect(correct(app, { ...change, gainDb: 36, settings: take.settings })).rejects.toThrow(/Nothing differs/);
  }, 60_000);

  it('are undone in order: what was corrected again since stays', async () => {
    const app = await testApplication();
    const { specimenId } = await withRun(app);
    const first = await correct(app, { kind: 'unit-name', unit: specimenId, ...NAMES, label: 'B' });
    const second = await correct(app, { kind: 'unit-name', unit: specimenId, ...NAMES, label: 'C' });
    await expect(app.corrections.undo(first.id)).rejects.toThrow(/corrected again since/);
    await app.corrections.undo(second.id);
    await app.corrections.undo(first.id);
    expect((await sheetOf(app, specimenId)).row.label).toBe('A');
  }, 60_000);

  it('of a name reach the sessions, and never make two units one', async () => {
    const app = await testApplication();
    const { specimenId } = await withRun(app);
    const other = await app.scoring.addUnit({ maker: 'Marlfen', model: 'Fen', label: 'A', category: 'microphone' });
    const names = { maker: 'Marlfen', model: 'Fen', label: 'A' };
    await expect(correct(app, { kind: 'unit-name', unit: specimenId, ...names })).rejects.toThrow(/already/);
    const planned = await app.plans.add(
      newPlanSchema.parse({
        title: 'Next',
        day: '2026-05-01',
        category: 'microphone',
        protocol: 'desk-voice',
        protocolVersion: 3,
        units: [{ ...NAMES, source: 'own' }],
        withControl: false,
      }),
    );
    await correct(app, { kind: 'unit-name', unit: specimenId, maker: 'Oarlock', model: 'Purser II', label: 'A' });
    expect((await sheetOf(app, specimenId)).row.model).toBe('Purser II');
    const view = await app.planPages.view(planned.row.id);
    expect([view.slots[0].unit.model, view.slots[0].specimenId, view.plan.units[0].model]).toEqual([
      'Purser II',
      specimenId,
      'Purser II',
    ]);
    expect((await app.catalogue.specimens()).map((s) => s.id).sort()).toEqual([specimenId, other.id].sort());
  }, 60_000);

  it('leave a take out with the figures that only it gave, but never the last one', async () => {
    const app = await testApplication();
    const { specimenId } = await withRun(app);
    const [run] = (await sheetOf(app, specimenId)).runs;
    const rear = run.takes.find((t) => t.step === 'rear')?.id ?? '';
    const rejection = async () =>
      (await sheetOf(app, specimenId)).runs[0].measurements.find((m) => m.quantity === 'rearRejection')?.value;
    expect(await rejection()).toBeGreaterThan(5);
    const { id } = await correct(app, { kind: 'take-left-out', take: rear, isOut: true });
    expect(await rejection()).toBeNull();
    expect((await sheetOf(app, specimenId)).runs[0].takes.map((t) => t.step)).toEqual(['speech', 'silence']);
    await expect(correct(app, { kind: 'take-left-out', take: rear, isOut: true })).rejects.toThrow(/left out already/);
    await app.corrections.undo(id);
    expect(await rejection()).toBeGreaterThan(5);
    for (const take of run.takes.slice(1)) await correct(app, { kind: 'take-left-out', take: take.id, isOut: true });
    const last = { kind: 'take-left-out', take: run.takes[0].id, isOut: true } as const;
    await expect(correct(app, last)).rejects.toThrow(/only take of its run/);
  }, 60_000);

  it('leave a run out of everything, refuse it a second time, and take it back', async () => {
    const app = await testApplication();
    const { specimenId, runId } = await withRun(app);
    expect(await app.catalogue.ranking('microphone')).toHaveLength(1);
    const { id } = await correct(app, { kind: 'run-left-out', run: runId, isOut: true });
    expect(await app.catalogue.ranking('microphone')).toHaveLength(0);
    expect((await sheetOf(app, specimenId)).runs).toEqual([]);
    expect((await sheetOf(app, specimenId)).row.takes).toBe(0);
    expect(await app.catalogue.sessions()).toEqual([]);
    await app.corrections.undo(id);
    expect(await app.catalogue.ranking('microphone')).toHaveLength(1);
  }, 60_000);

  it('move a run to the unit that it belongs to', async () => {
    const app = await testApplication();
    const { specimenId, runId } = await withRun(app);
    const { id: other } = await app.scoring.addUnit({ ...NAMES, label: 'B', category: 'microphone' });
    const { id: booster } = await app.scoring.addUnit({ ...NAMES, label: 'B', category: 'booster' });
    await expect(correct(app, { kind: 'run-moved', run: runId, unit: booster })).rejects.toThrow(/another kind/);
    const { id } = await correct(app, { kind: 'run-moved', run: runId, unit: other });
    expect((await sheetOf(app, other)).runs.map((r) => r.id)).toEqual([runId]);
    expect((await sheetOf(app, specimenId)).runs).toEqual([]);
    expect((await app.corrections.list(other)).map((c) => c.id)).toEqual([id]);
    await app.corrections.undo(id);
    expect((await sheetOf(app, specimenId)).runs.map((r) => r.id)).toEqual([runId]);
  }, 60_000);

  it('of a price change it, remove it, and take it back', async () => {
    const app = await testApplication();
    const { id: unit } = await app.scoring.addUnit({ ...NAMES, category: 'microphone' });
    await app.scoring.notePrice(unit, { amount: 129_950, currency: 'EUR', kind: 'street', date: '2026-04-01' });
    const [price] = (await sheetOf(app, unit)).prices;
    const fixed = { kind: 'price', price: price.id, amount: 1299.5, currency: 'EUR', priceKind: 'street', date: '2026-04-01', region: 'EU', tax: 'with', shop: '', note: '' } as const; // prettier-ignore
    await correct(app, fixed);
    expect((await sheetOf(app, unit)).prices).toMatchObject([{ amount: 1299.5 }]);
    expect((await app.corrections.list(unit))[0].text).toBe(
      'Price: amount 129950 EUR → 1299.5 EUR, region not noted → EU, tax not noted → with',
    );
    const { id } = await correct(app, { kind: 'price-left-out', price: price.id, isOut: true });
    expect((await sheetOf(app, unit)).prices).toEqual([]);
    await app.corrections.undo(id);
    expect((await sheetOf(app, unit)).prices).toHaveLength(1);
  });

  it('of a price that was removed are not undone by noting it again, and another shop’s is another price', async () => {
    const app = await testApplication();
    const { id: unit } = await app.scoring.addUnit({ ...NAMES, category: 'microphone' });
    const price = { amount: 99, currency: 'EUR', kind: 'street', date: '2026-04-01' } as const;
    await app.scoring.notePrice(unit, price);
    await app.scoring.notePrice(unit, { ...price, note: 'on the phone' });
    await app.scoring.notePrice(unit, { ...price, shop: 'by mail' });
    const noted = (await sheetOf(app, unit)).prices;
    expect(noted.map((p) => [p.shop, p.note])).toEqual([['by mail', undefined], [undefined, 'on the phone']]); // prettier-ignore
    await correct(app, { kind: 'price-left-out', price: noted[1].id, isOut: true });
    await expect(app.scoring.notePrice(unit, price)).rejects.toThrow(/was removed; take it back/);
    expect((await sheetOf(app, unit)).prices).toHaveLength(1);
  });

  it('of a rig change it in place as long as nothing was made on it; no second card comes from it', async () => {
    const app = await testApplication();
    const document = rigDocumentSchema.parse({ name: 'Desk', since: '2026-01-01', sampleRateHz: 8000 });
    const rig = await app.rigs.add(document);
    await correct(app, { kind: 'rig', rig: rig.id, document: { ...document, sampleRateHz: 48_000 } });
    expect((await app.rigs.list()).map((r) => r.document.sampleRateHz)).toEqual([48_000]);
  });

  it('remove a session that nothing was made in, and no other', async () => {
    const app = await testApplication();
    const { runId } = await withRun(app);
    expect(runId).toBeTruthy();
    const [used] = await app.planPages.list();
    await expect(correct(app, { kind: 'session-left-out', session: used.id, isOut: true })).rejects.toThrow(/it stays/);
    const unused = await app.plans.add(
      newPlanSchema.parse({
        title: 'Never held',
        day: '2026-05-01',
        category: 'microphone',
        protocol: 'desk-voice',
        protocolVersion: 3,
        units: [{ ...NAMES, source: 'own' }],
        withControl: false,
      }),
    );
    const { id } = await correct(app, { kind: 'session-left-out', session: unused.row.id, isOut: true });
    expect((await app.planPages.list()).map((p) => p.id)).toEqual([used.id]);
    expect((await app.corrections.list(null))[0].text).toBe('Session “Never held” removed');
    await app.corrections.undo(id);
    expect(await app.planPages.list()).toHaveLength(2);
  }, 60_000);

  it('refuse what is not there', async () => {
    const app = await testApplication();
    await expect(correct(app, { kind: 'run-left-out', run: '99', isOut: true })).rejects.toThrow(/no such run/);
    await expect(correct(app, { kind: 'test-left-out', test: '99', isOut: true })).rejects.toThrow(/no such test/);
    await expect(app.corrections.undo('99')).rejects.toThrow(/no such correction/);
  });
});
