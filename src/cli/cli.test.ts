import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { BiquadCascade, cascadeGainDb, type Biquad } from '#core/dsp/biquad';
import { highPass, peaking } from '#core/dsp/eq-biquads';
import { lcgNoise, mixed, scaled, sine, syllables } from '#core/testing/signals';
import { clipSummarySchema, type ClipSummary } from '#contracts/clip-summary';
import { differenceReportSchema, responseReportSchema, toneReportSchema } from '#contracts/comparisons';
import { takeWav, temporaryFolder } from '#server/testing/application';
import { runToEnd } from '#server/testing/process';
import { packageRoot, packageVersion } from '#server/platform/package-root';
import { readClip } from '#worker/read-clip';

const sediment = (...args: string[]): ReturnType<typeof runToEnd> => runToEnd('bin/sediment', args);

describe('sediment', () => {
  it('tells its version and its commands, and refuses a name that is none', async () => {
    expect(await sediment('--version')).toMatchObject({ code: 0, stdout: `${packageVersion}\n`, stderr: '' });
    const help = await sediment('--help');
    for (const command of ['analyze', 'rank', 'sweep', 'listen']) expect(help.stdout).toContain(`  ${command} `);
    // Every object has a name such as the second.
    for (const name of ['analyse', 'toString']) {
      expect(await sediment(name, 'x.wav'), name).toMatchObject({ code: 1, stdout: '', stderr: expect.stringMatching(`unknown command '${name}'`) as string }); // prettier-ignore
    }
  });
});

describe('sediment analyze', () => {
  it('prints JSON of the documented shape, WAV and FLAC alike', async () => {
    const folder = temporaryFolder();
    const tone = join(folder, 'tone.wav');
    writeFileSync(tone, encodeWav([sine(1000, -20, 3)], 48_000, 'pcm24'));
    const flac = join(packageRoot, 'demo/speech/low.flac');
    const { code, stdout, stderr } = await sediment('analyze', tone, flac, '--json');
    expect({ code, stderr }).toEqual({ code: 0, stderr: '' });
    const [first, second] = (JSON.parse(stdout) as { file: string }[]).map((r) => ({
      file: r.file,
      ...clipSummarySchema.parse(r),
    }));
    expect(first.file).toBe(tone);
    expect(first.format).toEqual({
      container: 'wav',
      encoding: 'pcm24',
      sampleRateHz: 48_000,
      channels: 1,
      durationS: 3,
    });
    expect(first.level.rmsDbfs).toBeCloseTo(-20, 3);
    expect(first.loudness.integratedLufs).toBeCloseTo(-23, 1);
    expect(first.thirdOctave.find((b) => b.centreHz === 1000)?.levelDbfs).toBeCloseTo(-20, 1);
    expect(second.format).toMatchObject({ container: 'flac', encoding: 'flac16', sampleRateHz: 48_000 });
    expect(second.noise.speech.length).toBeGreaterThan(0);
  });

  it('decodes what is compressed, and withholds what its codec decides', async () => {
    const fixture = (name: string): string => join(packageRoot, 'src/worker/testing', name);
    const { code, stdout, stderr } = await sediment('analyze', fixture('tone.mp3'), fixture('tone.m4a'), '--json');
    expect(code).toBe(1);
    expect(stderr).toMatch(/tone\.m4a: AAC, \d+ kbit\/s is decoded by the browser/);
    const [mp3] = JSON.parse(stdout) as ClipSummary[];
    // ffmpeg reads −17.5 dB plain RMS of it; a full-scale sine is 0 dBFS here (AES17).
    expect(mp3.level.rmsDbfs).toBeCloseTo(-17.52 + 3.01, 1);
    expect(mp3.measurements['hum']?.notMeasured).toContain('MP3, 64 kbit/s');
  });

  it('prints a table for people, goes on after a bad file, names it in one line, and ends with 1', async () => {
    const folder = temporaryFolder();
    writeFileSync(join(folder, 'good.wav'), takeWav(-14, -70));
    writeFileSync(join(folder, 'bad.wav'), 'not audio');
    const { code, stdout, stderr } = await sediment(
      'analyze',
      join(folder, 'bad.wav'),
      join(folder, 'absent.wav'),
      join(folder, 'good.wav'),
    );
    expect(code).toBe(1);
    expect(stderr.trim().split('\n')).toEqual([
      expect.stringMatching(/bad\.wav: This is no sound that is known here/),
      expect.stringMatching(/absent\.wav: there is no such file/),
    ]);
    expect(stdout).toMatch(/good\.wav.*4\.00 s.*dBFS.*LUFS/);
  });
});

