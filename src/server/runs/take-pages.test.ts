import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { BiquadCascade } from '#core/dsp/biquad';
import { highPass } from '#core/dsp/eq-biquads';
import { convolve } from '#core/dsp/convolve';
import { exponentialSweep } from '#core/dsp/exponential-sweep';
import { encodeWav } from '#core/audio/wav-write';
import { ALGORITHM_VERSION } from '#core/measure/registry';
import { firstOrderGain } from '#core/measure/polar-pattern';
import { lcgNoise, mixed, scaled, sine, syllables } from '#core/testing/signals';
import { ENDPOINTS } from '#contracts/http';
import type { RunDocumentInput } from '#contracts/run-document';
import { spectrogramSchema, takePageSchema, type TakePage } from '#contracts/take-page';
import { unitExportSchema } from '#contracts/unit-export';
import { runDocument, serve, temporaryFolder, testApplication, writeRunFolder } from '../testing/application';
import type { Application } from '../wiring';

const SWEEP = { lowHz: 20, highHz: 20_500, seconds: 3 };

/** A recorded sweep: a 100 Hz high-pass, a pattern, some noise. */
function sweepWav(angleDeg: number): Uint8Array<ArrayBuffer> {
  const played = exponentialSweep(SWEEP, 48_000);
  const recorded = new Float64Array(played.length + 48_000);
  recorded.set(played, 12_000);
  new BiquadCascade([highPass(48_000, 100)]).process(recorded);
  const turned = scaled(recorded, 20 * Math.log10(Math.abs(firstOrderGain(0.6, angleDeg))) - 6);
  return encodeWav([mixed(turned, lcgNoise(turned.length, 1e-4, angleDeg + 1))], 48_000, 'pcm24');
}

const CALIBRATED: Partial<RunDocumentInput> = {
  protocolVersion: 2,
  inputFullScaleDbu: 14,
  claims: [
    { quantity: 'sensitivity', value: 21, unit: 'mV/Pa', condition: '' },
    { quantity: 'selfNoise', value: 15, unit: 'dB SPL', condition: '' },
  ],
};

async function importSweeps(application: Application): Promise<string> {
  const takes = [
    ...runDocument().takes,
    { step: 'calibration', file: 'calibration.wav', gainDb: 40, levelDbSpl: 94 },
    ...[0, 90, 180].map((angleDeg) => ({
      step: `sweep-${angleDeg}`,
      file: `sweep-${angleDeg}.wav`,
      gainDb: 40,
      distanceM: 0.15,
      angleDeg,
    })),
  ];
  const files = Object.fromEntries([0, 90, 180].map((a) => [`sweep-${a}.wav`, sweepWav(a)]));
  const folder = writeRunFolder(temporaryFolder(), runDocument({ ...CALIBRATED, takes }), {
    ...files,
    'calibration.wav': encodeWav([sine(1000, -20, 2)], 48_000, 'pcm24'),
  });
  const { specimenId } = await application.runImport.importFolder(folder);
  await application.queue.idle();
  return specimenId;
}

async function firstTake(application: Application, step: string): Promise<string> {
  const { specimenId } = await application.runImport.importFolder(writeRunFolder(temporaryFolder()));
  await application.queue.idle();
  const { runs } = await application.catalogue.sheet(specimenId);
  return runs[0].takes.find((t) => t.step === step)?.id ?? '';
}

