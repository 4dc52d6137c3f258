import { readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { Readable } from 'node:stream';
import { encode } from 'jpeg-js';
import { describe, expect, it } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { PLAIN_PATHS } from '#contracts/http';
import { problemSchema } from '#contracts/problem';
import type { Database } from '../platform/db/database';
import { Integrity } from './integrity';
import { runDocument, serve, takeWav, temporaryFolder, testApplication, writeRunFolder } from '../testing/application';

const WAV = takeWav(-14, -70);

describe('a clip whose bytes have changed', () => {
  it('is not played, is named, and is mended by uploading the original', async () => {
    const app = await testApplication();
    const address = await serve(app);
    const upload = (): Promise<{ sha256: string }> =>
      app.ingest.ingest(Readable.from([Buffer.from(WAV)]), 'speech.wav', { keepPart: false });
    const { sha256 } = await upload();
    const path = (await app.store.find(sha256)) as string;
    const bytes = readFileSync(path);
    bytes[1000] ^= 1;
    writeFileSync(path, bytes);
    const play = (): Promise<Response> => fetch(address + PLAIN_PATHS.audio.replace(':sha256', sha256));
    const refused = await play();
    expect(refused.status).toBe(409);
    expect(refused.headers.get('cache-control') ?? '').not.toContain('immutable');
    expect(problemSchema.parse(await refused.json()).error.next).toMatch(/Upload the original/);

    await app.integrity.checkAll();
    expect((await app.integrity.state()).setAside).toMatchObject([{ kind: 'clip', problem: expect.stringMatching(/changed/) as string }]); // prettier-ignore
    await upload();
    expect((await app.integrity.state()).setAside).toEqual([]);
    expect((await play()).status).toBe(200);
    await app.integrity.checkAll();
    expect(await app.integrity.state()).toMatchObject({ clips: 1, checked: 1, setAside: [] });
  });

  it('or that is gone: a run with it is refused, and the start names it', async () => {
    const folder = temporaryFolder();
    const app = await testApplication({ folder });
    const clips: Record<string, string> = {};
    for (const [name, bytes] of [
      ['speech.wav', WAV],
      ['silence.wav', takeWav(null, -70, 5)],
      ['rear.wav', takeWav(-26, -70, 9)],
    ] as const)
      // prettier-ignore
      clips[name] = (await app.ingest.ingest(Readable.from([Buffer.from(bytes)]), name, { keepPart: false })).sha256;
    rmSync((await app.store.find(clips['rear.wav'])) as string);
    await expect(app.runImport.importUploaded({ document: runDocument(), clips })).rejects.toMatchObject({
      details: [{ file: 'rear.wav', message: expect.stringMatching(/missing|damaged/) as string }],
    });
    await app.integrity.look();
    expect((await app.integrity.state()).setAside.map((s) => s.name)).toEqual([
      `rear.wav (${clips['rear.wav'].slice(0, 12)}…)`,
    ]);
  });
});

describe('what lies beside the clips', () => {
  const folderOf = (folder: string, shelf: string) =>
    readdirSync(join(folder, shelf), { recursive: true, withFileTypes: true }).filter((e) => e.isFile()).map((e) => join(e.parentPath, e.name)); // prettier-ignore
  const jpeg = Buffer.from(encode({ data: Buffer.alloc(8 * 8 * 4, 90), width: 8, height: 8 }, 90).data);
  const photo = { subject: 'unit', caption: 'In its case', date: '2026-05-01' } as const;

  it('a photograph that was changed, or is gone, is named, and mended by bringing it in again', async () => {
    const folder = temporaryFolder();
    const app = await testApplication({ folder });
    const { id } = await app.scoring.addUnit({ maker: 'Oarlock', model: 'Purser', label: 'A', category: 'microphone' });
    const bring = () => app.photographs.add(id, Readable.from([jpeg]), photo);
    await bring();
    await app.integrity.checkAll();
    expect(await app.integrity.state()).toMatchObject({ files: 1, filesChecked: 1, setAside: [] });
    const [path] = folderOf(folder, 'photos');
    const bytes = readFileSync(path);
    bytes[20] ^= 1;
    writeFileSync(path, bytes);
    // A month later.
    expect(await app.integrity.checkNext(new Date(Date.now() + 31 * 24 * 3_600_000))).toBe(true);
    expect((await app.integrity.state()).setAside).toMatchObject([{ kind: 'photograph', name: expect.stringMatching(/^In its case \(/) as string, problem: expect.stringMatching(/changed/) as string }]); // prettier-ignore
    await bring();
    expect(readFileSync(path)).not.toEqual(bytes);
    // It is the next one to be read, whenever that is.
    expect(await app.integrity.state()).toMatchObject({ files: 1, filesChecked: 0 });
    expect(await app.integrity.checkNext(new Date(0))).toBe(true);
    expect((await app.integrity.state()).setAside).toEqual([]);
    expect(await app.integrity.checkNext(new Date(0))).toBe(false);
    rmSync(path);
    await app.integrity.look();
    expect((await app.integrity.state()).setAside).toMatchObject([{ kind: 'photograph', problem: expect.stringMatching(/missing/) as string }]); // prettier-ignore
  });

  it('the original of a decoded clip is read as well; a file that nothing needs is named', async () => {
    const folder = temporaryFolder();
    const app = await testApplication({ folder });
    const mp3 = readFileSync('src/worker/testing/tone.mp3');
    await app.ingest.ingest(Readable.from([mp3]), 'tone.mp3', { keepPart: false });
    await app.integrity.checkAll();
    expect(await app.integrity.state()).toMatchObject({ clips: 1, files: 1, filesChecked: 1, setAside: [] });
    const [path] = folderOf(folder, 'originals');
    writeFileSync(path, mp3.subarray(1));
    // Left by a process that ended between the file and its record.
    writeFileSync(join(dirname(path), `${'0'.repeat(64)}.mp3`), mp3);
    await app.integrity.look();
    const { setAside } = await app.integrity.state();
    expect(setAside.map((s) => s.kind).sort()).toEqual(['file', 'original']);
    expect(setAside.find((s) => s.kind === 'file')?.name).toMatch(/^originals/);
    await app.ingest.ingest(Readable.from([mp3]), 'tone.mp3', { keepPart: false });
    await app.integrity.checkNext(new Date(0));
    expect((await app.integrity.state()).setAside.map((s) => s.kind)).toEqual(['file']);
  });
});

describe('one bad thing', () => {
  it('samples of 1e30 are refused with their place', async () => {
    const app = await testApplication();
    const samples = new Float64Array(16_000);
    samples[4_000] = -1e30;
    const bytes = encodeWav([samples], 16_000, 'float32');
    await expect(
      app.ingest.ingest(Readable.from([Buffer.from(bytes)]), 'odd.wav', { keepPart: false }),
    ).rejects.toThrow(/Channel 1 .*-1\.0e\+30 times full scale at 0\.2500 s/);
  });

  it('an analysis that cannot be read spoils neither the start, nor the unit, nor the others', async () => {
    const folder = temporaryFolder();
    const app = await testApplication({ folder });
    const { specimenId } = await app.runImport.importFolder(writeRunFolder(temporaryFolder()));
    await app.queue.idle();
    await app.database.query(
      "UPDATE analysis SET summary = '{\"odd\": null}', detail = '{}' WHERE id = (SELECT min(id) FROM analysis)",
    );
    await app.database.query('UPDATE measurement SET algorithm_version = 0');
    await app.database.query('UPDATE run_measured SET algorithm_version = 0');
    await app.queue.recover();
    await app.queue.idle();
    const { setAside } = await app.integrity.state();
    expect(setAside).toMatchObject([{ kind: 'run', name: expect.stringMatching(/^run \d+$/) as string }]);
    const sheet = await app.catalogue.sheet(specimenId);
    const states = sheet.runs[0].takes.map((t) => t.analysis.status).sort();
    expect(states).toEqual(['done', 'done', 'failed']);
    // Measuring it again mends it.
    await app.queue.retry(sheet.runs[0].takes.find((t) => t.analysis.status === 'failed')?.analysis.id ?? '');
    await app.queue.idle();
    const mended = await app.catalogue.sheet(specimenId);
    expect(mended.runs[0].takes.every((t) => t.analysis.status === 'done')).toBe(true);
    expect((await app.integrity.state()).setAside).toEqual([]);
  });
});

describe('figures of a run', () => {
  it('that others replace stay, with the moment they ceased to count', async () => {
    const app = await testApplication();
    const { specimenId } = await app.runImport.importFolder(writeRunFolder(temporaryFolder()));
    await app.queue.idle();
    const take = (await app.catalogue.sheet(specimenId)).runs[0].takes.find((t) => t.step === 'silence');
    const figure = async (): Promise<unknown> =>
      (await app.catalogue.sheet(specimenId)).runs[0].measurements.find((m) => m.quantity === 'noiseReSpeechA')?.value;
    const before = await figure();
    const rows = async (): Promise<{ value: number; gone: boolean }[]> =>
      app.database.query("SELECT value, superseded_at IS NOT NULL AS gone FROM measurement WHERE quantity = 'noiseReSpeechA' ORDER BY id"); // prettier-ignore
    expect(await rows()).toEqual([{ value: before, gone: false }]);
    const speech = (await app.catalogue.sheet(specimenId)).runs[0].takes.find((t) => t.step === 'speech');
    await app.takePages.chooseSegments(speech?.id ?? '', { speech: [{ startS: 0.5, endS: 1 }], silence: [{ startS: 3.3, endS: 3.9 }], events: [] }); // prettier-ignore
    await app.takePages.chooseSegments(take?.id ?? '', {
      speech: [],
      silence: [{ startS: 0.5, endS: 1.5 }],
      events: [],
    });
    const after = await figure();
    expect(after).not.toBe(before);
    const kept = await rows();
    expect(kept.length).toBeGreaterThan(1);
    expect(kept[0]).toEqual({ value: before, gone: true });
    expect(kept.filter((r) => !r.gone)).toEqual([{ value: after, gone: false }]);
    // The same again adds nothing.
    await app.queue.measureRun((await app.catalogue.sheet(specimenId)).runs[0].id);
    expect(await rows()).toEqual(kept);
  });
});

describe('the quiet reading', () => {
  /** An integrity over a database whose first question is answered when the test says so. */
  function asked() {
    const reports: unknown[] = [];
    let fail: (error: Error) => void = () => undefined;
    let ask: () => void = () => undefined;
    const isAsked = new Promise<void>((resolve) => (ask = resolve));
    const query = () =>
      new Promise<never>((_, reject) => {
        fail = reject;
        ask();
      });
    const none = undefined as never;
    const integrity = new Integrity('', { query } as unknown as Database, none, [], none, none, () => new Date(), (e) => reports.push(e)); // prettier-ignore
    integrity.start(0);
    return { integrity, reports, isAsked, fail: () => fail(new Error('closed')) };
  }
  const settled = () => new Promise((resolve) => setImmediate(resolve));

  it('reports what goes wrong, but not that the archive was closed under it', async () => {
    const open = asked();
    await open.isAsked;
    open.fail();
    await settled();
    expect(open.reports).toHaveLength(1);
    await open.integrity.close();
    const closed = asked();
    await closed.isAsked;
    await closed.integrity.close();
    closed.fail();
    await settled();
    expect(closed.reports).toEqual([]);
  });
});
