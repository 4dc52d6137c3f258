import { mkdirSync, readdirSync, symlinkSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { Failure } from '../platform/failure';
import { runDocument, takeWav, temporaryFolder, testApplication, writeRunFolder } from '../testing/application';

async function refusal(work: Promise<unknown>): Promise<Failure> {
  try {
    await work;
  } catch (error) {
    if (error instanceof Failure) return error;
    throw error;
  }
  throw new Error('was not refused');
}

describe('importing a run folder', () => {
  it('measures it and puts the unit into the ranking', async () => {
    const application = await testApplication();
    const result = await application.runImport.importFolder(writeRunFolder(temporaryFolder()));
    expect(result.created).toBe(true);
    await application.queue.idle();
    const sheet = await application.catalogue.sheet(result.specimenId);
    expect(sheet.row).toMatchObject({
      maker: 'Oarlock',
      stage: 'scored',
      takes: 3,
      place: 1,
      onDesk: true,
      lastTested: '2026-05-02',
    });
    const figures = new Map(sheet.runs[0].measurements.map((m) => [m.quantity, m]));
    // Rear speech was made 12 dB weaker.
    expect(Math.abs((figures.get('rearRejection')?.value ?? 0) - 12)).toBeLessThan(0.5);
    expect(figures.get('noiseReSpeechA')?.uncertainty).toBeGreaterThan(0);
    expect(sheet.runs[0].takes.map((t) => [t.step, t.analysis.status])).toEqual([
      ['speech', 'done'],
      ['silence', 'done'],
      ['rear', 'done'],
    ]);
    expect(sheet.prices).toMatchObject([{ amount: 129, currency: 'EUR', kind: 'street', date: '2026-05-01' }]);
    expect((await application.catalogue.ranking('microphone'))[0]).toMatchObject({
      place: 1,
      stratum: 1,
      specimen: 'Oarlock Purser · A',
      rank90: [1, 1],
      points: { features: 4, build: 3.5, sound: 4 },
    });
  });

  it('fills in the second time what was not filled in the first time, and overwrites nothing', async () => {
    const application = await testApplication();
    const cells = (value: number) => [{ row: '48 kHz', column: '64', value, source: 'typed' as const, clip: null }];
    const bring = (tables: ReturnType<typeof runDocument>['tables']) =>
      application.runImport.importFolder(
        writeRunFolder(
          temporaryFolder(),
          runDocument({
            specimen: { maker: 'Oarlock', model: 'Sluice', label: 'A', category: 'interface' },
            protocol: 'input-stage',
            takes: [{ step: 'noise-150', file: 'silence.wav', gainDb: 60 }],
            ...{ tables, points: [] },
          }),
        ),
      );
    const filled = async (id: string) =>
      (await application.catalogue.sheet(id)).runs.map((r) =>
        r.tables.flatMap((t) => t.cells.map((c) => [t.step, c.value])),
      );
    const { specimenId } = await bring([]);
    await application.queue.idle();
    expect(await filled(specimenId)).toEqual([[]]);
    expect(await bring([{ step: 'latency', cells: cells(5) }])).toMatchObject({ created: false, specimenId });
    expect(await filled(specimenId)).toEqual([[['latency', 5]]]);
    await bring([{ step: 'latency', cells: cells(6) }]);
    expect(await filled(specimenId)).toEqual([[['latency', 5]]]);
  });

  it('changes nothing the second time, and counts renamed files as the same run', async () => {
    const application = await testApplication();
    const first = await application.runImport.importFolder(writeRunFolder(temporaryFolder()));
    await application.queue.idle();
    const before = await application.catalogue.sheet(first.specimenId);
    const again = await application.runImport.importFolder(writeRunFolder(temporaryFolder()));
    expect(again).toEqual({ ...first, created: false });
    expect(await application.catalogue.sheet(first.specimenId)).toEqual(before);
    const takes = runDocument().takes.map((t) => ({ ...t, file: `x-${t.file}` }));
    const renamed = writeRunFolder(temporaryFolder(), runDocument({ takes }), {
      'x-speech.wav': takeWav(-14, -70, 1),
      'x-silence.wav': takeWav(null, -70, 5),
      'x-rear.wav': takeWav(-26, -70, 9),
    });
    expect(await application.runImport.importFolder(renamed)).toMatchObject({ created: false, runId: first.runId });
  });

  it('appends corrected points, and an old folder does not bring the old ones back', async () => {
    const application = await testApplication();
    const { specimenId } = await application.runImport.importFolder(writeRunFolder(temporaryFolder()));
    await application.queue.idle();
    await application.scoring.givePoints(specimenId, { criterion: 'sound', value: 2, reason: 'heard again' });
    await application.runImport.importFolder(writeRunFolder(temporaryFolder()));
    const { points } = await application.catalogue.sheet(specimenId);
    expect(points.filter((p) => p.criterion === 'sound').map((p) => p.value)).toEqual([2, 4]);
    expect((await application.catalogue.ranking('microphone'))[0].points['sound']).toBe(2);
  });

  it('lets clips that are known keep their analysis: a second unit with the same silence is measured too', async () => {
    const application = await testApplication();
    await application.runImport.importFolder(writeRunFolder(temporaryFolder()));
    await application.queue.idle();
    const other = runDocument({ specimen: { ...runDocument().specimen, label: 'B' } });
    const { specimenId } = await application.runImport.importFolder(writeRunFolder(temporaryFolder(), other));
    expect((await application.catalogue.sheet(specimenId)).row).toMatchObject({ waitingAnalyses: 0, stage: 'scored' });
    expect(readdirSync(join(application.status.dataFolder, 'clips')).length).toBeLessThanOrEqual(3);
  });
});

describe('refusing a run folder whole', () => {
  it('lists every error at once, with file and field, and keeps nothing', async () => {
    const application = await testApplication();
    const document = {
      ...runDocument(),
      date: '2026-02-30',
      colour: 'green',
      specimen: { maker: '', model: 'Purser', label: 'A', category: 'microphone' },
      prices: [{ amount: -5, currency: 'euro', kind: 'gift', date: '2026-05-01' }],
      takes: [
        { step: 'speech', file: 'speech.wav', gainDb: 40 },
        { step: 'speech2', file: 'silence.wav', gainDb: 'loud' },
        { step: 'rear', file: 'absent.wav', gainDb: 40 },
        { step: 'silence', file: 'notes.wav', gainDb: 40 },
      ],
      points: [
        { criterion: 'noise', value: 4 },
        { criterion: 'build', value: 6 },
        { criterion: 'taste', value: 1 },
      ],
    };
    const folder = writeRunFolder(temporaryFolder(), document, { 'notes.wav': 'Dear diary' });
    const failure = await refusal(application.runImport.importFolder(folder));
    expect(failure.code).toBe('run-refused');
    const places = failure.details.map((d) => d.field ?? d.file);
    for (const place of [
      'date',
      'specimen.maker',
      'prices[0].amount',
      'prices[0].currency',
      'prices[0].kind',
      'takes[1].gainDb',
      'takes[1].step',
      'points[0].criterion',
      'points[1].value',
      'points[2].criterion',
      'absent.wav',
      'notes.wav',
    ]) {
      expect(places).toContain(place);
    }
    expect(failure.details.find((d) => d.message.includes('colour'))?.file).toBe('run.json');
    expect(failure.details.find((d) => d.field === 'points[0].criterion')?.message).toMatch(/follows from measurement/);
    expect(await application.catalogue.specimens()).toEqual([]);
    expect(readdirSync(join(application.status.dataFolder, 'clips'))).toEqual([]);
    expect(readdirSync(join(application.status.dataFolder, 'incoming'))).toEqual([]);
  });

  it.each([
    '../secret.wav',
    '/etc/passwd.wav',
    'a/b.wav',
    '..\\x.wav',
    '.hidden.wav',
    'C:x.wav',
    'x.txt',
    'nul\u0000.wav',
  ])('does not follow the path trick %j', async (file) => {
    const application = await testApplication();
    const folder = temporaryFolder();
    writeFileSync(join(folder, 'secret.wav'), takeWav(-14, -70));
    const inner = writeRunFolder(join(folder, 'run'), runDocument({ takes: [{ step: 'speech', file, gainDb: 40 }] }));
    const failure = await refusal(application.runImport.importFolder(inner));
    expect(failure.details).toContainEqual(expect.objectContaining({ file: 'run.json', field: 'takes[0].file' }));
    expect(readdirSync(join(application.status.dataFolder, 'clips'))).toEqual([]);
  });

  it('takes no links and no folders for files', async () => {
    const application = await testApplication();
    const folder = writeRunFolder(
      temporaryFolder(),
      runDocument({
        takes: [
          { step: 'speech', file: 'link.wav', gainDb: 40 },
          { step: 'rear', file: 'dir.wav', gainDb: 40 },
        ],
      }),
    );
    symlinkSync(join(folder, 'speech.wav'), join(folder, 'link.wav'));
    mkdirSync(join(folder, 'dir.wav'));
    const { details } = await refusal(application.runImport.importFolder(folder));
    expect(details.map((d) => [d.file, d.message])).toEqual([
      ['link.wav', 'is a link; put the file itself into the folder'],
      ['dir.wav', 'is not a file'],
    ]);
  });

  it('says of a short file with the header of three hours how much is there', async () => {
    const application = await testApplication();
    const bytes = encodeWav([new Float64Array(16_000)], 16_000, 'pcm16');
    new DataView(bytes.buffer).setUint32(40, 3 * 3600 * 16_000 * 2, true);
    const { details } = await refusal(
      application.runImport.importFolder(writeRunFolder(temporaryFolder(), runDocument(), { 'rear.wav': bytes })),
    );
    expect(details).toEqual([
      {
        file: 'rear.wav',
        field: null,
        message: expect.stringMatching(/promises 10800\.00 s, and 1\.00 s of audio are there/) as string,
      },
    ]);
  });

  it.each([
    ['no run.json', null, /there is no run\.json/],
    ['broken JSON', '{"format": "sediment-run/1", ', /not valid JSON/],
    ['a list', '[]', /must be a set of fields/],
    ['another format', JSON.stringify({ ...runDocument(), format: 'sediment-run/9' }), /sediment-run\/1/],
    [
      'an unknown protocol',
      JSON.stringify(runDocument({ protocol: 'kitchen' })),
      /no protocol "kitchen"; known: .*desk-voice/,
    ],
    ['an unknown version', JSON.stringify(runDocument({ protocolVersion: 7 })), /no version 7; known: 1/],
    ['no takes', JSON.stringify(runDocument({ takes: [] })), /at least one take/],
    [
      'a file named twice',
      JSON.stringify(
        runDocument({
          takes: [
            { step: 'speech', file: 'speech.wav', gainDb: 40 },
            { step: 'rear', file: 'speech.wav', gainDb: 40 },
          ],
        }),
      ),
      /"speech.wav" is named twice/,
    ],
  ])('refuses %s', async (_, text, message) => {
    const application = await testApplication();
    const folder = text === null ? temporaryFolder() : writeRunFolder(temporaryFolder(), text);
    const failure = await refusal(application.runImport.importFolder(folder));
    expect(failure.details.map((d) => d.message).join('\n')).toMatch(message);
  });

  it('reads a run.json with a byte order mark', async () => {
    const application = await testApplication();
    const folder = writeRunFolder(temporaryFolder(), `\uFEFF${JSON.stringify(runDocument())}`);
    expect(await application.runImport.importFolder(folder)).toMatchObject({ created: true });
    await application.queue.idle();
  });
});
