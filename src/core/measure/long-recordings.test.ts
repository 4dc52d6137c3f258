import { inBlocks } from '../testing/blocks';
import { describe, expect, it } from 'vitest';
import { ChannelBlock } from '../dsp/channel-block';
import { FramePowerMeter } from '../dsp/frame-power';
import { ToneFrames } from '../dsp/tone-frames';
import { analyse, joined, lcgNoise, mixed, scaled, sine, syllables } from '../testing/signals';
import { seededBits, uniform } from '../stats/random';
import { LiveMeter } from './live-meter';
import { loopLatency } from './loop-latency';
import { sameWords } from '../rules/same-words';
import { passageLikeness } from './passage-likeness';
import { cutRecording, type CutMethod } from './recording-cuts';
import { spectrumDistance } from './spectrum-distance';
import { strongestTone } from './strongest-tone';

const RATE = 16_000;
const quiet = (seconds: number): Float64Array => new Float64Array(Math.round(seconds * RATE));
const speech = (seconds: number, seed: number, level = -14): Float64Array =>
  syllables([[0.1, seconds - 0.1]], seconds, level, RATE, seed);
const inRoom = (sound: Float64Array): Float64Array => mixed(sound, scaled(lcgNoise(sound.length, 1, 99), -66));

function cuts(sound: Float64Array, method: CutMethod, silenceS: number | null = null): [number, number][] {
  const block = new ChannelBlock();
  const meter = new FramePowerMeter(RATE, block);
  const tones = new ToneFrames(RATE, 2000);
  inBlocks(sound, block, () => {
    meter.push();
    tones.push(block.samples, block.count);
  });
  return cutRecording(meter.kWeighted.view().slice(), Uint8Array.from(tones.marks), method, silenceS).map((p) => [
    p.startS,
    p.endS,
  ]);
}

/** Every expected take lies in a piece of its own, with at most `slack` more around it. */
function expectPieces(found: readonly [number, number][], takes: readonly [number, number][], slack: number): void {
  expect(found, JSON.stringify(found)).toHaveLength(takes.length);
  takes.forEach(([start, end], i) => {
    expect(found[i][0]).toBeLessThanOrEqual(start + 0.1);
    expect(found[i][0]).toBeGreaterThan(start - slack);
    expect(found[i][1]).toBeGreaterThanOrEqual(end - 0.1);
    expect(found[i][1]).toBeLessThan(end + slack);
  });
}

describe('cutting one long recording', () => {
  it('at its silences, without falling for pauses inside a reading', () => {
    const withPause = joined(speech(3, 2), quiet(1.2), speech(2, 3));
    const sound = inRoom(joined(quiet(2), speech(5, 1), quiet(3), withPause, quiet(2.6), speech(4, 4), quiet(3)));
    expectPieces(
      cuts(sound, 'silences'),
      [
        [2.1, 6.9],
        [10.1, 16.1],
        [18.9, 22.7],
      ],
      0.7,
    );
  });

  it('at its silences, with a pause as long as the silent step as a take of its own', () => {
    const sound = inRoom(joined(quiet(2), speech(5, 1), quiet(12), speech(4, 4), quiet(3)));
    expectPieces(
      cuts(sound, 'silences', 8),
      [
        [2.1, 6.9],
        [7.6, 18.4],
        [19.1, 22.9],
      ],
      0.8,
    );
    expect(cuts(sound, 'silences')).toHaveLength(2);
    // No sound, no takes: a recording of nothing is not one silent take.
    expect(cuts(inRoom(quiet(20)), 'silences', 8)).toEqual([]);
  });

  it('at pairs of marker tones, silent takes included', () => {
    const pair = joined(sine(2000, -12, 0.2, RATE), quiet(0.2), sine(2000, -12, 0.2, RATE));
    const sound = inRoom(joined(quiet(1), pair, speech(4, 1), pair, quiet(5), pair, speech(3, 2), quiet(1)));
    expectPieces(
      cuts(sound, 'tones'),
      [
        [1.7, 5.5],
        [6.3, 11.1],
        [11.9, 15],
      ],
      1.2,
    );
  });

  it('after short announcements', () => {
    const says = (seed: number): Float64Array => joined(quiet(1.2), speech(1, seed), quiet(1.4));
    const sound = inRoom(joined(says(1), speech(5, 2), says(3), quiet(5), says(4), speech(6, 5), quiet(2)));
    const found = cuts(sound, 'announcements');
    expect(found).toHaveLength(3);
    expect(found[0][0]).toBeGreaterThan(2.1);
    expect(found[0][0]).toBeLessThan(3.7);
    expect(found[0][1]).toBeGreaterThan(8.5);
    // The silent take between the second and the third announcement.
    expect(found[1][1] - found[1][0]).toBeGreaterThan(4.5);
  });

  it('finds nothing to cut in steady noise, and no markers in speech', () => {
    expect(cuts(inRoom(quiet(20)), 'silences')).toEqual([]);
    expect(cuts(inRoom(joined(speech(5, 1), quiet(2))), 'tones')).toEqual([]);
  });
});

