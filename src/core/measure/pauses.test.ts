import { describe, expect, it } from 'vitest';
import { BandPowerFrames, bandPowerRoom, VALUES_PER_FRAME, Z_TOTAL } from '../dsp/band-power-frames';
import { ChannelBlock } from '../dsp/channel-block';
import { inBlocks } from '../testing/blocks';
import { quantised } from '../testing/quantised';
import { colouredNoise, noisyTake, NOISY_RATE, PHRASES, type PauseFault } from '../testing/noisy-takes';
import { coverage, share } from '../testing/studies/coverage';
import { pauseFaults, ROOM_CORNER_HZ, shortPause, trueNoise } from '../testing/studies/noise';
import { analyse, joined } from '../testing/signals';
import type { NoiseFindingKind } from './noise-finding';
import { silenceMeasurements } from './silence-noise';

// Truth: the level of the noise that the words stand in, from two minutes of the same noise (testing/studies/noise.ts).

const RATE = NOISY_RATE;
const noiseOf = async (fault: PauseFault, seed = 'a') => {
  const { noise } = await analyse([noisyTake(fault, seed, { cornerHz: ROOM_CORNER_HZ })]);
  if (!noise) throw new Error('no pause was found');
  return noise;
};
const kinds = (noise: { findings: readonly { kind: NoiseFindingKind }[] }): NoiseFindingKind[] =>
  noise.findings.map((f) => f.kind);

describe('noise from all pauses', () => {
  it.each([
    ['none', []],
    ['breath', ['sound']],
    ['padding', ['padding']],
  ] as const)('with %s in them is that of the room, within ±2u', async (fault, found) => {
    const truth = await trueNoise(ROOM_CORNER_HZ);
    const noise = await noiseOf(fault);
    expect(kinds(noise)).toEqual(found);
    expect(noise.bound).toBe('exact');
    expect(Math.abs(noise.a.levelDbfs - truth.a.levelDbfs)).toBeLessThan(2 * (noise.a.uncertaintyDb ?? 0));
    // One longest pause would have read 7.8 dB more, or 10.9 dB less.
    expect(noise.a.uncertaintyDb).toBeLessThan(0.3);
  });

  it('a click of 30 ms is left out, wherever it falls', async () => {
    const truth = await trueNoise(ROOM_CORNER_HZ);
    for (const seed of ['a', 'b', 'c']) {
      const noise = await noiseOf('click', seed);
      expect(Math.abs(noise.a.levelDbfs - truth.a.levelDbfs)).toBeLessThan(0.3);
    }
    // Where it falls into the middle of the one pause there is, its frames are left out, too.
    const quiet = colouredNoise(3, 10 ** (-75 / 20), null, 'quiet');
    colouredNoise(0.03, 10 ** (-50 / 20), null, 'click').forEach((x, i) => (quiet[RATE + i] += x));
    const { noise } = await analyse([quiet]);
    expect(Math.abs((noise?.z.levelDbfs ?? 0) - (-75 + 3.01 - 0.79))).toBeLessThan(0.3);
  });

  it('a click does not move the quasi-peak either, which would remember it', async () => {
    const reading = async (click: boolean) => {
      const take = noisyTake('none', 'q', { cornerHz: ROOM_CORNER_HZ });
      const at = Math.round((PHRASES[3][1] + 0.9) * RATE);
      if (click) colouredNoise(0.03, 10 ** (-50 / 20), null, 'click').forEach((x, i) => (take[at + i] += x));
      return (await analyse([take])).lines?.itu468Dbfs ?? NaN;
    };
    expect(Math.abs((await reading(true)) - (await reading(false)))).toBeLessThan(1.5);
  });

  it.each(['expander-15', 'expander-30'] as const)('%s hides it: no figure, and the reason', async (fault) => {
    const noise = await noiseOf(fault);
    expect(kinds(noise)).toContain('gate');
    expect(noise.refused).toMatch(/falls by (1[3-9]|[23]\d)\.\d dB after the words/);
    for (const m of silenceMeasurements(noise)) expect(m).toMatchObject({ value: null, notMeasured: noise.refused });
  });

  it.each([
    ['automatic-gain', 'at-most'],
    ['reverberation', 'at-most'],
  ] as const)('%s makes it a limit that holds, or widens it', async (fault, bound) => {
    const truth = await trueNoise(ROOM_CORNER_HZ);
    for (const seed of ['a', 'b']) {
      const { a, bound: found } = await noiseOf(fault, seed);
      const error = a.levelDbfs - truth.a.levelDbfs;
      if (found === 'exact') expect(Math.abs(error)).toBeLessThan(2 * (a.uncertaintyDb ?? 0));
      else {
        expect(found).toBe(bound);
        expect(error).toBeGreaterThan(-2 * (a.uncertaintyDb ?? 0));
      }
    }
  });

  it('a gain that rises in the pauses is named, and what is read is at most the noise', async () => {
    for (const seed of ['a', 'b']) {
      const noise = await noiseOf('automatic-gain', seed);
      expect(noise.findings.map((f) => f.text)).toEqual([expect.stringMatching(/^the level rises in the pauses, by [23]\.\d dB: automatic gain\?$/)]); // prettier-ignore
      expect([kinds(noise), noise.bound]).toEqual([['automatic-gain'], 'at-most']);
    }
  });

  it('a room that breathes by ±3 dB widens it', async () => {
    const [steady, breathing] = [await noiseOf('none'), await noiseOf('breathing')];
    expect(breathing.a.uncertaintyDb).toBeGreaterThan(5 * (steady.a.uncertaintyDb ?? Infinity));
  });

  // 40 pauses: 95 % are 38, with a deviation of 1.4. Two hundred are in pauses.deep.test.ts.
  it('±2u of one pause of 0.95 s holds the truth, white or like a room', async () => {
    for (const row of await shortPause(40)) expect(share(row), row.figure).toBeGreaterThan(0.87);
  });

  it('counts what a study refuses and limits', async () => {
    const [gated] = await pauseFaults(2, ['gated']);
    expect(gated).toMatchObject({ trials: 2, given: 0, limits: 0 });
    expect(coverage('x', [{ error: 3, u: 1, bound: 'at-most' }, { error: -3, u: 1, bound: 'at-least' }, { error: 3, u: 1 }, null])).toMatchObject({ inside: 2, given: 3, limits: 2 }); // prettier-ignore
  });
});

