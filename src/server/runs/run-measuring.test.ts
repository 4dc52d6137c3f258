import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it, describe } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { RUN_FIGURES_VERSION } from '#core/measure/registry';
import { lcgNoise, mixed, scaled, syllables } from '#core/testing/signals';
import type { Run } from '#contracts/specimen';
import {
  madeOnce,
  runDocument,
  takeWav,
  temporaryFolder,
  testApplication,
  writeRunFolder,
} from '../testing/application';

const WINCH = { maker: 'Oarlock', model: 'Winch', label: 'A', category: 'booster' };
const noiseWav = (db: number, seed: number) => madeOnce(`noise ${db} ${seed}`, () => encodeWav([scaled(lcgNoise(96_000, 1, seed), db)], 16_000, 'pcm24')); // prettier-ignore
const figure = (run: Run, id: string) => run.measurements.find((m) => m.quantity === id);

async function imported(document: ReturnType<typeof runDocument>, files: Parameters<typeof writeRunFolder>[2] = {}) {
  const folder = temporaryFolder();
  const app = await testApplication({ folder });
  const { specimenId } = await app.runImport.importFolder(
    writeRunFolder(join(temporaryFolder(), 'run'), document, files),
  );
  await app.queue.idle();
  return { app, specimenId, run: (await app.catalogue.sheet(specimenId)).runs[0] };
}

describe('pairs of a run', () => {
  const document = runDocument({
    specimen: WINCH,
    protocol: 'inline-booster',
    takes: [
      { step: 'without', file: 'speech.wav', gainDb: 40 },
      { step: 'silence-without', file: 'silence.wav', gainDb: 40 },
      { step: 'with', file: 'with.wav', gainDb: 20 },
      { step: 'silence-with', file: 'quiet.wav', gainDb: 20 },
    ],
    points: [],
  });
  const files = { 'with.wav': takeWav(-14, -70, 1), 'quiet.wav': takeWav(null, -76, 15) };

  it('give the booster what lies between its takes, and which takes to hear', async () => {
    const { app, run } = await imported(document, files);
    // The same words at the same level in the file, with 20 dB less gain at the interface.
    expect(figure(run, 'gainAdded')?.value).toBeCloseTo(20, 1);
    expect(Math.abs((figure(run, 'noiseChangeZ')?.value ?? NaN) + 6)).toBeLessThan(0.7);
    expect(figure(run, 'noiseReSpeechA')).toBeUndefined();
    const [group] = run.curves.pairs;
    const id = (step: string) => run.takes.find((t) => t.step === step)?.id ?? '';
    expect(group.takes).toEqual([
      { title: 'Voice with the booster', fitted: id('with'), without: id('without'), match: 'loudness' },
      {
        title: 'Silence with the booster',
        fitted: id('silence-with'),
        without: id('silence-without'),
        match: 'loudness',
      },
    ]);
    const page = await app.takePages.page(id('without'));
    expect(page.pairs.map((p) => p.fitted)).toEqual([id('with')]);
  });

  it('cease to count with the take that one of them is made of, and come back with it', async () => {
    const { app, specimenId, run } = await imported(document, files);
    const take = run.takes.find((t) => t.step === 'with')?.id ?? '';
    await app.corrections.correct({ change: { kind: 'take-left-out', take, isOut: true }, reason: '' });
    const without = (await app.catalogue.sheet(specimenId)).runs[0];
    expect(figure(without, 'gainAdded')).toBeUndefined();
    expect(without.curves.pairs.flatMap((g) => g.takes.map((t) => t.fitted))).not.toContain(take);
    await app.corrections.correct({ change: { kind: 'take-left-out', take, isOut: false }, reason: '' });
    expect(figure((await app.catalogue.sheet(specimenId)).runs[0], 'gainAdded')?.value).toBeCloseTo(20, 1);
  });

  it('of a noise from outside are held at equal gain, and heard so', async () => {
    const { run } = await imported(
      runDocument({
        specimen: { ...WINCH, category: 'accessory' },
        protocol: 'with-without',
        takes: [
          { step: 'noise-without', file: 'street.wav', gainDb: 40 },
          { step: 'noise-with', file: 'shut.wav', gainDb: 40 },
        ],
        points: [],
      }),
      { 'street.wav': noiseWav(-30, 1), 'shut.wav': noiseWav(-40.5, 2) },
    );
    expect(Math.abs((figure(run, 'outsideLessA')?.value ?? NaN) - 10.5)).toBeLessThan(0.1);
    expect(run.curves.pairs[0].takes[0].match).toBe('gain');
  });
});