describe('a run with sweeps and a calibrator', () => {
  it('gives response, directions, sensitivity, and claims beside them; all of it goes out as JSON, CSV, text and WAV', async () => {
    const application = await testApplication();
    const address = await serve(application);
    const id = await importSweeps(application);
    const sheet = await application.catalogue.sheet(id);
    const [run] = sheet.runs;
    const value = (quantity: string) => run.measurements.find((m) => m.quantity === quantity)?.value ?? NaN;
    expect(Math.abs(value('responseLow3') / 100 - 1)).toBeLessThan(0.03);
    expect(value('patternAlpha')).toBeCloseTo(0.6, 1);
    expect(value('rejection180')).toBeCloseTo(-20 * Math.log10(0.2), 1);
    // −20 dBFS at 40 dB of gain and +14 dBu: −46 dBu for 94 dB SPL.
    expect(value('sensitivity')).toBeCloseTo(1000 * Math.sqrt(0.6) * 10 ** (-46 / 20), 1);
    expect(run.curves.response?.points.length).toBeGreaterThan(200);
    expect(run.curves.polar?.levels.map((l) => l.angleDeg)).toEqual([0, 90, 180]);
    expect(run.curves.distance).toBeNull();
    expect(sheet.claims.map((c) => c.quantity).sort()).toEqual(['selfNoise', 'sensitivity']);

    const json = await fetch(`${address}/api/specimens/${id}/measurements.json`);
    expect(json.headers.get('content-disposition')).toMatch(/oarlock-purser-a\.json/);
    const exported = unitExportSchema.parse(await json.json());
    expect(exported.runs[0].takes).toHaveLength(7);
    const csv = await (await fetch(`${address}/api/specimens/${id}/measurements.csv`)).text();
    const lines = csv.trim().split('\r\n');
    expect(lines[0]).toMatch(/^date,protocol,take,quantity,name,value,unit,uncertainty/);
    expect(lines.some((l) => l.startsWith('2026-05-02,desk-voice 2,run,sensitivity,Sensitivity at 1 kHz,3.8'))).toBe(
      true,
    );

    const sweep = run.takes.find((t) => t.step === 'sweep-0')?.id;
    const text = await (await fetch(`${address}/api/takes/${sweep}/response.txt`)).text();
    const rows = text.split('\n').filter((l) => /^\d/.test(l));
    expect(rows.length).toBeGreaterThan(200);
    const at100 = rows
      .map((r) => r.split('\t').map(Number))
      .reduce((a, b) => (Math.abs(b[0] - 100) < Math.abs(a[0] - 100) ? b : a));
    // The nearest point of the grid lies up to 1.5 % off: 0.2 dB on that flank.
    expect(Math.abs(at100[1] + 6 + 3)).toBeLessThan(0.2);
    const wav = Buffer.from(await (await fetch(`${address}/api/takes/${sweep}/impulse.wav`)).arrayBuffer());
    expect(wav.subarray(0, 4).toString()).toBe('RIFF');
    const speech = run.takes.find((t) => t.step === 'speech')?.id;
    expect((await fetch(`${address}/api/takes/${speech}/impulse.wav`)).status).toBe(404);
    expect((await fetch(`${address}/api/specimens/999/measurements.csv`)).status).toBe(404);
  });

  it('a sweep that is none leaves the run measured all the same', async () => {
    const reports: unknown[] = [];
    const application = await testApplication({ report: (error) => reports.push(error) });
    const takes = [...runDocument().takes, { step: 'sweep-0', file: 'sweep-0.wav', gainDb: 40, angleDeg: 0 }];
    const folder = writeRunFolder(temporaryFolder(), runDocument({ protocolVersion: 2, takes }), {
      'sweep-0.wav': encodeWav([new Float64Array(48_000)], 48_000, 'pcm16'),
    });
    const { specimenId } = await application.runImport.importFolder(folder);
    await application.queue.idle();
    const [run] = (await application.catalogue.sheet(specimenId)).runs;
    expect(run.measurements.find((m) => m.quantity === 'noiseReSpeechA')?.value).not.toBeNull();
    expect(run.curves.response).toBeNull();
    expect(String(reports[0])).toMatch(/silence/);
  });
});

