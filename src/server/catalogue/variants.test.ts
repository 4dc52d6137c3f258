import { expect, it } from 'vitest';
import { EventHub } from '../platform/event-hub';
import { Memories } from '../platform/memory';
import { runDocument, temporaryFolder, testApplication, writeRunFolder } from '../testing/application';
import type { Application } from '../wiring';
import { Catalogue } from './catalogue';
import { unitExport } from './unit-export';

const day = (date: string) => () => new Date(`${date}T12:00:00Z`);

/** A unit A that was tested, and what stands in the ranking. */
async function tested(options: Parameters<typeof testApplication>[0] = {}) {
  const app = await testApplication(options);
  const bring = async (label: string, change: object = {}, rejection = 12) => {
    const specimen = { ...runDocument().specimen, label, ...change };
    const document = runDocument({ specimen, prices: [], points: [] });
    const { specimenId } = await app.runImport.importFolder(writeRunFolder(temporaryFolder(), document, {}, rejection));
    await app.queue.idle();
    return specimenId;
  };
  const unit = await bring('A');
  const ranked = async () => (await app.catalogue.ranking('microphone')).map((r) => r.id).sort();
  const family = async (id: string) => (await app.catalogue.specimen(id)).family;
  return { app, bring, unit, ranked, family };
}

/** The answer of a catalogue that knows nothing from before. */
async function sameAsAnew({ catalogue, database, pool, rigs, scale, clock }: Application): Promise<void> {
  const anew = new Catalogue(database, pool, rigs, scale, new Memories(new EventHub()), clock);
  expect(await catalogue.specimens()).toEqual(await anew.specimens());
  expect(await catalogue.rankingInputs('microphone')).toEqual(await anew.rankingInputs('microphone'));
}

it('a configuration has runs of its own, and the price, points and sheet of its unit until it has its own', async () => {
  const { app, bring, unit, ranked, family } = await tested();
  await app.scoring.notePrice(unit, { amount: 90, currency: 'EUR', kind: 'street', date: '2026-05-01' });
  await app.scoring.givePoints(unit, { criterion: 'build', value: 3 });
  expect(await family(unit)).toBeNull();
  const { id } = await app.variants.add(unit, { configuration: 'USB', varies: 'connection' });
  expect(await app.catalogue.specimen(id)).toMatchObject({ label: 'A, USB', model: 'Purser', price: { amount: 90 } });
  expect(await family(id)).toEqual({ main: unit, configuration: 'USB', varies: 'connection', counts: false });
  expect(await family(unit)).toEqual({ main: unit, configuration: '', varies: null, counts: true });
  // A run by its name is its run, and the figures are its own.
  expect(await bring('A, USB', {}, 4)).toBe(id);
  const rejection = async (of: string) =>
    (await app.catalogue.specimen(of)).figures.find((f) => f.quantity === 'rearRejection')?.value;
  expect(await rejection(unit)).toBeCloseTo(12, 0);
  expect(await rejection(id)).toBeCloseTo(4, 0);
  expect(await ranked()).toEqual([unit]);
  await sameAsAnew(app);
  await app.variants.count(unit, { counts: 'each' });
  const facts = (await app.catalogue.rankingInputs('microphone')).units.find((u) => u.id === id);
  expect([facts?.prices[0].amount, facts?.byHand['build'].value]).toEqual([90, 3]);
  // It is one piece of gear: put away as the one, the other is away.
  const onDesk = async () => [(await app.catalogue.specimen(unit)).onDesk, (await app.catalogue.specimen(id)).onDesk];
  await app.scoring.setCustody(id, true);
  expect(await onDesk()).toEqual([true, true]);
  await app.scoring.setCustody(unit, false);
  expect(await onDesk()).toEqual([false, false]);
  await app.scoring.notePrice(id, { amount: 120, currency: 'EUR', kind: 'street', date: '2026-05-02' });
  await app.scoring.givePoints(id, { criterion: 'build', value: 4 });
  expect([(await app.catalogue.specimen(id)).price?.amount, (await app.catalogue.specimen(unit)).price?.amount]).toEqual([120, 90]); // prettier-ignore
  await sameAsAnew(app);
});