describe('a gain without decibels', () => {
  const at = (dial: string) => ({ settings: { dial } });
  const document = (silent: string) =>
    runDocument({
      takes: [
        { step: 'speech', file: 'speech.wav', ...at('50 %') },
        { step: 'silence', file: 'silence.wav', ...at(silent) },
      ],
    });

  it('counts where both takes stand at one place of the dial; what needs decibels says so', async () => {
    const { run } = await imported(document('50 %'));
    expect(run.takes.map((t) => [t.gainDb, t.settings['dial']])).toEqual([
      [null, '50 %'],
      [null, '50 %'],
    ]);
    expect(figure(run, 'noiseReSpeechA')?.value).not.toBeNull();
    expect(figure(run, 'gainToTarget')?.notMeasured).toMatch(/gain in dB.*dial at 50 %/);
  });

  it('refuses what would hold two places against each other', async () => {
    const { run } = await imported(document('60 %'));
    expect(figure(run, 'noiseReSpeechA')?.notMeasured).toMatch(/dial at 50 % and dial at 60 %/);
  });

  it('is refused where nothing is said of it, in one message beside the field', async () => {
    const app = await testApplication();
    const nothing = runDocument({ takes: [{ step: 'speech', file: 'speech.wav' }] });
    await expect(app.runImport.importFolder(writeRunFolder(temporaryFolder(), nothing))).rejects.toMatchObject({
      details: [{ field: 'takes[0].gainDb', message: expect.stringMatching(/settings\.dial/) as string }],
    });
  });

  it('is corrected to decibels, and back', async () => {
    const { app, specimenId, run } = await imported(document('60 %'));
    const silent = run.takes[1];
    const change = { kind: 'take', take: silent.id, distanceM: null, angleDeg: null, note: '' } as const;
    await app.corrections.correct({ change: { ...change, gainDb: null, settings: { dial: '50 %' } }, reason: '' });
    expect(figure((await app.catalogue.sheet(specimenId)).runs[0], 'noiseReSpeechA')?.value).not.toBeNull();
    await app.corrections.correct({ change: { ...change, gainDb: 30, settings: {} }, reason: '' });
    expect(figure((await app.catalogue.sheet(specimenId)).runs[0], 'noiseReSpeechA')?.notMeasured).toMatch(
      /30 dB of gain/,
    );
  });
});