describe('a run of a room', () => {
  it('gives reverberation times by octave with their ±, as figures, curve and text', async () => {
    const application = await testApplication();
    const address = await serve(application);
    const [t60, rate] = [0.4, 48_000];
    const response = Float64Array.from(lcgNoise(rate, 0.05, 5), (x, i) => x * 10 ** ((-3 * i) / rate / t60));
    response[0] = 1;
    const played = exponentialSweep({ lowHz: 20, highHz: 20_500, seconds: 5 }, rate);
    const wet = convolve(played, response, played.length + 2 * rate);
    const takes = [
      { step: 'room', file: 'room.wav', gainDb: 40 },
      { step: 'silence', file: 'silence.wav', gainDb: 40 },
    ];
    const document = runDocument({ protocol: 'room', protocolVersion: 1, takes });
    const folder = writeRunFolder(temporaryFolder(), document, {
      'room.wav': encodeWav([mixed(scaled(wet, -20), lcgNoise(wet.length, 3e-5, 8))], rate, 'pcm24'),
    });
    const { specimenId } = await application.runImport.importFolder(folder);
    await application.queue.idle();
    const [run] = (await application.catalogue.sheet(specimenId)).runs;
    const t20 = run.measurements.find((m) => m.quantity === 't20');
    expect(Math.abs((t20?.value ?? 0) / t60 - 1)).toBeLessThan(0.05);
    expect(t20?.uncertainty).toBeGreaterThan(0);
    expect(t20?.anotherReading).toBeGreaterThan(t20?.uncertainty ?? 0);
    expect(run.curves.room?.octaves.map((o) => o.centreHz)).toEqual([125, 250, 500, 1000, 2000, 4000]);
    expect(run.curves.response).toBeNull();
    const take = run.takes.find((t) => t.step === 'room')?.id;
    const text = await (await fetch(`${address}/api/takes/${take}/response.txt`)).text();
    expect(text.split('\n').filter((l) => /^\d/.test(l))).toHaveLength(6);
    const json = await fetch(`${address}/api/specimens/${specimenId}/measurements.json`);
    expect(unitExportSchema.parse(await json.json()).runs[0].curves.room?.octaves).toHaveLength(6);
  });
});

