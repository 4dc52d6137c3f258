import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { rankRowSchema } from '#contracts/ranking';
import { emptyArchive, runDocument, temporaryFolder, writeRunFolder } from '#server/testing/application';
import { runToEnd, startServer } from '#server/testing/process';

const sediment = (...args: string[]): ReturnType<typeof runToEnd> => runToEnd('bin/sediment', args);

describe('sediment import and rank', () => {
  it('work on a data folder by themselves', async () => {
    const data = emptyArchive();
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
    const data = emptyArchive();
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
      emptyArchive(),
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

describe('sediment check', () => {
  it(
    'reads every clip, names what is wrong, and says so by its code, with and without a server',
    { timeout: 300_000 },
    async () => {
      const data = emptyArchive();
      await sediment('import', writeRunFolder(temporaryFolder()), '--data', data);
      expect(await sediment('check', '--data', data)).toMatchObject({
        code: 0,
        stdout: '3 of 3 clips read; nothing is wrong.\n',
      });
      const clip = readdirSync(join(data, 'clips'), { recursive: true }).map(String).find((n) => n.endsWith('.wav')) ?? ''; // prettier-ignore
      const bytes = readFileSync(join(data, 'clips', clip));
      bytes[500] ^= 1;
      writeFileSync(join(data, 'clips', clip), bytes);
      const found = await sediment('check', '--data', data);
      expect(found.code).toBe(1);
      expect(found.stdout).toMatch(/^\w+\.wav \([0-9a-f]{12}…\): Its bytes have changed .* Upload the original/m);
      const server = await startServer(data);
      expect((await sediment('check', '--data', data)).stdout).toBe(found.stdout);
      await server.kill('SIGTERM');
    },
  );
});
