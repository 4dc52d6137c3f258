import { expect, it } from 'vitest';
import type { NewCorrection } from '#contracts/correction';
import { newRelationSchema } from '#contracts/relation';
import { rigDocumentSchema } from '#contracts/rig';
import { runDocument, temporaryFolder, testApplication, writeRunFolder } from '../testing/application';
import { EventHub } from '../platform/event-hub';
import { Memories } from '../platform/memory';
import type { Application } from '../wiring';
import { Catalogue } from './catalogue';

/** The answer of a catalogue that knows nothing from before. */
async function anew(application: Application) {
  const { database, pool, rigs, scale, clock } = application;
  return everything(new Catalogue(database, pool, rigs, scale, new Memories(new EventHub()), clock));
}

async function everything(catalogue: Catalogue) {
  const rows = await catalogue.specimens();
  return {
    rows,
    ranking: await catalogue.ranking('microphone'),
    interfaces: await catalogue.ranking('interface'),
    inputs: await catalogue.rankingInputs('microphone'),
    sheets: await Promise.all(rows.map((row) => catalogue.sheet(row.id))),
  };
}

it('answers after every change as a catalogue would that begins anew', async () => {
  const application = await testApplication();
  const { catalogue, runImport, scoring, corrections, queue } = application;
  const specimen = (label: string) => ({ ...runDocument().specimen, label });
  const bring = async (label: string, change: Parameters<typeof runDocument>[0] = {}, rejection = 12) => {
    const document = runDocument({ specimen: specimen(label), ...change });
    const result = await runImport.importFolder(writeRunFolder(temporaryFolder(), document, {}, rejection));
    await queue.idle();
    return result;
  };
  const correct = (change: NewCorrection['change']) => corrections.correct({ change, reason: '' });
  const a = await bring('A');
  const sameAsAnew = async (what: string) => {
    expect(await everything(catalogue), what).toEqual(await anew(application));
  };
  await sameAsAnew('the first unit');
  const b = await bring('B', { points: [] }, 4);
  await sameAsAnew('a second one without points');
  await bring('A', { date: '2026-05-09' }, 10);
  await sameAsAnew('another reading of the first: the scatter of its kind');
  await bring('A', { date: '2026-01-09' }, 15);
  await sameAsAnew('an older reading: what counts stays, the scatter does not');
  await bring('B', { date: '2026-05-10', protocolVersion: 2 }, 6);
  await bring('A', { date: '2026-05-11', protocolVersion: 2 }, 9);
  await sameAsAnew('bridges to another version of the protocol');
  await scoring.notePrice(a.specimenId, { amount: 450, currency: 'EUR', kind: 'street', date: '2026-06-01' });
  await sameAsAnew('a price');
  await scoring.notePrice(a.specimenId, { amount: 440, currency: 'EUR', kind: 'street', date: '2026-06-02' });
  await scoring.givePoints(a.specimenId, { criterion: 'build', value: 3 });
  await sameAsAnew('a price and points at once');
  await application.relations.add(b.specimenId, newRelationSchema.parse({ kind: 'needs', other: a.specimenId }));
  await sameAsAnew('a unit that needs another one');
  await scoring.notePrice(a.specimenId, { amount: 430, currency: 'EUR', kind: 'street', date: '2026-06-03' });
  await sameAsAnew('a price of what another unit needs');
  const sheet = (field: string, value: number, unit: string) =>
    application.sheets.put(a.specimenId, {
      entries: [{ field, value: { type: 'number', value, unit, condition: '' } }],
      reason: '',
    });
  await sheet('weight', 612, 'g');
  await sameAsAnew('a value in the data sheet');
  await sheet('sensitivity', 12, 'mV/Pa');
  await sameAsAnew('a sensitivity, by which figures move');
  await scoring.givePoints(b.specimenId, { criterion: 'build', value: 2 });
  await sameAsAnew('points, which others are missing');
  await scoring.setCustody(b.specimenId, false);
  await sameAsAnew('put away');
  const { id } = await scoring.addUnit(specimen('AA'));
  await sameAsAnew('a unit that nothing was recorded of, between the others');
  await correct({ kind: 'unit-name', unit: a.specimenId, maker: 'Zephyr', model: 'Purser', label: 'A' });
  await sameAsAnew('another name, and place in the list');
  await correct({ kind: 'run-moved', run: b.runId, unit: id });
  await sameAsAnew('a run of another unit');
  await correct({ kind: 'run-left-out', run: b.runId, isOut: true });
  await sameAsAnew('a run left out');
  const [correction] = await corrections.list(id);
  await corrections.undo(correction.id);
  await sameAsAnew('and taken back');
  const [run] = (await catalogue.sheet(a.specimenId)).runs;
  const { step, clip } = run.takes[0];
  expect(step).toBe('speech');
  await queue.chooseSegments(clip.sha256, { speech: [{ startS: 0.3, endS: 1.5 }], silence: [], events: [] });
  await sameAsAnew('other segments');
  const answers =
    'winner,loser,count\nZephyr Purser · A,Oarlock Purser · B,9\nOarlock Purser · B,Zephyr Purser · A,3\n';
  await application.answersImport.importCsv(answers, 'preference', 'microphone');
  await sameAsAnew('answers of listeners');
  expect((await catalogue.specimen(a.specimenId)).heardAnswers).toBe(12);
  await application.rigs.add(
    rigDocumentSchema.parse({ name: 'Desk', since: '2026-01-01', controlUnit: b.specimenId, interface: 'old' }),
  );
  expect((await catalogue.rankingInputs('microphone')).names[b.specimenId].isControl).toBe(true);
  await sameAsAnew('a rig with a control unit');
});