describe('what counts of a run', () => {
  it('may come from tables alone', async () => {
    const cells = [[64, 5], [128, 7.7], [256, 13]].map(([column, value]) => ({ row: '48 kHz', column: String(column), value, source: 'typed' as const, clip: null })); // prettier-ignore
    const { run } = await imported(
      runDocument({
        specimen: { maker: 'Oarlock', model: 'Sluice', label: 'A', category: 'interface' },
        protocol: 'input-stage',
        takes: [],
        tables: [{ step: 'latency', cells }],
        points: [],
      }),
    );
    expect(Math.abs((figure(run, 'latencyFixed')?.value ?? NaN) - 2.35)).toBeLessThan(0.1);
    // Nothing was recorded: nothing is told as missing.
    expect(run.measurements.map((m) => m.quantity)).toEqual(['latencyFixed']);
  });

  it('follows a table that is filled in otherwise, and goes back with it', async () => {
    const cell = (row: string, column: string, value: number) => ({ row, column, value, source: 'typed' as const, clip: null }); // prettier-ignore
    const cells = [cell('48 kHz', '64', 5), cell('48 kHz', '128', 7.7), cell('48 kHz', '256', 13)];
    const { app, specimenId, run } = await imported(
      runDocument({
        specimen: { maker: 'Oarlock', model: 'Sluice', label: 'B', category: 'interface' },
        protocol: 'input-stage',
        takes: [],
        tables: [{ step: 'latency', cells }],
        points: [],
      }),
    );
    const now = async () => (await app.catalogue.sheet(specimenId)).runs[0];
    const fixed = async () => figure(await now(), 'latencyFixed')?.value ?? NaN;
    const before = await fixed();
    const later = cells.map((c) => ({ ...c, value: c.value + 1 }));
    const { id } = await app.corrections.correct({ change: { kind: 'run-table', run: run.id, step: 'latency', cells: later }, reason: '' }); // prettier-ignore
    // Every round trip is longer by a millisecond, and no buffer explains it.
    expect((await fixed()) - before).toBeCloseTo(1, 6);
    const [noted] = await app.corrections.list(specimenId);
    expect(noted.text).toContain('48 kHz / 64 5 ms → 6 ms');
    await app.corrections.undo(id);
    expect(await fixed()).toBeCloseTo(before, 9);
    expect((await now()).tables.find((t) => t.step === 'latency')?.cells).toEqual(cells);
    // Tables that nobody filled in are there to be filled in, with what they ask for.
    const dial = (await now()).tables.find((t) => t.step === 'dial');
    expect([dial?.cells, dial?.asked?.rowName]).toEqual([[], 'Dial']);
  });

  it('refuses cells and tables that its protocol does not have, and what changes nothing', async () => {
    const cells = [{ row: '48 kHz', column: '64', value: 5, source: 'typed' as const, clip: null }];
    const { app, run } = await imported(
      runDocument({
        specimen: { maker: 'Oarlock', model: 'Sluice', label: 'C', category: 'interface' },
        protocol: 'input-stage',
        takes: [],
        tables: [{ step: 'latency', cells }],
        points: [],
      }),
    );
    const change = (step: string, some: typeof cells) =>
      app.corrections.correct({ change: { kind: 'run-table', run: run.id, step, cells: some }, reason: '' });
    await expect(change('latency', cells)).rejects.toThrow(/Nothing differs/);
    await expect(change('latency', [{ ...cells[0], row: '8 kHz' }])).rejects.toThrow(/no row “8 kHz”/);
    await expect(change('nowhere', cells)).rejects.toThrow(/no step “nowhere” with a table/);
  });

  it('may be of a walk and the distances that were noted of it', async () => {
    const samples = mixed(syllables([[0.2, 9.8]], 10, -20, 48_000, 7), scaled(lcgNoise(10 * 48_000, 1, 3), -60));
    for (const atS of [4, 6, 9.5]) samples.fill(0, atS * 48_000, (atS + 0.03) * 48_000);
    const cells = [['10 m', 3], ['20 m', 5], ['40 m', 9]].map(([row, value]) => ({ row: String(row), column: 'passed at', value: Number(value), source: 'typed' as const, clip: null })); // prettier-ignore
    const { run } = await imported(
      runDocument({
        specimen: { maker: 'Oarlock', model: 'Pennant', label: 'A', category: 'field-microphone' },
        protocol: 'field-voice',
        protocolVersion: 3,
        takes: [{ step: 'range', file: 'walk.wav', gainDb: 40 }],
        tables: [{ step: 'range-marks', cells }],
        points: [],
      }),
      { 'walk.wav': encodeWav([samples], 48_000, 'pcm24') },
    );
    // Ten metres in two seconds from 3 s on: the hole at 4 s lies at 15 m.
    expect(figure(run, 'linkFirst')?.value).toBeCloseTo(15, 1);
    expect(figure(run, 'linkLost')).toMatchObject({ value: 40, bound: 'at-least' });
    expect(run.curves.holesByDistance?.map((h) => h.count)).toEqual([0, 1, 1]);
  });

  it('is made anew at a start where another version of it was there, without a clip being read', async () => {
    const { app, specimenId, run } = await imported(runDocument());
    await app.database.query('DELETE FROM measurement');
    await app.queue.recover();
    await app.queue.idle();
    expect((await app.catalogue.sheet(specimenId)).runs[0].measurements).toEqual([]);
    await app.database.query('UPDATE run_measured SET figures_version = $1', [RUN_FIGURES_VERSION - 1]);
    await app.queue.recover();
    await app.queue.idle();
    const again = (await app.catalogue.sheet(specimenId)).runs[0];
    expect(again.measurements.map((m) => m.quantity)).toEqual(run.measurements.map((m) => m.quantity));
  });
});

