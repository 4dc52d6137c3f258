import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { joined, lcgNoise, mixed, scaled, syllables } from '#core/testing/signals';
import { temporaryFolder } from '#server/testing/application';
import analyseClip from '#worker/tasks/analyse-clip';
import { noneTaken } from '#worker/taken-count';
import { measureClips, type Measured } from './measure-clips';

const RATE = 16_000;

function take(folder: string, name: string, seconds: number, level = -20): string {
  const path = join(folder, name);
  const spoken = syllables([[0.2, seconds - 1.2]], seconds, level, RATE, seconds);
  writeFileSync(path, encodeWav([mixed(spoken, scaled(lcgNoise(spoken.length, 1, 5), -66))], RATE, 'pcm24'));
  return path;
}
const order = (path: string) => ({ path, progress: null, dualMono: false, part: null, sound: null });
const refused = (m: Measured): string | null => ('refused' in m ? m.refused : null);
const lengths = (found: readonly Measured[]) => found.map((m) => ('result' in m ? m.result.summary.format.durationS : m.refused)); // prettier-ignore

describe('clips that all threads measure', () => {
  it('come back in their order, each as it is measured alone', async () => {
    const folder = temporaryFolder();
    const paths = [
      take(folder, 'a.wav', 2),
      take(folder, 'b.wav', 7),
      take(folder, 'c.wav', 3),
      take(folder, 'd.wav', 5),
    ];
    const found = await measureClips(paths.map(order), { threads: 3 });
    expect(lengths(found)).toEqual([2, 7, 3, 5]);
    for (const [i, path] of paths.entries()) expect(found[i]).toMatchObject({ result: await analyseClip(order(path)) });
  });

  it('are refused one by one', async () => {
    const folder = temporaryFolder();
    const text = join(folder, 'text.wav');
    writeFileSync(text, 'Not a sound at all, but long enough to have a beginning.');
    const found = await measureClips([order(text), order(take(folder, 'e.wav', 2)), order(join(folder, 'gone.wav'))], {
      threads: 2,
    });
    expect(refused(found[0])).toMatch(/neither a WAV nor a FLAC/);
    expect(lengths([found[1]])).toEqual([2]);
    expect(refused(found[2])).toMatch(/ENOENT/);
  });

  it('go on where a thread dies; what it had taken is refused with it', async () => {
    const folder = temporaryFolder();
    // A thread that takes a clip, and ends before this one is told.
    writeFileSync(
      join(folder, 'thread.js'),
      `const { workerData } = require('node:worker_threads'); if (workerData.data.taken) Atomics.add(workerData.data.taken, 0, 1); process.exit(7);`,
    );
    const paths = ['f', 'g', 'h', 'i'].map((name, i) => take(folder, `${name}.wav`, 12 - i));
    const found = await measureClips(paths.map(order), { threads: 2, workers: folder });
    const lost = found.filter((m) => refused(m) !== null);
    // It may have come too late to take anything.
    expect(lost.length).toBeLessThanOrEqual(1);
    for (const m of lost) expect(refused(m)).toBe('A thread ended with 7.');
    // Of a clip that it only helps with nothing is lost.
    const [shared] = await measureClips([order(paths[0])], { threads: 2, bytesPerThread: 1000, workers: folder });
    expect(shared).toMatchObject({ result: await analyseClip(order(paths[0])) });
  });

  it('are nothing where there are none', async () => {
    expect(await measureClips([], { threads: 2 })).toEqual([]);
  });
});

describe('a long clip', () => {
  // Every clip is cut, and more than one minute of it is worth a thread.
  const SHARED = { bytesPerThread: 100_000, longFrom: 1 };
  const byOne = (task: ReturnType<typeof order>) =>
    analyseClip({ ...task, shared: { taken: noneTaken(), longFrom: 1 } });

  it('is shared by threads, and measured as by one; what is left over comes after it', async () => {
    const folder = temporaryFolder();
    const long = take(folder, 'long.wav', 130);
    const alone = await byOne(order(long));
    expect(alone.summary.noise.silence.length).toBeGreaterThan(0);
    expect(await measureClips([order(long)], { ...SHARED, threads: 3 })).toMatchObject([{ result: alone }]);
    const short = take(folder, 'short.wav', 2);
    const found = await measureClips([order(short), order(long), order(short)], { ...SHARED, threads: 2 });
    expect(lengths(found)).toEqual([2, 130, 2]);
    expect(found[1]).toMatchObject({ result: alone });
    // A codec decides what noise is left, however many measure.
    const packed = { ...order(long), sound: { container: 'mp3', codec: 'mp3', bitRateKbps: 64 } } as const;
    const [withheld] = await measureClips([packed], { ...SHARED, threads: 2 });
    expect('result' in withheld && withheld.result.detail.noise?.refused).toMatch(/MP3/i);
  });

  it('is shared where there are fewer clips than threads, and dealt out whole where there are more', async () => {
    const folder = temporaryFolder();
    const [a, b, short] = [take(folder, 'a.wav', 70), take(folder, 'b.wav', 71), take(folder, 'short.wav', 2)];
    const [cut, whole] = [[await byOne(order(a)), await byOne(order(b))], [await analyseClip(order(a)), await analyseClip(order(b))]]; // prettier-ignore
    // Rounding tells which it was.
    expect(cut).not.toEqual(whole);
    const results = async (threads: number) =>
      (await measureClips([order(a), order(short), order(b)], { ...SHARED, threads })).map((m) => 'result' in m && m.result); // prettier-ignore
    const [few, many] = [await results(4), await results(3)];
    expect([few[0], few[2]]).toEqual(cut);
    expect([many[0], many[2]]).toEqual(whole);
    expect(few[1]).toEqual(many[1]);
  });

  it('is measured as in one piece, but for what rounding leaves', async () => {
    const long = take(temporaryFolder(), 'long.wav', 70);
    const [cut, whole] = [await byOne(order(long)), await analyseClip(order(long))];
    expect(cut.measurements.length).toBe(whole.measurements.length);
    for (const [i, { quantity, value, uncertainty }] of whole.measurements.entries()) {
      expect(cut.measurements[i].quantity).toBe(quantity);
      // A millionth of the unit would be another version of the algorithms.
      if (value === null) expect(cut.measurements[i].value, quantity).toBeNull();
      else expect(Math.abs((cut.measurements[i].value ?? NaN) - value), quantity).toBeLessThan(1e-6);
      if (uncertainty !== null) expect(cut.measurements[i].uncertainty, quantity).toBeCloseTo(uncertainty, 6);
    }
    expect(cut.summary.noise.silence).toEqual(whole.summary.noise.silence);
  });

  it('is refused for what is wrong with it, whichever thread meets it', async () => {
    const bytes = encodeWav(
      [joined(lcgNoise(70 * RATE, 0.1), Float64Array.of(NaN), lcgNoise(70 * RATE, 0.1))],
      RATE,
      'float32',
    );
    const broken = join(temporaryFolder(), 'broken.wav');
    writeFileSync(broken, bytes);
    const [found] = await measureClips([order(broken)], { ...SHARED, threads: 2 });
    expect(refused(found)).toMatch(/Channel 1 holds a sample that is NaN at 70\.0000 s/);
  });
});
