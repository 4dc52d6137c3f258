import { mkdirSync, mkdtempSync, renameSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { ensureBuild } from './prepare.mjs';

it('builds again where a source has changed, and only there', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'sediment-prepare-'));
  mkdirSync(join(folder, 'src/inner'), { recursive: true });
  const write = (name: string, text: string) => {
    writeFileSync(join(folder, name), text);
  };
  write('package.json', '{}');
  write('src/a.ts', 'one');
  write('src/inner/b.ts', 'two');
  let builds = 0;
  let sources = ['package.json', 'src'];
  const prepare = async (force = false, build: () => void = () => builds++) => {
    await ensureBuild('thing', sources, build, force, folder);
    return builds;
  };
  expect(await prepare(), 'nothing is there').toBe(1);
  expect(await prepare(), 'nothing has changed').toBe(1);
  utimesSync(join(folder, 'src/a.ts'), 1, 1);
  expect(await prepare(), 'touched, the same text').toBe(1);
  write('src/inner/b.ts', 'six');
  expect(await prepare(), 'another text, as long').toBe(2);
  write('src/a.test.ts', 'a test');
  expect(await prepare(), 'a test is no source').toBe(2);
  write('src/c.ts', '');
  expect(await prepare(), 'one more').toBe(3);
  write('package.json', '{ }');
  expect(await prepare(), 'a file that is named').toBe(4);
  expect(await prepare(true), 'by force').toBe(5);
  write('src/a.ts', 'two');
  const fails = (): never => {
    throw new Error('a mistake in a source');
  };
  await expect(prepare(false, fails)).rejects.toThrow('mistake');
  expect(await prepare(), 'what failed is built the next time').toBe(6);
  write('src/a.ts', 'bad');
  await expect(prepare(false, fails)).rejects.toThrow('mistake');
  write('src/a.ts', 'two');
  expect(await prepare(), 'put back after a build that failed').toBe(7);
  rmSync(join(folder, 'src/c.ts'));
  expect(await prepare(), 'one less').toBe(8);
  renameSync(join(folder, 'src/inner/b.ts'), join(folder, 'src/inner/d.ts'));
  expect(await prepare(), 'another name').toBe(9);
  write('more.json', '');
  sources = [...sources, 'more.json'];
  expect(await prepare(), 'one more place to look at').toBe(10);
  expect(await prepare(), 'nothing has changed').toBe(10);
});
