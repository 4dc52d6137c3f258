import { copyFileSync, openSync, readdirSync, readFileSync } from 'node:fs';
import { promisify } from 'node:util';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { fromFd, type Entry, type ZipFile } from 'yauzl';
import { analyseLevel } from '#core/measure/level-analysis';
import { memoryStream } from '#core/audio/memory-stream';
import { openWav } from '#core/audio/wav-stream';
import { allocateBlock } from '#core/audio/sample-stream';
import { compareRequestSchema, type CompareRequest } from '#contracts/compare';
import { encodeWav } from '#core/audio/wav-write';
import { BiquadCascade } from '#core/dsp/biquad';
import { butterworthHighPass } from '#core/dsp/butterworth';
import { lcgNoise, mixed, scaled, syllables } from '#core/testing/signals';
import { runDocument, temporaryFolder, testApplication, writeRunFolder } from '../testing/application';
import { importUnits, unitWav } from '../testing/heard-catalogue';

const requestOf = (takes: string[], change: Partial<CompareRequest> = {}): CompareRequest =>
  compareRequestSchema.parse({ takes, zero: takes[0], ...change });

/** Files of a ZIP, read by a library other than the one that wrote it. */
async function unzipped(path: string): Promise<Map<string, Buffer>> {
  const zip = await promisify<number, object, ZipFile>(fromFd)(openSync(path, 'r'), { lazyEntries: true });
  const files = new Map<string, Buffer>();
  return new Promise((resolve, reject) => {
    zip.on('error', reject);
    zip.on('end', () => resolve(files));
    zip.on('entry', (entry: Entry) => {
      zip.openReadStream(entry, (error, stream) => {
        if (error) return reject(error);
        const parts: Buffer[] = [];
        stream.on('data', (part: Buffer) => parts.push(part));
        stream.on('end', () => {
          files.set(entry.fileName, Buffer.concat(parts));
          zip.readEntry();
        });
      });
    });
    zip.readEntry();
  });
}

async function loudnessOf(bytes: Buffer): Promise<{ lufs: number; peak: number }> {
  const stream = openWav({ size: bytes.length, read: (into, at) => bytes.copy(into, 0, at, at + into.length) });
  const samples: number[] = [];
  const block = allocateBlock(stream.format.channels);
  for (let n = await stream.read(block); n > 0; n = await stream.read(block)) samples.push(...block[0].subarray(0, n));
  const { loudness } = await analyseLevel(memoryStream([Float64Array.from(samples)], stream.format.sampleRate));
  return { lufs: loudness.integratedLufs, peak: loudness.truePeakDbtp };
}

