import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { sine } from '#core/testing/signals';
import { clipSummarySchema } from '#contracts/clip-summary';
import { rankRowSchema } from '#contracts/ranking';
import { runDocument, takeWav, temporaryFolder, writeRunFolder } from '#server/testing/bench';
import { runToEnd, startServer } from '#server/testing/process';
import { packageRoot } from '#server/package-root';

const sediment = (...args: string[]): ReturnType<typeof runToEnd> => runToEnd('bin/sediment', args);

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
      expect.stringMatching(/bad\.wav: This is neither a WAV nor a FLAC file/),
      expect.stringMatching(/absent\.wav: there is no such file/),
    ]);
    expect(stdout).toMatch(/good\.wav.*4\.00 s.*dBFS.*LUFS/);
  });
});

describe('sediment import and rank', () => {
  it('work on a data folder by themselves', async () => {
    const data = temporaryFolder();
    const first = await sediment('import', writeRunFolder(temporaryFolder()), '--data', data);
    expect(first).toMatchObject({ code: 0, stderr: '', stdout: expect.stringMatching(/imported/) as string });
    const other = runDocument({
      specimen: { maker: 'Oarlock', model: 'Mate', label: 'B', category: 'microphone' },
      points: [{ criterion: 'build', value: 1 }],
    });
    await sediment('import', writeRunFolder(temporaryFolder(), other, {}, 3), '--data', data);
    expect((await sediment('import', writeRunFolder(temporaryFolder()), '--data', data)).stdout).toMatch(
      /nothing changed/,
    );
    const { code, stdout } = await sediment('rank', '--category', 'microphone', '--data', data, '--json');
    expect(code).toBe(0);
    const rows = rankRowSchema.array().parse(JSON.parse(stdout));
    expect(rows.map((r) => [r.place, r.specimen])).toEqual([
      [1, 'Oarlock Purser · A'],
      [2, 'Oarlock Mate · B'],
    ]);
    expect(rows[1]).toMatchObject({ missing: ['sound', 'features'], points: { sound: null, build: 1 } });
    expect((await sediment('rank', '--data', data)).stdout).toMatch(/stratum.*composite/);
  });

  it('go through the server that holds the folder', async () => {
    const data = temporaryFolder();
    const server = await startServer(data);
    const imported = await sediment('import', writeRunFolder(temporaryFolder()), '--data', data);
    expect(imported).toMatchObject({ code: 0, stderr: '' });
    await expect
      .poll(async () => (JSON.parse((await sediment('rank', '--data', data, '--json')).stdout) as unknown[]).length, {
        timeout: 30_000,
      })
      .toBe(1);
    const bad = await sediment(
      'import',
      writeRunFolder(temporaryFolder(), runDocument({ protocol: 'kitchen' })),
      '--data',
      data,
    );
    expect(bad).toMatchObject({
      code: 1,
      stderr: expect.stringMatching(/run\.json: protocol: there is no protocol "kitchen"/) as string,
    });
    await server.kill('SIGTERM');
  });

  it('tell every error of a folder, one line each', async () => {
    const folder = join(temporaryFolder(), 'run');
    mkdirSync(folder);
    const { code, stdout, stderr } = await sediment(
      'import',
      writeRunFolder(folder, { ...runDocument(), date: 'May', source: 'found' }, { 'rear.wav': 'x' }),
      '--data',
      temporaryFolder(),
    );
    expect({ code, stdout }).toEqual({ code: 1, stdout: '' });
    expect(
      stderr
        .trim()
        .split('\n')
        .map((l) => l.split(':').slice(0, 3).join(':')),
    ).toEqual([
      'sediment: run.json: date',
      'sediment: run.json: source',
      expect.stringMatching(/^sediment: rear\.wav/),
    ]);
  });

  it('end with an error for what they do not know', async () => {
    expect((await sediment('rank', '--category', 'toaster')).code).not.toBe(0);
    expect((await sediment('juggle')).code).not.toBe(0);
    expect((await sediment('--help')).code).toBe(0);
  });
});
