import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { describe, expect, it } from 'vitest';
import { seededBits, uniform } from '#core/stats/random';
import type { Change } from '#contracts/correction';
import { rigDocumentSchema } from '#contracts/rig';
import { newTestSchema } from '#contracts/listening';
import { scaleRequestSchema } from '#contracts/scale';
import { runDocument, takeWav, temporaryFolder, testApplication, writeRunFolder } from '../testing/application';
import { importUnits } from '../testing/heard-catalogue';
import type { Application } from '../wiring';
import { TABLES_OF_UNITS } from './queries/unit-merge';

const correct = (app: Application, change: Change) => app.corrections.correct({ change, reason: '' });
const preference = scaleRequestSchema.parse({ category: 'microphone', attribute: 'preference' });

/** Everything that is known of units, table by table. */
async function everything(app: Application): Promise<Record<string, unknown[]>> {
  const all: Record<string, unknown[]> = {};
  for (const table of [...TABLES_OF_UNITS, 'every_specimen', 'heard_answer', 'every_take'])
    all[table] = await app.database.query(`SELECT * FROM ${table} ORDER BY id`);
  return all;
}

async function bring(app: Application, label: string, date: string, rejection = 12): Promise<string> {
  const document = runDocument({ specimen: { ...runDocument().specimen, label }, date });
  const { specimenId } = await app.runImport.importFolder(writeRunFolder(temporaryFolder(), document, {}, rejection));
  await app.queue.idle();
  return specimenId;
}

/** A listener who prefers the first clip of every pair. */
async function answerAll(app: Application, sitting: string): Promise<void> {
  for (let state = await app.sittings.state(sitting); state.trial; state = await app.sittings.state(sitting)) {
    const { kind, ordinal, codes } = state.trial;
    const answer = kind === 'familiarise' ? ({ kind } as const) : ({ kind: 'pair', preferred: codes[0] } as const);
    await app.sittings.heardElsewhere(sitting);
    await app.sittings.answer(sitting, { trial: ordinal, answer, words: {}, seconds: 4 });
  }
}

