import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { DerivedFiles } from './derived-files';

function files() {
  const folder = join(mkdtempSync(join(tmpdir(), 'sediment-derived-')), 'made');
  return { folder, derived: new DerivedFiles(folder) };
}

it('a file is made once, also of two that ask at once, and again after it was deleted', async () => {
  const { derived, folder } = files();
  let times = 0;
  const make = async (into: string) => {
    times++;
    await writeFile(into, `made ${times}`);
    return true;
  };
  const [a, b] = await Promise.all([derived.path('x.flac', make), derived.path('x.flac', make)]);
  expect([a, b]).toEqual([join(folder, 'x.flac'), join(folder, 'x.flac')]);
  await derived.path('x.flac', make);
  expect([times, readFileSync(a ?? '', 'utf8')]).toEqual([1, 'made 1']);
  await derived.forget('x');
  await derived.path('x.flac', make);
  expect(times).toBe(2);
});

it('what breaks off leaves nothing that looks finished, and is tried again', async () => {
  const { derived, folder } = files();
  const broken = async (into: string): Promise<boolean> => {
    await writeFile(into, 'half');
    throw new Error('no room');
  };
  await expect(derived.path('x.png', broken)).rejects.toThrow('no room');
  expect(readdirSync(folder)).toEqual([]);
  expect(await derived.path('x.png', () => Promise.resolve(false))).toBeNull();
  // A process that ended while it wrote.
  writeFileSync(join(folder, 'y.png.1.part'), 'half');
  writeFileSync(join(folder, 'y.png'), 'whole');
  await derived.sweep();
  expect(readdirSync(folder)).toEqual(['y.png']);
});

it('a folder that is not there yet has nothing to sweep', async () => {
  const { derived } = files();
  await derived.sweep();
  await derived.forget('x');
});