describe('comparing', () => {
  it('matches levels by loudness, by gain, or not at all, and never above −1 dBTP', async () => {
    const application = await testApplication();
    const units = await importUnits(application, 3);
    const takes = units.map((u) => u.takeId);
    const loud = await application.compare.table(requestOf(takes));
    const heard = loud.lanes.map((l) => (l.loudnessLufs ?? 0) + l.appliedDb);
    for (const level of heard) expect(Math.abs(level - (loud.targetLufs ?? 0))).toBeLessThan(0.01);
    expect(loud.lanes.every((l) => (l.truePeakDbtp ?? 0) + l.appliedDb <= -1 + 1e-9)).toBe(true);
    const gain = await application.compare.table(requestOf(takes, { match: 'gain' }));
    expect(new Set(gain.lanes.map((l) => l.appliedDb + (l.takeGainDb ?? NaN))).size).toBe(1);
    const none = await application.compare.table(requestOf(takes, { match: 'none' }));
    expect(new Set(none.lanes.map((l) => l.appliedDb))).toEqual(new Set([0]));
    // A loop is levelled by itself.
    const loop = await application.compare.table(requestOf(takes, { loop: { fromS: 2.6, toS: 4.2 } }));
    expect(loop.lanes[0].loudnessLufs).not.toBeCloseTo(loud.lanes[0].loudnessLufs ?? 0, 2);
    expect(compareRequestSchema.safeParse({ takes, zero: takes[0], loop: { fromS: 2, toS: 2.2 } }).success).toBe(false);
    await expect(application.compare.table(requestOf([...takes, '999']))).rejects.toThrow(/no measured take/);
  });

  it('levels a loop the same, whatever was asked before: the loop of a clip that begins later is its own', async () => {
    const application = await testApplication();
    const [early] = await importUnits(application, 1);
    // The same reading half a second later: what was quiet at its end stands in front.
    const wav = unitWav(0);
    const [header, sound] = [wav.subarray(0, 44), wav.subarray(44)];
    const half = 0.5 * 48_000 * 3;
    const late = Uint8Array.from([...header, ...sound.subarray(-half), ...sound.subarray(0, -half)]);
    const specimen = { maker: 'Oarlock', model: 'Steward', label: 'A', category: 'microphone' } as const;
    const { specimenId } = await application.runImport.importFolder(
      writeRunFolder(temporaryFolder(), runDocument({ specimen, date: '2026-05-04' }), { 'speech.wav': late }),
    );
    await application.queue.idle();
    const { runs } = await application.catalogue.sheet(specimenId);
    const takes = [early.takeId, runs[0].takes[0].id];
    // It ends in the middle of a word: laid over by the clock alone, the two loops hold other sound.
    const ask = () => application.compare.table(requestOf(takes, { loop: { fromS: 0.9, toS: 2.2 } }));
    const before = await ask();
    const [a, b] = before.lanes.map((l) => l.loudnessLufs ?? 0);
    expect(Math.abs(a - b)).toBeLessThan(0.1);
    await application.compare.difference(takes[0], takes[1]);
    expect(await ask()).toEqual(before);
  });

  it('warns of other versions, rigs and steps', async () => {
    const application = await testApplication();
    const [unit] = await importUnits(application, 1);
    const later = await application.runImport.importFolder(
      writeRunFolder(temporaryFolder(), runDocument({ date: '2026-05-05', protocolVersion: 2, specimen: { maker: 'Oarlock', model: 'Lugger', label: 'A', category: 'microphone' } }), { 'speech.wav': unitWav(2) }), // prettier-ignore
    );
    await application.queue.idle();
    const takes = (await application.catalogue.sheet(later.specimenId)).runs[0].takes;
    const speech = takes.find((t) => t.step === 'speech')?.id ?? '';
    const rear = takes.find((t) => t.step === 'rear')?.id ?? '';
    const { lanes } = await application.compare.table(requestOf([unit.takeId, speech, rear]));
    expect(lanes[0].warning).toBeNull();
    expect(lanes[2].warning).toContain('Another step');
    const known = await application.protocols.find('desk-voice', 2);
    expect(known).not.toBeNull();
  });

  it('recovers what one clip has been filtered by, and lays one over the other', async () => {
    const application = await testApplication();
    const units = await importUnits(application, 3);
    // High-passed at 60 and at 240 Hz.
    const difference = await application.compare.difference(units[0].takeId, units[2].takeId);
    expect(difference).toMatchObject({ method: 'transfer', map: { kind: 'performance' } });
    const at = (hz: number): number => difference.points.find((p) => Math.abs(p.hz / hz - 1) < 0.03)?.db ?? 0;
    expect(Math.abs(at(1000))).toBeLessThan(0.5);
    expect(at(150)).toBeLessThan(-5);
    expect(Math.abs(difference.map.anchors[0][1])).toBeLessThan(0.001);
  });

  it('keeps sets with a name and a link, takes them off the list and puts them back', async () => {
    const application = await testApplication();
    const units = await importUnits(application, 2);
    const kept = await application.compareSets.keep(
      'Spring pair',
      requestOf(
        units.map((u) => u.takeId),
        { match: 'gain' },
      ),
    );
    expect(await application.compareSets.find(kept.id)).toMatchObject({
      name: 'Spring pair',
      match: 'gain',
      loop: null,
    });
    await application.compareSets.remove(kept.id, true);
    expect(await application.compareSets.list()).toEqual([]);
    expect((await application.compareSets.find(kept.id)).name).toBe('Spring pair');
    await application.compareSets.remove(kept.id, false);
    expect(await application.compareSets.list()).toHaveLength(1);
    await expect(application.compareSets.find('77')).rejects.toThrow(/no comparison/);
  });

  it('exports matched copies, originals bit for bit, and what was applied', async () => {
    const application = await testApplication();
    const units = await importUnits(application, 2);
    const path = join(temporaryFolder(), 'set.zip');
    const request = requestOf(units.map((u) => u.takeId));
    const exported = await application.comparisonExport.zip(request, 'Spring pair');
    copyFileSync(exported.path, path);
    await exported.cleanUp();
    expect(readdirSync(join(application.status.dataFolder, 'incoming'))).toEqual([]);
    const files = await unzipped(path);
    expect([...files.keys()].map((n) => n.split('/')[0]).sort()).toEqual(['levels.txt', 'matched', 'matched', 'original', 'original']); // prettier-ignore
    const text = files.get('levels.txt')?.toString('utf8') ?? '';
    const { lanes, targetLufs } = await application.compare.table(request);
    for (const lane of lanes)
      expect(text).toContain(`${lane.appliedDb >= 0 ? '+' : ''}${lane.appliedDb.toFixed(2)} dB`);
    for (const [name, bytes] of files) {
      if (name.startsWith('matched/')) {
        const { lufs, peak } = await loudnessOf(bytes);
        expect(Math.abs(lufs - (targetLufs ?? 0))).toBeLessThan(0.1);
        expect(peak).toBeLessThanOrEqual(-0.99);
      }
      if (name.startsWith('original/')) {
        const index = Number(name.split('/')[1].split(' ')[0]) - 1;
        const clip = await application.store.find(lanes[index].sha256);
        expect(bytes.equals(readFileSync(clip ?? ''))).toBe(true);
      }
    }
  });

  it('opens a with/without pair as one: gain added, noise changed, the hidden low-cut', async () => {
    const application = await testApplication();
    const protocol = (await application.protocols.protocols()).find(
      (p) => p.id === 'inline-booster' && p.version === 1,
    );
    const step = protocol?.steps.find((s) => s.pair);
    const other = protocol?.steps.find((s) => s.id === step?.pair?.step);
    expect(step && other).toBeTruthy();
    const voice = syllables([[0.4, 2], [2.5, 4.3]], 6, -30, 48_000, 3); // prettier-ignore
    const clean = mixed(voice, scaled(lcgNoise(voice.length, 1, 9), -82));
    const boosted = scaled(clean, 12);
    new BiquadCascade(butterworthHighPass(2, 120, 48_000)).process(boosted);
    const withId = step?.accessories.length ? step.id : (other?.id ?? '');
    const files = Object.fromEntries(
      (protocol?.steps ?? []).map((s) => [
        `${s.id}.wav`,
        encodeWav([s.id === withId ? boosted : clean], 48_000, 'pcm24'),
      ]),
    );
    const takes = (protocol?.steps ?? [])
      .filter((s) => !s.table)
      .map((s) => ({ step: s.id, file: `${s.id}.wav`, gainDb: 40 }));
    const folder = writeRunFolder(
      temporaryFolder(),
      { ...runDocument({ specimen: { maker: 'Oarlock', model: 'Hoist', label: 'A', category: 'booster' } }), protocol: 'inline-booster', protocolVersion: 1, takes, points: [] }, // prettier-ignore
      files,
    );
    const { specimenId } = await application.runImport.importFolder(folder);
    await application.queue.idle();
    const recorded = (await application.catalogue.sheet(specimenId)).runs[0].takes;
    const [a, b] = [step?.id, other?.id].map((id) => recorded.find((t) => t.step === id)?.id ?? '');
    const { pair } = await application.compare.table(requestOf([a, b]));
    expect(pair?.varies).toBe(step?.pair?.varies);
    expect(pair?.withTake).toBe(recorded.find((t) => t.step === withId)?.id);
    // 12 dB, less what the low-cut takes from the loudness.
    expect(Math.abs((pair?.addedGainDb ?? 0) - 12)).toBeLessThan(1);
    const { lowCut } = await application.compare.difference(pair?.withoutTake ?? '', pair?.withTake ?? '');
    expect(lowCut).toMatchObject({ kind: 'found', order: 2 });
    expect(Math.abs((lowCut.kind === 'found' ? lowCut.cornerHz : 0) - 120)).toBeLessThan(8);
  });
});