describe('two units that are one', () => {
  it('knows every table that holds facts of a unit', async () => {
    const app = await testApplication();
    const rows = await app.database.query<{ name: string }>(
      `SELECT DISTINCT c.table_name::text AS name FROM information_schema.columns c JOIN information_schema.tables t USING (table_name)
       WHERE c.column_name = 'specimen_id' AND c.table_schema = 'public' AND t.table_type = 'BASE TABLE'
         AND c.table_name <> 'unit_merge' ORDER BY 1`,
    );
    expect(rows.map((r) => r.name)).toEqual([...TABLES_OF_UNITS].sort());
  });

  it.each(['one', 'two'])(
    'loses no fact, counts none twice, and comes apart as it was (drawn from “%s”)',
    async (seed) => {
      const bits = seededBits(seed);
      const pick = <T>(list: readonly T[]): T => list[Math.floor(uniform(bits) * list.length)];
      const app = await testApplication();
      const { scoring, sheets } = app;
      const a = await bring(app, 'A', '2026-05-01');
      const b = await bring(app, 'B', '2026-05-02', 8);
      const c = await bring(app, 'C', '2026-05-03', 6);
      for (let i = 0; i < 12; i++) {
        const unit = pick([a, b]);
        const day = pick(['2026-05-01', '2026-05-04']);
        await pick([
          () => scoring.notePrice(unit, { amount: pick([50, 90]), currency: 'EUR', kind: 'street', date: day }),
          () => scoring.givePoints(unit, { criterion: pick(['build', 'features']), value: pick([1, 4]) }),
          () => scoring.setCustody(unit, pick([true, false])),
          () => sheets.put(unit, { entries: [{ field: 'weight', value: { type: 'number', value: pick([100, 200]), unit: 'g', condition: '' } }], reason: '' }), // prettier-ignore
        ])();
      }
      const names = [a, b, c].map((_, i) => `Oarlock Purser · ${'ABC'[i]}`);
      const lines = [[0, 2], [2, 1], [0, 1], [1, 2]].map(([w, l]) => `${names[w]},${names[l]},1`); // prettier-ignore
      await app.answersImport.importCsv(`winner,loser,outcome\n${lines.join('\n')}\n`, 'preference', 'microphone');
      const before = await everything(app);
      const scaleBefore = await app.scale.scale(preference);
      const sheetsBefore = [await app.catalogue.sheet(a), await app.catalogue.sheet(b)];

      const { id } = await correct(app, { kind: 'unit-merged', unit: b, into: a, isMerged: true });
      expect((await app.catalogue.specimens()).map((s) => s.id).sort()).toEqual([a, c].sort());
      const sheet = await app.catalogue.sheet(a);
      expect(sheet.runs).toHaveLength(2);
      const prices = new Set(sheetsBefore.flatMap((s) => s.prices.map((p) => `${p.amount} ${p.date} ${p.kind}`)));
      expect(sheet.prices.map((p) => `${p.amount} ${p.date} ${p.kind}`).sort()).toEqual([...prices].sort());
      expect(sheet.points).toHaveLength(sheetsBefore[0].points.length + sheetsBefore[1].points.length);
      expect(sheet.sheet).toHaveLength(sheetsBefore[0].sheet.length + sheetsBefore[1].sheet.length);
      // One of four answers held the two against each other.
      expect((await app.scale.scale(preference)).answers).toBe(3);
      expect((await app.catalogue.sheet(b)).row.id).toBe(a);
      expect((await app.corrections.list(a))[0].text).toBe(
        'Oarlock Purser · B merged into Oarlock Purser · A; an answer that held one against the other counts no longer',
      );

      await app.corrections.undo(id);
      expect(await everything(app)).toEqual(before);
      expect(await app.scale.scale(preference)).toEqual(scaleBefore);
      expect([await app.catalogue.sheet(a), await app.catalogue.sheet(b)]).toEqual(sheetsBefore);
    },
    60_000,
  );

  it('counts a run that was brought in under both names once', async () => {
    const app = await testApplication();
    const a = await bring(app, 'A', '2026-05-01');
    const b = await bring(app, 'B', '2026-05-01');
    const { id } = await correct(app, { kind: 'unit-merged', unit: b, into: a, isMerged: true });
    expect((await app.catalogue.sheet(a)).runs).toHaveLength(1);
    expect((await app.corrections.list(a))[0].text).toMatch(/a run that both had counts once/);
    await app.corrections.undo(id);
    expect((await app.catalogue.sheet(b)).runs).toHaveLength(1);
    expect((await app.catalogue.sheet(b)).runs[0].measurements.length).toBeGreaterThan(0);
  }, 60_000);

  it('goes on under both names: a later run, a plan and a file of answers mean the one unit', async () => {
    const app = await testApplication();
    const a = await bring(app, 'A', '2026-05-01');
    const b = await bring(app, 'B', '2026-05-02', 8);
    const c = await bring(app, 'C', '2026-05-03', 6);
    await correct(app, { kind: 'unit-merged', unit: b, into: a, isMerged: true });
    expect(await bring(app, 'B', '2026-05-06', 5)).toBe(a);
    expect((await app.catalogue.sheet(a)).runs).toHaveLength(3);
    const csv = 'winner,loser\nOarlock Purser · B,Oarlock Purser · C\n';
    await app.answersImport.importCsv(csv, 'preference', 'microphone');
    expect((await app.scale.scale(preference)).items.map((i) => i.id).sort()).toEqual([a, c].sort());
    // The one that stays takes the name of the other, and gives it its own.
    const rename = { kind: 'unit-name', unit: a, maker: 'Oarlock', model: 'Purser', label: 'B' } as const;
    const { id } = await correct(app, rename);
    expect((await app.catalogue.sheet(a)).row.label).toBe('B');
    expect(await bring(app, 'A', '2026-05-07', 4)).toBe(a);
    await app.corrections.undo(id);
    expect((await app.catalogue.sheet(a)).row.label).toBe('A');
  }, 60_000);

  it('is refused where it cannot be, in words, and comes apart in order', async () => {
    const app = await testApplication();
    const add = (label: string, category: 'microphone' | 'booster' = 'microphone') =>
      app.scoring.addUnit({ maker: 'Oarlock', model: 'Purser', label, category });
    const [{ id: a }, { id: b }, { id: c }, { id: other }] = [await add('A'), await add('B'), await add('C'), await add('D', 'booster')]; // prettier-ignore
    const merge = (unit: string, into: string, isMerged = true) =>
      correct(app, { kind: 'unit-merged', unit, into, isMerged });
    await expect(merge(a, a)).rejects.toThrow(/the same unit/);
    await expect(merge(a, other)).rejects.toThrow(/another kind/);
    await expect(merge(a, '99')).rejects.toThrow(/no unit with the number 99/);
    await expect(merge(a, b, false)).rejects.toThrow(/is no part of/);
    await app.rigs.add(rigDocumentSchema.parse({ name: 'Loft', since: '2026-01-01', controlUnit: c }));
    await expect(merge(c, a)).rejects.toThrow(/control unit of the rig “Loft”; merge the other one into it/);
    expect((await app.removals.preview('unit', c)).refusal).toMatch(/control unit of the rig “Loft”/);
    const first = await merge(a, b);
    await expect(merge(a, c)).rejects.toThrow(/part of another unit already/);
    await expect(merge(c, a)).rejects.toThrow(/is part of another unit itself/);
    const second = await merge(b, c);
    expect((await app.catalogue.sheet(a)).row.id).toBe(c);
    await expect(app.corrections.undo(first.id)).rejects.toThrow(/is part of another unit itself/);
    await app.corrections.undo(second.id);
    expect((await app.catalogue.sheet(a)).row.id).toBe(b);
    await app.corrections.undo(first.id);
    expect((await app.catalogue.specimens()).map((s) => s.id).sort()).toEqual([a, b, c, other].sort());
  });
});