describe('takes as people have them', () => {
  const silence = { step: 'silence', file: 'silence.wav', gainDb: 40 };
  const speech = (file: string, settings: Record<string, string> = {}) => ({ step: 'speech', file, gainDb: 40, settings }); // prettier-ignore

  it('of two voices stand side by side, and the first is what counts; one that was worked on is in neither', async () => {
    const takes = [
      speech('speech.wav', { voice: 'Ada' }),
      speech('bo.wav', { voice: 'Bo' }),
      speech('worked.wav', { voice: 'Ada', processing: 'noise reduction' }),
      silence,
    ];
    const files = { 'bo.wav': takeWav(-20, -70, 4), 'worked.wav': takeWav(-14, -90, 5) };
    const { run } = await imported(runDocument({ takes }), files);
    const { grid, counts } = { grid: run.curves.conditions, counts: figure(run, 'noiseReSpeechA')?.value };
    expect(grid?.conditions.map((c) => c.voice)).toEqual(['Ada', 'Bo']);
    const row = grid?.rows.find((r) => r.quantity === 'noiseReSpeechA');
    expect(row?.cells[0]?.value).toBe(counts);
    // Six decibels less voice over the same noise.
    expect((row?.cells[1]?.value ?? NaN) - (counts ?? NaN)).toBeCloseTo(6, 1);
    expect(row?.best).toBe(0);
    expect(row?.effects[0]).toMatchObject({ factor: 'voice', lowest: { of: 'Ada' }, highest: { of: 'Bo' }, p: null });
  });

  it('that were repeated give their mean and their spread', async () => {
    const takes = [speech('speech.wav'), speech('again.wav'), silence];
    const { run } = await imported(runDocument({ takes }), { 'again.wav': takeWav(-16, -70, 6) });
    const noise = figure(run, 'noiseReSpeechA');
    expect(noise).toMatchObject({ spread: { count: 2, of: 'repeats' } });
    // Two decibels between the two: half of them from the mean, √2 of them the deviation.
    expect(noise?.spread?.sd).toBeCloseTo(Math.SQRT2, 1);
    expect(run.curves.conditions).toBeNull();
  });

  it('that came through a codec say why their noise is missing', async () => {
    const mp3 = readFileSync(join(import.meta.dirname, '../../worker/testing/tone.mp3'));
    const { run } = await imported(runDocument({ takes: [speech('speech.wav'), { ...silence, file: 'silence.mp3' }] }), { 'silence.mp3': mp3 }); // prettier-ignore
    expect(run.takes[1].clip.origin?.codec).toBe('mp3');
    const hum = run.takes[1].measurements.find((m) => m.quantity === 'hum');
    expect(hum?.notMeasured).toContain('MP3, 64 kbit/s: the codec decides');
    expect(run.takes[0].measurements.find((m) => m.quantity === 'hum')?.value).not.toBeNull();
  });
});
