import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { takeWav } from '#server/testing/application';
import { stage } from './support';

/** A clip under a name that is not its own, and a file manager's leaving. */
function strays(folder: string): void {
  mkdirSync(join(folder, 'clips', 'ab'), { recursive: true });
  writeFileSync(join(folder, 'clips', 'ab', `ab${'0'.repeat(62)}.wav`), takeWav(-14, -70));
  writeFileSync(join(folder, 'clips', '.DS_Store'), 'x');
}

describe('the archive', () => {
  const { open } = stage(strays, ['--new-database']);

  it('names what was set aside, reads every clip on demand, and every screen keeps to the policy of the page', async () => {
    const { page, errors } = await open('/archive');
    await page.getByText('There are no clips yet.').waitFor();
    await page.getByText(/is not the hash of its bytes/).waitFor();
    await page.getByText('clips/.DS_Store').waitFor();
    await page.getByText('None has been let in.').waitFor();
    await page.getByRole('button', { name: 'Read every clip now' }).click();
    await page.getByRole('button', { name: 'Read every clip now' }).waitFor();
    for (const path of [
      '/bench',
      '/gear',
      '/ranking',
      '/compare',
      '/listening',
      '/scale',
      '/rigs',
      '/protocols',
      '/new-run',
    ]) {
      await page.goto(new URL(path, page.url()).href);
      await page.locator('h1').first().waitFor();
    }
    // Broken policies (inline scripts, foreign addresses) are told in the console.
    expect(errors).toEqual([]);
  });

  it('sends a long file in parts, and goes on where a dead connection has left it', async () => {
    const { page } = await open('/new-run');
    // Two minutes of stereo noise at 48 kHz and 24 bits: 35 MB.
    const bytes = longWav();
    const offsets: number[] = [];
    let cut = 0;
    await page.route('**/api/uploads/*/*', async (route) => {
      const offset = Number(/\/(\d+)$/.exec(route.request().url())?.[1] ?? -1);
      if (offset >= 0) offsets.push(offset);
      if (offset === 8 * 2 ** 20 && cut++ < 2) await route.abort('connectionreset');
      else await route.continue();
    });
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      page
        .locator('input[type=file]')
        .first()
        .evaluate((input: HTMLInputElement) => input.click()),
    ]);
    const path = join((await import('node:os')).tmpdir(), `sediment-long-${process.pid}.wav`);
    writeFileSync(path, bytes);
    await chooser.setFiles(path);
    await expect
      .poll(async () => (await (await fetch(new URL('/api/archive', page.url()))).json()) as { clips: number }, {
        timeout: 60_000,
      })
      .toMatchObject({ clips: 1 });
    expect(cut).toBeGreaterThanOrEqual(2);
    expect(offsets.filter((o) => o === 8 * 2 ** 20).length).toBeGreaterThanOrEqual(3);
    expect(offsets.filter((o) => o === 0)).toHaveLength(1);
  });
});

function longWav(): Uint8Array {
  const [rate, seconds, channels] = [48_000, 122, 2];
  const data = rate * seconds * channels * 3;
  const bytes = Buffer.alloc(44 + data);
  bytes.write('RIFF', 0, 'latin1');
  bytes.writeUInt32LE(36 + data, 4);
  bytes.write('WAVEfmt ', 8, 'latin1');
  bytes.writeUInt32LE(16, 16);
  bytes.writeUInt16LE(1, 20);
  bytes.writeUInt16LE(channels, 22);
  bytes.writeUInt32LE(rate, 24);
  bytes.writeUInt32LE(rate * channels * 3, 28);
  bytes.writeUInt16LE(channels * 3, 32);
  bytes.writeUInt16LE(24, 34);
  bytes.write('data', 36, 'latin1');
  bytes.writeUInt32LE(data, 40);
  for (let i = 44, x = 1; i < bytes.length; i++) {
    x = (Math.imul(x, 1103515245) + 12345) >>> 0;
    if ((i - 44) % 3 < 2) bytes[i] = x >>> 24;
  }
  return bytes;
}
