import { join } from 'node:path';
import { Readable } from 'node:stream';
import { describe, expect, it } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { joined, lcgNoise, scaled, sine } from '#core/testing/signals';
import { rigDocumentSchema, type RigDocument } from '#contracts/rig';
import { runDocument, takeWav, temporaryFolder, testApplication, writeRunFolder } from '../testing/application';
import type { Application } from '../wiring';

const CONTROL = { maker: 'Lodebell', model: 'Warden', label: 'reference', category: 'microphone' } as const;

const rigOf = (controlUnit: string | null, change: Partial<RigDocument> = {}): RigDocument =>
  rigDocumentSchema.parse({ name: 'Desk', since: '2026-01-01', controlUnit, interface: 'old', ...change });

async function record(
  app: Application,
  date: string,
  noiseDb: number,
  change: { readonly specimen?: object; readonly purpose?: 'opening' | 'closing' } = {},
): Promise<string> {
  const folder = join(temporaryFolder(), 'run');
  const seed = Number(date.slice(-2)) * 7 + (change.purpose === 'closing' ? 3 : 0) + (change.specimen ? 900 : 0);
  writeRunFolder(
    folder,
    { ...runDocument(), specimen: CONTROL, date, rig: 'Desk', ...change },
    {
      'speech.wav': takeWav(-14, noiseDb, seed),
      'silence.wav': takeWav(null, noiseDb, seed + 1),
      'rear.wav': takeWav(-26, noiseDb, seed + 2),
    },
  );
  const { specimenId } = await app.runImport.importFolder(folder);
  await app.queue.idle();
  return specimenId;
}

describe('the rig', () => {
  it('agrees with its history while nothing changes, and is off when the control unit hears more noise', async () => {
    const app = await testApplication();
    const control = await record(app, '2025-12-01', -70);
    await app.rigs.add(rigOf(control));
    for (const day of ['2026-01-10', '2026-01-20', '2026-02-01']) await record(app, day, -70);
    expect(await app.rigs.health('2026-02-01', 'Desk')).toMatchObject({ verdict: 'agrees' });
    await record(app, '2026-03-01', -64);
    const off = await app.rigs.health('2026-03-01', 'Desk');
    expect(off.verdict).toBe('off');
    const noise = off.figures.find((f) => f.quantity === 'noiseReSpeechA');
    expect(noise?.verdict).toBe('off');
    // Takes of other noise: 0.05 dB is their scatter.
    expect(Math.abs((noise?.offset ?? NaN) - 6)).toBeLessThan(0.05);
    // The run of December was made before any rig was noted; it is no history of this one.
    expect(noise?.count).toBe(3);
    // Looked at again, an earlier day is judged by what was known on it.
    expect((await app.rigs.health('2026-02-01', 'Desk')).verdict).toBe('agrees');
  });

  it('compares the first session of a changed rig with the one before, and says so', async () => {
    const app = await testApplication();
    const control = await record(app, '2025-12-01', -70);
    await app.rigs.add(rigOf(control));
    for (const day of ['2026-01-10', '2026-01-20']) await record(app, day, -70);
    await app.rigs.add(rigOf(control, { since: '2026-02-01', interface: 'new' }));
    await record(app, '2026-02-10', -62);
    const health = await app.rigs.health('2026-02-10', 'Desk');
    expect(health).toMatchObject({ verdict: 'off', note: expect.stringContaining('changed rig') as string });
    await record(app, '2026-02-20', -62);
    expect((await app.rigs.health('2026-02-20', 'Desk')).figures[0].count).toBe(1);
  });

  it('shows what changed between opening and closing, and says so where the control unit is missing', async () => {
    const app = await testApplication();
    const control = await record(app, '2025-12-01', -70);
    await app.rigs.add(rigOf(control));
    await record(app, '2026-01-10', -70);
    await record(app, '2026-01-20', -70, { purpose: 'opening' });
    await record(app, '2026-01-20', -66, { purpose: 'closing' });
    const { drift } = await app.rigs.health('2026-01-20', 'Desk');
    const noise = drift.find((d) => d.quantity === 'noiseReSpeechA');
    expect(Math.abs((noise?.closing ?? NaN) - (noise?.opening ?? NaN) - 4)).toBeLessThan(0.05);
    expect((await app.rigs.health('2026-01-21', 'Desk')).verdict).toBe('no-control');
    expect((await app.rigs.health('2025-01-21', 'Desk')).note).toMatch(/No rig/);
    await app.rigs.add(rigOf(null, { name: 'Field' }));
    expect((await app.rigs.health('2026-01-20', 'Field')).note).toMatch(/no control unit/);
  });

  it('corrects by the offset where that is its policy, and shows both', async () => {
    const app = await testApplication();
    const control = await record(app, '2025-12-01', -70);
    await app.rigs.add(rigOf(control, { whenOff: 'correct' }));
    for (const day of ['2026-01-10', '2026-01-20']) await record(app, day, -70);
    await record(app, '2026-02-10', -64);
    const other = await record(app, '2026-02-10', -64, {
      specimen: { maker: 'Oarlock', model: 'Purser', label: 'Z', category: 'microphone' },
    });
    const [run] = (await app.catalogue.sheet(other)).runs;
    const measured = run.measurements.find((m) => m.quantity === 'noiseReSpeechA');
    const correction = run.corrections.find((c) => c.quantity === 'noiseReSpeechA');
    expect(Math.abs((correction?.value ?? NaN) - (measured?.value ?? 0) + 6)).toBeLessThan(0.05);
    expect(correction?.uncertainty ?? 0).toBeGreaterThan(measured?.uncertainty ?? 0);
    expect(run.rig).toBe('Desk, since 2026-01-01');
  });
});