it('one configuration stands in rankings, or each, by the day on which that was said', async () => {
  let today = '2026-05-03';
  const { app, bring, unit, ranked } = await tested({ now: () => day(today)() });
  const { id } = await app.variants.add(unit, { configuration: 'figure of eight', varies: 'pattern' });
  await bring('A, figure of eight', {}, 4);
  expect(await ranked()).toEqual([unit]);
  today = '2026-05-10';
  await app.variants.count(unit, { counts: id });
  expect(await ranked()).toEqual([id]);
  await sameAsAnew(app);
  today = '2026-05-20';
  // Asked of a configuration, it holds for the unit.
  await app.variants.count(id, { counts: 'each' });
  expect(await ranked()).toEqual([unit, id].sort());
  const on = async (date: string) =>
    (await app.catalogue.rankingOnDay('microphone', date)).inputs.units.map((u) => u.id).sort();
  expect([await on('2026-05-09'), await on('2026-05-10'), await on('2026-05-20')]).toEqual([[unit], [id], [unit, id].sort()]); // prettier-ignore
});

it('what cannot be is refused by the field', async () => {
  const { app, bring, unit } = await tested();
  const { id } = await app.variants.add(unit, { configuration: 'USB', varies: 'connection' });
  const add = (of: string, configuration: string) => app.variants.add(of, { configuration, varies: 'switch' });
  await expect(add(id, 'loud')).rejects.toThrow(/is a configuration itself/);
  await expect(add(unit, 'USB')).rejects.toThrow(/A, USB already/);
  await expect(add('99', 'USB')).rejects.toThrow(/no unit with the number 99/);
  const long = await bring('x'.repeat(100));
  await expect(add(long, 'y'.repeat(50))).rejects.toThrow(/too long for a label/);
  await expect(app.variants.count(unit, { counts: long })).rejects.toThrow(/no configuration of this one/);
  expect((await app.catalogue.specimens()).map((r) => r.label)).toEqual(['A', 'A, USB', 'x'.repeat(100)]);
});

it('two units that were entered are one in two configurations, or two after all', async () => {
  const { app, bring, unit, ranked, family } = await tested();
  const [other, winch] = [
    await bring('B', {}, 4),
    (await app.scoring.addUnit({ maker: 'Oarlock', model: 'Winch', label: 'A', category: 'booster' })).id,
  ];
  const variant = (of: string) => ({ of, configuration: 'USB', varies: 'connection' as const });
  const correct = (id: string, to: ReturnType<typeof variant> | null) =>
    app.corrections.correct({ change: { kind: 'unit-variant', unit: id, variant: to }, reason: '' });
  expect(await ranked()).toEqual([unit, other].sort());
  await expect(correct(other, variant(other))).rejects.toThrow(/no configuration of itself/);
  await expect(correct(winch, variant(unit))).rejects.toThrow(/another kind/);
  await expect(correct(other, null)).rejects.toThrow(/stands by itself already/);
  const { id: correction } = await correct(other, variant(unit));
  await expect(correct(other, variant(unit))).rejects.toThrow(/noted already/);
  await expect(correct(unit, variant(other))).rejects.toThrow(/is a configuration itself/);
  expect([await ranked(), (await family(other))?.configuration]).toEqual([[unit], 'USB']);
  await sameAsAnew(app);
  // The one that counts stands by itself again: the unit counts for itself.
  await app.variants.count(unit, { counts: other });
  expect(await ranked()).toEqual([other]);
  await app.corrections.undo(correction);
  expect([await ranked(), await family(other), await family(unit)]).toEqual([[unit, other].sort(), null, null]);
  await sameAsAnew(app);
  expect((await app.corrections.list(other)).map((c) => c.text)).toEqual([
    'Oarlock Purser · B is Oarlock Purser · A in another configuration: USB',
  ]);
});

it('configurations go along when their unit is merged, and come back; a unit that has some is not deleted', async () => {
  const { app, bring, unit, family } = await tested();
  const { id } = await app.variants.add(unit, { configuration: 'USB', varies: 'connection' });
  const into = await bring('B', {}, 4);
  const change = { kind: 'unit-merged', unit, into, isMerged: true } as const;
  const { id: merge } = await app.corrections.correct({ change, reason: '' });
  expect((await family(id))?.main).toBe(into);
  await app.corrections.undo(merge);
  expect((await family(id))?.main).toBe(unit);
  expect(await family(into)).toBeNull();
  // Into its own configuration: that would be a configuration of itself.
  await expect(
    app.corrections.correct({ change: { kind: 'unit-merged', unit, into: id, isMerged: true }, reason: '' }),
  ).rejects.toThrow(/has configurations/);
  const preview = await app.removals.preview('unit', unit);
  expect(preview.refusal).toMatch(/other configurations, USB for one/);
  await app.variants.count(unit, { counts: id });
  const { unit: name } = await app.removals.preview('unit', id);
  await app.removals.remove({ what: 'unit', id, name, reason: '' });
  expect((await app.catalogue.ranking('microphone')).map((r) => r.id).sort()).toEqual([unit, into].sort());
  expect(await family(unit)).toBeNull();
  await sameAsAnew(app);
});