describe('a file on the wrong step', () => {
  it('is exchanged with that of another step, or replaced, measured anew, and put back', async () => {
    const app = await testApplication();
    const id = await bring(app, 'A', '2026-05-01');
    const [run] = (await app.catalogue.sheet(id)).runs;
    const of = (step: string) => run.takes.find((t) => t.step === step)!;
    const rejection = async () =>
      (await app.catalogue.sheet(id)).runs[0].measurements.find((m) => m.quantity === 'rearRejection')?.value ?? NaN;
    const before = await rejection();
    expect(before).toBeGreaterThan(5);
    const swap = await correct(app, {
      kind: 'take-files',
      files: [
        { take: of('speech').id, clip: of('rear').clip.sha256 },
        { take: of('rear').id, clip: of('speech').clip.sha256 },
      ],
    });
    expect(await rejection()).toBeCloseTo(-before, 6);
    await app.corrections.undo(swap.id);
    expect(await rejection()).toBeCloseTo(before, 9);

    const quieter = await app.ingest.ingest(Readable.from([takeWav(-34, -70, 9)]), 'rear again.wav', { keepPart: false }); // prettier-ignore
    const replace: Change = { kind: 'take-files', files: [{ take: of('rear').id, clip: quieter.sha256 }] };
    const { id: replaced } = await correct(app, replace);
    await app.queue.idle();
    expect(await rejection()).toBeGreaterThan(before + 5);
    expect((await app.corrections.list(id))[0].text).toMatch(/is rear again\.wav \(was rear\.wav\)$/);
    await expect(correct(app, replace)).rejects.toThrow(/its file already/);
    await app.corrections.undo(replaced);
    expect(await rejection()).toBeCloseTo(before, 9);
    const unknown = { take: of('rear').id, clip: 'f'.repeat(64) };
    await expect(correct(app, { kind: 'take-files', files: [unknown] })).rejects.toThrow(/upload it first/);
    const otherRun = (await app.catalogue.sheet(await bring(app, 'B', '2026-05-02', 8))).runs[0].takes[0];
    const across = [{ take: of('rear').id, clip: otherRun.clip.sha256 }, { take: otherRun.id, clip: of('rear').clip.sha256 }]; // prettier-ignore
    await expect(correct(app, { kind: 'take-files', files: across })).rejects.toThrow(/different runs/);
  }, 60_000);
});

describe('a single answer', () => {
  it('is left out of the scale and taken back; tests that are still blind show none', async () => {
    const app = await testApplication();
    const units = await importUnits(app, 3);
    const [first, second] = units;
    const csv = `winner,loser\n${first.name},${second.name}\n${second.name},${first.name}\n`;
    await app.answersImport.importCsv(csv, 'preference', 'microphone');
    const [newest] = await app.unitAnswers.of(first.specimenId);
    expect(newest).toMatchObject({ names: [second.name, first.name], outcome: 1, source: 'import', isLeftOut: false });
    const { id } = await correct(app, { kind: 'answer-left-out', answer: newest.id, isOut: true });
    expect((await app.scale.scale(preference)).items[0].id).toBe(first.specimenId);
    expect((await app.unitAnswers.of(second.specimenId)).map((a) => a.isLeftOut)).toEqual([true, false]);
    await expect(correct(app, { kind: 'answer-left-out', answer: newest.id, isOut: true })).rejects.toThrow(/already/);
    await app.corrections.undo(id);
    expect((await app.scale.scale(preference)).answers).toBe(2);

    const test = newTestSchema.parse({ name: 'Spring', design: 'pairs', takes: units.map((u) => u.takeId), passage: { fromS: 0.5, lengthS: 3 } }); // prettier-ignore
    const { row } = await app.tests.create(test);
    await app.listeningClips.settled();
    const { sitting } = await app.sittings.join((await app.tests.page(row.id)).invitation, { name: 'Nell' });
    await answerAll(app, sitting);
    const all = async () => (await Promise.all(units.map((u) => app.unitAnswers.of(u.specimenId)))).flat();
    const blind = (await all()).length;
    await app.tests.reveal(row.id);
    expect((await all()).length).toBeGreaterThan(blind);
    expect((await all()).some((a) => a.test === 'Spring' && a.listener === 'Nell')).toBe(true);
  }, 60_000);
});