describe('calibrations', () => {
  it("of sound tie the control unit's runs to dB SPL, with their ±; other units' not", async () => {
    const app = await testApplication();
    const control = await record(app, '2025-12-01', -70);
    const rig = await app.rigs.add(rigOf(control));
    const none = { day: '2026-01-05', gainDb: 0, clip: null, note: '' };
    // 94 dB SPL reads −50 dBFS at 0 dB of gain: full scale is 144 dB SPL there.
    await app.rigs.calibrate(rig.id, { ...none, kind: 'sound-level', fedIn: 93.9794, read: -50 });
    await record(app, '2026-01-10', -70);
    await record(app, '2026-01-10', -70, {
      specimen: { maker: 'Oarlock', model: 'Purser', label: 'Z', category: 'microphone' },
    });
    const noiseOf = async (id: string, day: string) => {
      const run = (await app.catalogue.sheet(id)).runs.find((r) => r.date === day);
      return {
        self: run?.measurements.find((m) => m.quantity === 'selfNoise'),
        silence: run?.takes.find((t) => t.step === 'silence'),
      };
    };
    const { self, silence } = await noiseOf(control, '2026-01-10');
    const level = silence?.measurements.find((m) => m.quantity === 'silenceRmsA')?.value ?? NaN;
    expect(self?.value).toBeCloseTo(level + 93.9794 + 50 - (silence?.gainDb ?? NaN), 6);
    // A calibrator of ±0.4 dB as a rectangle is in it.
    expect(self?.uncertainty).toBeGreaterThan(0.4 / Math.sqrt(3));
    // Before the calibration, and with another unit, nothing ties dBFS to sound pressure.
    expect((await noiseOf(control, '2025-12-01')).self).toBeUndefined();
    const other = (await app.catalogue.specimens()).find((s) => s.label === 'Z')?.id ?? '';
    expect((await noiseOf(other, '2026-01-10')).self).toBeUndefined();
  });

  const RATE = 48_000;
  const clip = async (app: Application, channels: Float64Array[]): Promise<string> => {
    const bytes = encodeWav(channels, RATE, 'pcm24');
    return (await app.ingest.ingest(Readable.from([bytes]), 'tone.wav', { keepPart: false })).sha256;
  };

  it('are typed in or read from a recording, and give what follows', async () => {
    const app = await testApplication();
    const rig = await app.rigs.add(rigOf(null));
    const none = { day: '2026-02-01', fedIn: null, gainDb: null, read: null, clip: null, note: '' };
    // −10 dBu at 20 dB of gain reads −4 dBFS: full scale at 0 dB of gain is +14 dBu.
    expect(
      await app.rigs.calibrate(rig.id, { ...none, kind: 'electrical', fedIn: -10, gainDb: 20, read: -4 }),
    ).toMatchObject({ result: 14 });
    const tone = await clip(app, [sine(1000, -18, 2)]);
    const sound = await app.rigs.calibrate(rig.id, { ...none, kind: 'sound-level', fedIn: 94, gainDb: 30, clip: tone });
    expect(sound.read).toBeCloseTo(-18, 1);
    expect(sound.result).toBeCloseTo(-48, 1);
    const click = joined(new Float64Array(500), lcgNoise(500, 0.5), new Float64Array(9000));
    const late = joined(new Float64Array(240), scaled(click.subarray(0, click.length - 240), -6));
    const loop = await app.rigs.calibrate(rig.id, { ...none, kind: 'loopback', clip: await clip(app, [click, late]) });
    // 240 samples at 48 kHz.
    expect(loop.result).toBeCloseTo(5, 3);
    expect((await app.rigs.list())[0].calibrations).toHaveLength(3);
  });

  it('are refused with the reason where something is missing', async () => {
    const app = await testApplication();
    const rig = await app.rigs.add(rigOf(null));
    const none = { day: '2026-02-01', fedIn: null, gainDb: null, read: null, clip: null, note: '' };
    const field = async (c: Parameters<Application['rigs']['calibrate']>[1]): Promise<unknown> =>
      app.rigs.calibrate(rig.id, c).then(
        () => null,
        (e: unknown) => (e as { details: { field: string }[] }).details[0].field,
      );
    expect(await field({ ...none, kind: 'electrical', gainDb: 20, read: -4 })).toBe('fedIn');
    expect(await field({ ...none, kind: 'sound-level', fedIn: 94, read: -4 })).toBe('gainDb');
    expect(await field({ ...none, kind: 'loopback' })).toBe('read');
    const noise = await clip(app, [lcgNoise(RATE, 0.3)]);
    expect(await field({ ...none, kind: 'loopback', clip: noise })).toBe('clip');
    expect(await field({ ...none, kind: 'electrical', fedIn: 0, gainDb: 0, clip: noise })).toBe('clip');
    await expect(app.rigs.calibrate('999', { ...none, kind: 'loopback', read: 5 })).rejects.toMatchObject({
      code: 'not-found',
    });
  });
});