describe('silence is told by samples', () => {
  it('a gated take has no noise: not −386 dB, and not exact', async () => {
    for (const seed of ['a', 'b', 'c']) {
      const { noise } = await analyse([noisyTake('gated', seed)]);
      expect(noise?.refused).toMatch(/digital silence \(gate\?\)/);
      for (const m of silenceMeasurements(noise)) expect(m.value).toBeNull();
    }
  });

  it('a frame of zeros beside a loud one is zero, not what rounding leaves of its neighbour', () => {
    const block = new ChannelBlock(bandPowerRoom(RATE));
    const meter = new BandPowerFrames(RATE, block);
    const samples = joined(colouredNoise(1, 0.2, null, 'loud'), new Float64Array(RATE));
    inBlocks(samples, block, () => meter.push());
    meter.finish();
    const totals = Array.from({ length: meter.frames }, (_, f) => meter.values.view()[f * VALUES_PER_FRAME + Z_TOTAL]);
    const first = totals.indexOf(0);
    expect(first).toBeGreaterThan(0);
    expect(totals[first - 1]).toBeGreaterThan(1e-9);
    expect(totals.slice(first).every((t) => t === 0)).toBe(true);
  });

  it('zeros pasted at the edges are left out, and said so; the pauses between the words are read', async () => {
    const take = noisyTake('none', 'a', { cornerHz: ROOM_CORNER_HZ });
    take.fill(0, 0, Math.round(0.9 * RATE));
    take.fill(0, Math.round((PHRASES[3][1] + 1) * RATE));
    const { noise } = await analyse([take]);
    const truth = await trueNoise(ROOM_CORNER_HZ);
    expect(noise?.refused).toBeNull();
    expect(noise && kinds(noise)).toContain('padding');
    expect(Math.abs((noise?.a.levelDbfs ?? 0) - truth.a.levelDbfs)).toBeLessThan(0.4);
  });

  it('nothing below the steps of the format is a figure: 16 bits without dither end at −98 dBFS', async () => {
    // A sample in two thousand stands one step from zero: RMS far below that of rounding.
    const sparse = Float64Array.from({ length: 4 * RATE }, (_, i) => (i % 2000 === 0 ? 2 ** -15 : 0));
    const { noise } = await analyse([sparse], RATE, { encoding: 'pcm16' });
    expect(noise?.refused).toMatch(/below what 16 bits can hold|digital silence/);
    // Dithered noise of the same format is a figure: triangular dither and rounding together are q²/4.
    const dithered = quantised(new Float64Array(4 * RATE), 16, 'dither');
    const read = (await analyse([dithered], RATE, { encoding: 'pcm16' })).noise;
    expect(read?.refused).toBeNull();
    const expected = 10 * Math.log10((2 * (2 ** -15) ** 2 * 0.25 * (20_000 - 20)) / 24_000);
    expect(Math.abs((read?.z.levelDbfs ?? 0) - expected)).toBeLessThan(0.1);
  });

  it('says over which band it was read', async () => {
    const at = async (rate: number) => {
      const quiet = colouredNoise((3 * rate) / RATE, 1e-4, null, 'w');
      return silenceMeasurements((await analyse([quiet], rate)).noise)[1];
    };
    const [wide, narrow] = [await at(48_000), await at(8000)];
    expect(wide.condition).toMatch(/20 Hz–20 kHz/);
    expect(narrow.condition).toMatch(/20 Hz–4 kHz/);
    expect(wide.settings.highHz).toBe(20_000);
    expect(narrow.settings.highHz).toBeLessThan(4000);
  });
});