describe('tone frames', () => {
  it('mark a tone of the right pitch, from soft to loud, and no other', () => {
    const share = (sound: Float64Array): number => {
      const tones = new ToneFrames(RATE, 2000);
      tones.push(sound, sound.length);
      return tones.marks.reduce((a, b) => a + b, 0) / tones.marks.length;
    };
    expect(share(sine(2000, -3, 1, RATE))).toBe(1);
    expect(share(sine(2000, -60, 1, RATE))).toBe(1);
    expect(share(sine(2100, -12, 1, RATE))).toBe(0);
    expect(share(lcgNoise(RATE, 0.5))).toBe(0);
    expect(share(quiet(1))).toBe(0);
  });
});

describe('the live meter', () => {
  it.each([
    [44_100, 1],
    [48_000, 2],
  ])('says at the end what the analysis says (%i Hz, %i channels), whatever the blocks', async (rate, count) => {
    const channels = Array.from({ length: count }, (_, c) =>
      mixed(syllables([[0.2, 2.8]], 3, -8 - 3 * c, rate, 5 + c), scaled(lcgNoise(3 * rate, 1, c + 1), -60)),
    );
    const meter = new LiveMeter(rate, count);
    for (let at = 0, size = 1; at < channels[0].length; at += size, size = (size * 7 + 128) % 9000 || 1) {
      meter.push(channels.map((x) => x.subarray(at, Math.min(at + size, x.length))));
    }
    const live = meter.finish();
    const { level, loudness } = await analyse(channels, rate);
    expect(live.frames).toBe(channels[0].length);
    expect(live.peakDbfs).toBe(level.peakDbfs);
    expect(live.clippedRuns).toBe(level.clippedRuns);
    expect(live.truePeakDbtp).toBeCloseTo(loudness.truePeakDbtp, 9);
  });

  it('shows the momentary loudness of the last 0.4 s, the RMS of the last 0.3 s, and the peak since it was asked last', () => {
    const meter = new LiveMeter(48_000, 1);
    meter.push([sine(997, -20, 1)]);
    const loud = meter.read();
    // BS.1770-5: a 997 Hz sine at 0 dBFS in one channel reads −3.01 LUFS; AES17: its RMS is 0 dBFS.
    expect(loud.momentaryLufs).toBeCloseTo(-23.01, 1);
    expect(loud.rmsDbfs).toBeCloseTo(-20, 2);
    expect(loud.recentPeakDbfs).toBeCloseTo(-20, 2);
    meter.push([sine(997, -40, 1)]);
    const soft = meter.read();
    expect(soft.recentPeakDbfs).toBeCloseTo(-40, 1);
    expect(soft.peakDbfs).toBeCloseTo(-20, 2);
    expect(soft.momentaryLufs).toBeCloseTo(-43.01, 1);
    expect(meter.read().recentPeakDbfs).toBe(-Infinity);
  });

  it('says nothing before anything came', () => {
    expect(new LiveMeter(48_000, 1).read()).toMatchObject({ frames: 0, peakDbfs: -Infinity, momentaryLufs: -Infinity });
  });
});