describe('sediment sweep, response, difference, match, peaks', () => {
  const rate = 48_000;
  const json = async (...args: string[]): Promise<unknown> => {
    const { code, stdout, stderr } = await sediment(...args);
    expect({ code, stderr }).toEqual({ code: 0, stderr: '' });
    return JSON.parse(stdout);
  };

  it('a sweep is written, and what a filter did to it is found again, with impulse response and text', async () => {
    const folder = temporaryFolder();
    const [sweep, recorded, reference] = ['sweep.wav', 'recorded.wav', 'reference.wav'].map((n) => join(folder, n));
    const made = await sediment('sweep', '--out', sweep, '--seconds', '3', '--rate', String(rate));
    expect(made.code).toBe(0);
    expect(made.stdout).toMatch(/loud in headphones/);
    // Nothing is written over.
    expect((await sediment('sweep', '--out', sweep)).stderr).toMatch(/is there already; nothing was written/);
    const { samples: played } = await readClip(sweep);
    expect(played.length).toBe(3 * rate);
    const through = (sections: Biquad[]): Float64Array => {
      const out = new Float64Array(played.length + rate);
      out.set(played, 5000);
      new BiquadCascade(sections).process(out);
      return out;
    };
    const [box, bell] = [highPass(rate, 80), peaking(rate, 3000, 5, 1)];
    writeFileSync(recorded, encodeWav([through([box, bell])], rate, 'pcm24'));
    writeFileSync(reference, encodeWav([through([box])], rate, 'pcm24'));
    const [impulse, text] = [join(folder, 'ir.wav'), join(folder, 'response.txt')];
    const own = responseReportSchema.parse(
      await json('response', '--sweep', sweep, '--recorded', reference, '--impulse', impulse, '--text', text, '--json'),
    );
    expect(Math.abs((own.measurements.responseLow3?.value ?? 0) / 80 - 1)).toBeLessThan(0.03);
    expect(own.delayS * rate).toBeCloseTo(5000, 2);
    expect((await readClip(impulse)).samples.length).toBe(rate);
    expect(readFileSync(text, 'utf8')).toMatch(/^\* .*\n\* valid from/);
    const relative = responseReportSchema.parse(
      await json(
        'response',
        '--sweep',
        sweep,
        '--recorded',
        recorded,
        '--reference',
        reference,
        '--gate-ms',
        '50',
        '--json',
      ),
    );
    expect(relative.lowestValidHz).toBeCloseTo(20, 2);
    for (const { hz, db } of relative.points.filter((p) => p.hz > 100 && p.hz < 15_000)) {
      expect(Math.abs(db - cascadeGainDb([bell], hz, rate))).toBeLessThan(0.1);
    }
    expect((await sediment('response', '--sweep', sweep, '--recorded', recorded)).stdout).toMatch(
      /Lower limit, −3 dB.*Hz/,
    );
    expect((await sediment('response', '--sweep', recorded, '--recorded', join(folder, 'none.wav'))).code).toBe(1);
  });

  it('tones give their distortion, and the level in each channel', async () => {
    const folder = temporaryFolder();
    const file = join(folder, 'tones.wav');
    const bent = sine(997, -1, 4).map((x) => x + 0.002 * x * x);
    writeFileSync(file, encodeWav([bent, sine(997, -61, 4)], 48_000, 'pcm24'));
    const found = toneReportSchema.parse(await json('tone', file, '--json'));
    // x + ax²: the second harmonic has half of aA² beside A, by the sums of angles.
    expect(found.thd.db).toBeCloseTo(20 * Math.log10((0.002 * 10 ** (-1 / 20)) / 2), 1);
    expect(found.channelsDbfs[1]).toBeCloseTo(-61, 1);
    expect((await sediment('tone', file)).stdout).toMatch(/^Tone\t997\.0 Hz at −1\.00 dBFS\nTHD\+N\t−61\.0 dB/);
    const short = join(folder, 'short.wav');
    writeFileSync(short, encodeWav([sine(997, -1, 1)], 48_000, 'pcm16'));
    expect((await sediment('tone', short)).stderr).toMatch(/too short.*65,536 samples/);
  });

  it('a difference gives delay, level and a hidden low-cut', async () => {
    const folder = temporaryFolder();
    const speech = mixed(
      syllables(
        [
          [0.4, 2.6],
          [3.2, 5.4],
        ],
        6,
        -14,
      ),
      lcgNoise(6 * rate, 1e-4, 9),
    );
    const cut = scaled(speech, -6);
    new BiquadCascade([highPass(rate, 120)]).process(cut);
    const late = new Float64Array(cut.length + 480);
    late.set(cut, 480);
    const [a, b] = [join(folder, 'a.wav'), join(folder, 'b.wav')];
    writeFileSync(a, encodeWav([speech], rate, 'pcm24'));
    writeFileSync(b, encodeWav([late], rate, 'pcm24'));
    const found = differenceReportSchema.parse(await json('difference', a, b, '--json'));
    expect(Math.abs(found.lagS - 0.01)).toBeLessThan(0.001);
    expect(found.levelDb).toBeCloseTo(-6, 2);
    const { lowCut } = found;
    expect(lowCut.kind === 'found' && lowCut.order).toBe(2);
    expect(Math.abs((lowCut.kind === 'found' ? lowCut.cornerHz : 0) / 120 - 1)).toBeLessThan(0.05);
    expect((await sediment('difference', a, b)).stdout).toMatch(/low-cut of order 2/);
    writeFileSync(join(folder, 'c.wav'), encodeWav([speech], 44_100, 'pcm24'));
    expect((await sediment('difference', a, join(folder, 'c.wav'))).stderr).toMatch(/44100 Hz.*one sample rate/);
  });

  it('matched copies are equally loud, and nothing is written when anything is wrong', async () => {
    const folder = temporaryFolder();
    const files = [-10, -30].map((level, i) => {
      const file = join(folder, `take${i}.wav`);
      writeFileSync(file, encodeWav([sine(1000, level, 2)], rate, 'pcm24'));
      return file;
    });
    const silent = join(folder, 'silent.wav');
    writeFileSync(silent, encodeWav([new Float64Array(rate)], rate, 'pcm16'));
    const out = join(folder, 'matched');
    expect((await sediment('match', ...files, silent, '--out', out)).stderr).toMatch(
      /silent\.wav: silence cannot be matched/,
    );
    expect(existsSync(out)).toBe(false);
    const result = (await json('match', ...files, '--out', out, '--json')) as {
      targetLufs: number;
      files: { gainDb: number; residualLu: number; out: string }[];
    };
    expect(result.targetLufs).toBe(-23);
    expect(result.files[1].gainDb - result.files[0].gainDb).toBeCloseTo(20, 2);
    for (const f of result.files) expect(Math.abs(f.residualLu)).toBeLessThan(0.05);
    expect((await readClip(result.files[0].out)).samples.length).toBe(2 * rate);
    expect((await sediment('match', ...files, '--out', out)).stderr).toMatch(/is there already/);
  });

  it('peaks are columns of a waveform; dual mono is 3 LU louder; limits are told', async () => {
    const folder = temporaryFolder();
    const file = join(folder, 'tone.wav');
    writeFileSync(file, encodeWav([sine(1000, -20, 2)], rate, 'pcm24'));
    const peaks = (await json('peaks', file)) as { durationS: number; pairs: number[] };
    expect(peaks.durationS).toBe(2);
    expect(Math.max(...peaks.pairs)).toBeCloseTo(0.1, 4);
    const loudness = async (...more: string[]): Promise<number> =>
      ((await json('analyze', file, '--json', ...more)) as ClipSummary[])[0].loudness.integratedLufs ?? NaN;
    expect((await loudness('--dual-mono')) - (await loudness())).toBeCloseTo(3.01, 2);
    const [{ loudness: whole }] = (await json('analyze', file, '--json', '--from', '1')) as ClipSummary[];
    expect(whole.part).toMatchObject({ startS: 1, endS: 2 });
    expect(whole.part?.integratedLufs).toBeCloseTo(whole.integratedLufs ?? NaN, 1);
    const refused = await sediment('sweep', '--out', join(folder, 's.wav'), '--seconds', 'ten');
    expect(refused.code).not.toBe(0);
    expect(refused.stderr).toMatch(/number from 0\.5 to 120/);
  });
});