it('a run document says that its unit is a configuration of another one, and brings that in with it', async () => {
  const app = await testApplication();
  // The unit is there already, and known: it has a configuration from then on.
  const { specimenId: known } = await app.runImport.importFolder(writeRunFolder(temporaryFolder(), runDocument()));
  await app.queue.idle();
  expect((await app.catalogue.specimen(known)).family).toBeNull();
  await app.scoring.setCustody(known, false);
  const ofKnown = { label: 'A', configuration: 'omni', varies: 'pattern' } as const;
  const plain = { ...runDocument().specimen, label: 'A, omni', variantOf: ofKnown };
  await app.runImport.importFolder(writeRunFolder(temporaryFolder(), runDocument({ specimen: plain, prices: [] })));
  await app.queue.idle();
  expect(await app.catalogue.specimen(known)).toMatchObject({ family: { main: known, counts: true }, onDesk: true });
  await sameAsAnew(app);
  await app.scoring.addUnit({ ...plain, label: 'A, wide', variantOf: { ...ofKnown, configuration: 'wide' } });
  expect((await app.catalogue.specimens()).map((r) => r.family?.configuration)).toEqual(['', 'omni', 'wide']);
  const variantOf = { label: 'C', configuration: 'USB', varies: 'connection' } as const;
  const specimen = { ...runDocument().specimen, label: 'C, USB', variantOf };
  const { specimenId } = await app.runImport.importFolder(
    writeRunFolder(temporaryFolder(), runDocument({ specimen, prices: [], points: [] })),
  );
  const rows = (await app.catalogue.specimens()).filter((r) => r.label.startsWith('C'));
  expect(rows.map((r) => [r.label, r.family?.configuration, r.stage === 'received'])).toEqual([['C', '', true], ['C, USB', 'USB', false]]); // prettier-ignore
  expect(rows[1].id).toBe(specimenId);
  // The way out says the same as the way in.
  expect(unitExport(await app.catalogue.sheet(specimenId)).unit).toEqual(specimen);
  expect(unitExport(await app.catalogue.sheet(rows[0].id)).unit.variantOf).toBeUndefined();
  const itself = runDocument({ specimen: { ...specimen, label: 'C' } });
  await expect(app.runImport.importFolder(writeRunFolder(temporaryFolder(), itself))).rejects.toMatchObject({
    details: [{ field: 'specimen.variantOf.label' }],
  });
});

it('goes by the name of its unit: renamed with it, and back; never onto a name that is taken', async () => {
  const { app, bring, unit } = await tested();
  const { id } = await app.variants.add(unit, { configuration: 'USB', varies: 'connection' });
  const other = await bring('B, USB');
  const name = async (of: string) => {
    const { maker, model, label } = await app.catalogue.specimen(of);
    return [maker, model, label].join(' ');
  };
  const rename = (change: { maker?: string; model?: string; label?: string }) =>
    app.corrections.correct({ change: { kind: 'unit-name', unit, maker: 'Oarlock', model: 'Purser', label: 'A', ...change }, reason: '' }); // prettier-ignore
  await expect(rename({ label: 'B' })).rejects.toMatchObject({ message: expect.stringContaining('Purser · B, USB already') as string }); // prettier-ignore
  await expect(rename({ label: 'A, USB' })).rejects.toMatchObject({ code: 'correction-refused' });
  expect([await name(unit), await name(id)]).toEqual(['Oarlock Purser A', 'Oarlock Purser A, USB']);
  await expect(rename({ label: 'x'.repeat(118) })).rejects.toMatchObject({ message: expect.stringContaining('too long') as string }); // prettier-ignore
  const { id: correction } = await rename({ maker: 'Oarlocke', label: 'C' });
  expect([await name(unit), await name(id), await name(other)]).toEqual(['Oarlocke Purser C', 'Oarlocke Purser C, USB', 'Oarlock Purser B, USB']); // prettier-ignore
  await sameAsAnew(app);
  expect((await app.corrections.list(unit)).map((c) => c.text).join()).toContain('its configuration as well');
  await app.corrections.undo(correction);
  expect([await name(unit), await name(id)]).toEqual(['Oarlock Purser A', 'Oarlock Purser A, USB']);
  await sameAsAnew(app);
});