describe('two readings of one text', () => {
  const steps = (sound: Float64Array): Promise<Float64Array> =>
    analyse([inRoom(sound)], RATE).then((a) => a.stepPowers);
  type Phrases = [number, number][];

  /** Phrases of 0.5 to 2.5 s with pauses of 0.25 to 0.75 s between them, as a text has them. */
  function text(seed: string): Phrases {
    const bits = seededBits(seed);
    const phrases: Phrases = [];
    for (let t = 0.3; t < 14;) {
      const length = 0.5 + 2 * uniform(bits);
      phrases.push([t, t + length]);
      t += length + 0.25 + 0.5 * uniform(bits);
    }
    return phrases;
  }

  /** The same text read anew: every phrase up to 12 % longer or shorter. */
  function readAnew(phrases: Phrases, seed: string): Phrases {
    const bits = seededBits(seed);
    let shift = 0;
    return phrases.map(([start, end]) => {
      const length = (end - start) * (1 + 0.12 * (2 * uniform(bits) - 1));
      const phrase: [number, number] = [start + shift, start + shift + length];
      shift += length - (end - start) + 0.04 * (2 * uniform(bits) - 1);
      return phrase;
    });
  }

  const read = (phrases: Phrases, seed: number, level = -14): Promise<Float64Array> =>
    steps(syllables(phrases, (phrases.at(-1)?.[1] ?? 0) + 1, level, RATE, seed));

  it('follow each other, faster or slower, louder or softer; another text does not (labelled takes)', async () => {
    let [told, refused] = [0, 0];
    for (let i = 0; i < 12; i++) {
      const phrases = text(`text ${i}`);
      const first = await read(phrases, 3);
      const again = await read(readAnew(phrases, `again ${i}`), 9, -22);
      const other = await read(text(`other ${i}`), 5);
      // The check's limit is 0.75: no reading of the same text may come near it.
      expect(passageLikeness(first, again), `again ${i}`).toBeGreaterThan(0.85);
      if ((passageLikeness(first, other) ?? 1) < 0.75) told++;
      expect(sameWords(first, again), `again ${i}`).toEqual({ kind: 'same', text: '' });
      if (sameWords(first, other).kind === 'different') refused++;
    }
    // Texts of equal length whose pauses happen to lie alike cannot be told by loudness alone.
    expect(told).toBeGreaterThanOrEqual(10);
    // Half of the other texts are refused outright, the rest is marked as doubtful.
    expect(refused).toBeGreaterThanOrEqual(6);
  });

  it('cannot be told from silence', async () => {
    const reading = await read(text('a'), 1);
    expect(passageLikeness(reading, new Float64Array(50))).toBeNull();
    // The very same course at −90 LUFS is no reading of anything.
    expect(
      passageLikeness(
        reading,
        reading.map((p) => p * 1e-9),
      ),
    ).toBeNull();
    expect(passageLikeness(reading, reading)).toBeCloseTo(1, 9);
  });
});

describe('distance between spectra', () => {
  const bands = (shape: (hz: number) => number) =>
    [100, 125, 160, 200, 250, 315, 400, 500, 630, 800, 1000, 1250, 1600, 2000, 4000, 8000].map((centreHz) => ({
      centreHz,
      levelDbfs: shape(centreHz),
    }));

  it('does not mind level, and is the RMS of what differs', () => {
    expect(
      spectrumDistance(
        bands(() => -30),
        bands(() => -50),
      ),
    ).toBeCloseTo(0, 9);
    // Half of the bands up by 2 dB: ±1 dB about the mean.
    expect(
      spectrumDistance(
        bands(() => -30),
        bands((hz) => (hz < 550 ? -28 : -30)),
      ),
    ).toBeCloseTo(1, 9);
  });

  it('leaves out bands that hold only noise, and says so where too few are left', () => {
    expect(
      spectrumDistance(
        bands(() => -30),
        bands((hz) => (hz > 300 ? -100 : -30)),
      ),
    ).toBeNull();
  });
});

describe('readings', () => {
  it('finds level and frequency of a calibrator, and no tone in noise', () => {
    const tone = strongestTone(mixed(sine(1000, -23.4, 2), scaled(lcgNoise(96_000, 1), -70)), 48_000);
    expect(tone?.dbfs).toBeCloseTo(-23.4, 1);
    expect(tone?.hz).toBeCloseTo(1000, 2);
    expect(strongestTone(lcgNoise(96_000, 0.1), 48_000)).toBeNull();
    expect(strongestTone(new Float64Array(96_000), 48_000)).toBeNull();
    expect(strongestTone(new Float64Array(100), 48_000)).toBeNull();
  });

  it('finds the delay of a loop, turned over or not, and none between strangers', () => {
    const burst = joined(new Float64Array(1000), lcgNoise(2000, 0.5), new Float64Array(9000));
    const late = joined(new Float64Array(259), burst.subarray(0, burst.length - 259)).map((x) => -0.3 * x);
    const loop = loopLatency(burst, late, 48_000);
    expect(loop?.samples).toBeCloseTo(259, 2);
    expect(1000 * (loop?.seconds ?? 0)).toBeCloseTo(5.396, 3);
    expect(loop?.coefficient).toBeCloseTo(-1, 2);
    expect(loopLatency(burst, lcgNoise(12_000, 0.5, 77), 48_000)).toBeNull();
  });
});