describe('the page of a take', () => {
  it('has segments, role and spectrum; a control and the spread where the catalogue has them', async () => {
    const application = await testApplication();
    const specimens = ['A', 'B', 'C', 'D', 'E'];
    for (const [i, label] of specimens.entries()) {
      const specimen = { maker: 'Oarlock', model: 'Mate', label, category: 'microphone' } as const;
      for (const date of label === 'A' ? ['2024-01-01', '2026-01-01'] : ['2025-12-01']) {
        const speech = syllables([[0.3, 3.5]], 4, -20 - i - (date < '2025' ? 3 : 0), 16_000, 3 + i);
        await application.runImport.importFolder(
          writeRunFolder(temporaryFolder(), runDocument({ specimen, date, points: [] }), {
            'speech.wav': encodeWav([speech], 16_000, 'pcm24'),
          }),
        );
      }
    }
    await application.queue.idle();
    const rows = await application.catalogue.specimens();
    const b = rows.find((r) => r.label === 'B')?.id ?? '';
    const take = (await application.catalogue.sheet(b)).runs[0].takes[0];
    const page = takePageSchema.parse(await application.takePages.page(take.id));
    expect(page).toMatchObject({ role: 'speech', unit: { id: b, name: 'Oarlock Mate · B' }, date: '2025-12-01' });
    expect(page.spectrum?.control).toMatchObject({ unit: 'Oarlock Mate · A', date: '2026-01-01' });
    expect(page.spectrum?.catalogue?.units).toBe(5);
    // Brought to one loudness: the levels of unlike gains meet.
    const level = (bands: readonly { centreHz: number; db: number | null }[]) =>
      bands.find((x) => x.centreHz === 1000)?.db;
    expect(
      Math.abs((level(page.spectrum?.take ?? []) ?? 0) - (level(page.spectrum?.control?.bands ?? []) ?? 99)),
    ).toBeLessThan(1.5);
    const at1k = page.spectrum?.catalogue?.bands.find((x) => x.centreHz === 1000);
    expect(at1k && at1k.p10 <= at1k.p50 && at1k.p50 <= at1k.p90).toBe(true);
  });

  it('measures by segments that a person sets, keeps the automatic ones, and goes back', async () => {
    const application = await testApplication();
    const address = await serve(application);
    const takeId = await firstTake(application, 'silence');
    const before = await application.takePages.page(takeId);
    const post = async (segments: unknown): Promise<{ status: number; page: TakePage }> => {
      const response = await fetch(address + ENDPOINTS.chooseSegments.path.replace(':id', takeId), {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ segments }),
      });
      return { status: response.status, page: (await response.json()) as TakePage };
    };
    const chosen = { speech: [], silence: [{ startS: 1, endS: 2 }], events: [{ startS: 3, endS: 3.2 }] };
    const { page } = await post(chosen);
    expect(page.segments?.chosen).toEqual(chosen);
    expect(page.segments?.automatic).toEqual(before.segments?.automatic);
    const level = (p: TakePage) => p.take.measurements.find((m) => m.quantity === 'silenceRmsA');
    expect(level(page)?.settings).toMatchObject({ startS: 1, endS: 2 });
    expect(level(page)?.value).not.toBe(level(before)?.value);
    // The run's figures follow.
    const row = (await application.catalogue.specimens())[0];
    const runFigure = async () =>
      (await application.catalogue.sheet(row.id)).runs[0].measurements.find((m) => m.quantity === 'noiseReSpeechA')
        ?.value;
    const byHand = await runFigure();
    const back = await post(null);
    expect(back.page.segments?.chosen).toBeNull();
    expect(level(back.page)?.value).toBe(level(before)?.value);
    expect(await runFigure()).not.toBe(byHand);
    expect((await post({ ...chosen, silence: [{ startS: 3, endS: 9 }] })).status).toBe(400);
    expect((await post({ ...chosen, silence: [{ startS: 3, endS: 2 }] })).status).toBe(400);
    expect((await fetch(`${address}/api/takes/9999`)).status).toBe(404);
  });

  it('shows a spectrogram that is drawn once and can be thrown away', async () => {
    const folder = temporaryFolder();
    const application = await testApplication({ folder });
    const takeId = await firstTake(application, 'speech');
    const { sha256 } = (await application.takePages.page(takeId)).take.clip;
    const [first, same] = await Promise.all([1, 2].map(() => application.pictures.spectrogram(sha256)));
    expect(spectrogramSchema.parse(first)).toEqual(same);
    const bytes = Buffer.from(first.levels, 'base64');
    expect(bytes.length).toBe(first.columns * first.rows);
    // Loud in the phrases, quiet before them: two columns of the picture.
    const column = (s: number): number => {
      const c = Math.floor((s / 4) * first.columns);
      return Math.max(...bytes.subarray(c * first.rows, (c + 1) * first.rows));
    };
    expect(column(1) - column(0.1)).toBeGreaterThan(60);
    expect(readdirSync(join(folder, 'derived'))).toHaveLength(1);
    await expect(application.pictures.spectrogram('0'.repeat(64))).rejects.toThrow(/no such clip/);
  });
});

it('an archive of an older algorithm version is measured anew, and both results stay', async () => {
  const application = await testApplication();
  await firstTake(application, 'speech');
  // As if these had been made by the version before.
  await application.database.query(`UPDATE analysis SET algorithm_version = 1`);
  await application.database.query(`UPDATE measurement SET algorithm_version = 1`);
  await application.queue.recover();
  await application.queue.idle();
  const rows = await application.database.query<{ algorithm_version: number; n: number }>(
    `SELECT algorithm_version, count(*)::int AS n FROM analysis WHERE status = 'done' GROUP BY 1 ORDER BY 1`,
  );
  expect(rows).toEqual([
    { algorithm_version: 1, n: 3 },
    { algorithm_version: ALGORITHM_VERSION, n: 3 },
  ]);
  const [row] = await application.catalogue.specimens();
  expect(row.figures.map((f) => f.quantity)).toContain('noiseReSpeechA');
});
