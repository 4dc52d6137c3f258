import { describe, expect, it } from 'vitest';
import { decoded } from '#core/testing/decoded';
import { processingLeft } from './recorder';
import { TakeWriter } from './take-writer';
import { loadBenchChoice, saveBenchChoice } from '../features/booth/bench-choice';

describe('recording', () => {
  it('cuts the stream into chunks of half a second that know their place and keep every sample', () => {
    const writer = new TakeWriter('r', 8000);
    const samples = Float32Array.from({ length: 10_000 }, (_, i) => Math.sin(i / 7) / 2);
    const chunks = [];
    for (let at = 0; at < samples.length; at += 1024) {
      const chunk = writer.push([samples.subarray(at, at + 1024)]);
      if (chunk) chunks.push(chunk);
    }
    const last = writer.flush();
    if (last) chunks.push(last);
    expect(writer.frames).toBe(samples.length);
    expect(chunks.map((c) => c.frame)).toEqual([0, 4096, 8192]);
    expect(writer.flush()).toBeNull();
    for (const { frame, bytes } of chunks) {
      decoded('pcm24', bytes)[0].forEach((x, i) =>
        expect(Math.abs(x - samples[frame + i])).toBeLessThanOrEqual(2 ** -24),
      );
    }
  });

  it('names what the browser does to the sound against its will', () => {
    const off = { echoCancellation: false, noiseSuppression: false, autoGainControl: false, sampleRate: 48_000 };
    expect(processingLeft(off, 48_000)).toEqual([]);
    expect(processingLeft({}, 48_000)).toEqual([]);
    expect(processingLeft({ ...off, autoGainControl: true }, 48_000)[0]).toContain('autoGainControl');
    expect(processingLeft(off, 44_100)[0]).toContain('resampled to 44.1 kHz');
    // Newer browsers tell of a kind of cancellation rather than of yes and no.
    expect(processingLeft({ ...off, echoCancellation: 'all' }, 48_000)).toHaveLength(1);
  });

  it('remembers the bench, but not its faults, and does not mind a broken memory', () => {
    const memory = new Map<string, string>();
    const storage = {
      getItem: (k: string) => memory.get(k) ?? null,
      setItem: (k: string, v: string) => void memory.set(k, v),
    };
    const usual = loadBenchChoice(storage);
    saveBenchChoice(storage, { ...usual, room: 'hall', faults: ['hum'] });
    expect(loadBenchChoice(storage)).toEqual({ ...usual, room: 'hall', faults: [] });
    memory.forEach((_, k) => memory.set(k, '{"room":1}'));
    expect(loadBenchChoice(storage)).toEqual(usual);
  });
});