describe('deleting for good', () => {
  const clipFiles = (folder: string): string[] =>
    readdirSync(join(folder, 'clips')).flatMap((shelf) => readdirSync(join(folder, 'clips', shelf)));

  it('names what goes, asks for the name, and leaves a line and nothing else', async () => {
    const folder = temporaryFolder();
    const app = await testApplication({ folder });
    const kept = await bring(app, 'B', '2026-05-02', 8);
    const before = { rows: await everything(app), files: clipFiles(folder).sort() };
    const id = await bring(app, 'A', '2026-05-01');
    await app.scoring.notePrice(id, { amount: 40, currency: 'EUR', kind: 'used', date: '2026-05-03' });
    await app.answersImport.importCsv('winner,loser\nOarlock Purser · A,Oarlock Purser · B\n', 'preference', 'microphone'); // prettier-ignore
    const preview = await app.removals.preview('unit', id);
    expect(preview).toMatchObject({ title: 'Oarlock Purser · A', refusal: null });
    // Speech and silence are the other unit's clips as well; the rear take is its own.
    expect(preview.goes).toEqual(expect.arrayContaining(['one run', '3 takes', '2 prices', 'one answer of listeners']));
    expect(preview.goes).toContain('one clip: its file, waveform, segments and picture');
    expect(preview.stays[0]).toBe('2 clips that something else uses');

    const wrong = app.removals.remove({ what: 'unit', id, name: 'Purser', reason: '' });
    await expect(wrong).rejects.toThrow(/another name was typed/);
    expect((await app.catalogue.sheet(id)).runs).toHaveLength(1);

    const removal = await app.removals.remove({ what: 'unit', id, name: 'oarlock purser a', reason: 'not mine' });
    expect(await everything(app)).toEqual(before.rows);
    expect(clipFiles(folder).sort()).toEqual(before.files);
    expect(await app.removals.list()).toEqual([removal]);
    expect(removal).toMatchObject({ what: 'unit', text: 'Oarlock Purser · A', reason: 'not mine' });
    expect((await app.catalogue.specimens()).map((s) => s.id)).toEqual([kept]);
    expect((await app.catalogue.ranking('microphone')).map((r) => r.id)).toEqual([kept]);
    await expect(app.removals.preview('unit', id)).rejects.toThrow(/no such unit/);
    // It may come again, as something new.
    expect(await bring(app, 'A', '2026-05-01')).not.toBe(id);
  }, 60_000);

  it('of a take measures its run anew; of the last one it says to delete the run; of a run the unit stays', async () => {
    const app = await testApplication();
    const id = await bring(app, 'A', '2026-05-01');
    const take = async (step: string) => (await app.catalogue.sheet(id)).runs[0].takes.find((t) => t.step === step)!.id;
    const name = 'Oarlock Purser · A';
    await app.removals.remove({ what: 'take', id: await take('rear'), name, reason: '' });
    const sheet = await app.catalogue.sheet(id);
    expect(sheet.runs[0].takes.map((t) => t.step)).toEqual(['speech', 'silence']);
    expect(sheet.runs[0].measurements.find((m) => m.quantity === 'rearRejection')?.value ?? null).toBeNull();
    await app.removals.remove({ what: 'take', id: await take('silence'), name, reason: '' });
    const last = { what: 'take', id: await take('speech') } as const;
    expect((await app.removals.preview('take', last.id)).refusal).toMatch(/delete the whole run/);
    await expect(app.removals.remove({ ...last, name, reason: '' })).rejects.toThrow(/only take of its run/);
    await app.removals.remove({ what: 'run', id: (await app.catalogue.sheet(id)).runs[0].id, name, reason: '' });
    expect((await app.catalogue.sheet(id)).runs).toEqual([]);
    expect(await app.database.query('SELECT 1 FROM clip')).toEqual([]);
    expect((await app.removals.list()).map((r) => r.what)).toEqual(['run', 'take', 'take']);
  }, 60_000);

  it('takes the compressed file along that a clip was decoded from', async () => {
    const folder = temporaryFolder();
    const app = await testApplication({ folder });
    const mp3 = readFileSync(join(import.meta.dirname, '../../worker/testing/tone.mp3'));
    const takes = [{ step: 'speech', file: 'speech.mp3', gainDb: 40 }];
    const { specimenId } = await app.runImport.importFolder(writeRunFolder(temporaryFolder(), runDocument({ takes }), { 'speech.mp3': mp3 })); // prettier-ignore
    await app.queue.idle();
    const { origin, bytes } = (await app.catalogue.sheet(specimenId)).runs[0].takes[0].clip;
    const original = join(folder, 'originals', origin!.sha256.slice(0, 2), `${origin!.sha256}.mp3`);
    expect(existsSync(original)).toBe(true);
    expect((await app.removals.preview('unit', specimenId)).bytes).toBe(bytes + mp3.length);
    await app.removals.remove({ what: 'unit', id: specimenId, name: 'Oarlock Purser · A', reason: '' });
    expect(existsSync(original)).toBe(false);
  }, 60_000);

  it('waits for tests that can be answered; then a unit takes its tests along, and answers about others stay', async () => {
    const folder = temporaryFolder();
    const app = await testApplication({ folder });
    const units = await importUnits(app, 3);
    const test = newTestSchema.parse({ name: 'Spring', design: 'pairs', takes: units.map((u) => u.takeId), passage: { fromS: 0.5, lengthS: 3 } }); // prettier-ignore
    const { row } = await app.tests.create(test);
    await app.listeningClips.settled();
    const { sitting } = await app.sittings.join((await app.tests.page(row.id)).invitation, { name: 'Nell' });
    await answerAll(app, sitting);
    const [gone, ...others] = units;
    expect((await app.removals.preview('unit', gone.specimenId)).refusal).toMatch(/“Spring”.*close it first/);
    await app.tests.reveal(row.id);
    const kept = async () => (await app.unitAnswers.of(others[0].specimenId)).filter((a) => a.names.every((n) => n !== gone.name)); // prettier-ignore
    const about = (await kept()).length;
    expect(about).toBeGreaterThan(0);
    const prepared = join(folder, 'listening', row.id);
    expect(readdirSync(prepared).length).toBeGreaterThan(2);
    await app.removals.remove({ what: 'unit', id: gone.specimenId, name: gone.name, reason: '' });
    expect((await kept()).length).toBe(about);
    expect(readdirSync(prepared)).toEqual([]);
    expect(await app.tests.list()).toEqual([]);
    expect((await app.scale.scale(preference)).items.map((i) => i.id).sort()).toEqual(others.map((u) => u.specimenId).sort()); // prettier-ignore
  }, 60_000);

  it('goes on with files that a process left behind, and does not take them in again', async () => {
    const folder = temporaryFolder();
    const app = await testApplication({ folder });
    await bring(app, 'A', '2026-05-01');
    const [{ sha256 }] = await app.database.query<{ sha256: string }>('SELECT sha256 FROM clip ORDER BY sha256');
    // As it stands between the rows and the files.
    await app.database.query('DELETE FROM segment_choice');
    for (const [table, column] of [
      ['every_take', 'clip_sha256'],
      ['analysis', 'clip_sha256'],
      ['clip', 'sha256'],
    ])
      // prettier-ignore
      await app.database.query(`DELETE FROM ${table} WHERE ${column} = $1`, [sha256]);
    await app.database.query(
      `INSERT INTO removal (what, text, files, removed_at) VALUES ('take', 'a take', $1, now())`,
      [JSON.stringify([{ clip: sha256 }])],
    );
    const path = join(folder, 'clips', sha256.slice(0, 2), `${sha256}.wav`);
    expect(existsSync(path)).toBe(true);
    await app.removals.finish();
    expect(existsSync(path)).toBe(false);
    expect(await app.ingest.recover()).toMatchObject({ adopted: 0 });
    expect(await app.database.query(`SELECT 1 FROM removal WHERE files <> '[]'`)).toEqual([]);
  }, 60_000);
});
