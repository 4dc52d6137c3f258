import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { describe, expect, it } from 'vitest';

// Every @example of a docstring is run: `f(1); // => 2` has to give exactly that, `f(1); // ≈ 1.23` the digits that stand
// there. An example that is wrong misleads more than none.

const core = import.meta.dirname;

interface Example {
  readonly file: string;
  readonly code: string;
  readonly sign: '=>' | '≈';
  readonly promised: string;
}

/** Lines below an @example, until the next tag or the end of the docstring. */
function examplesOf(file: string): Example[] {
  return [...readFileSync(join(core, file), 'utf8').matchAll(/@example\n((?: \* {3}.*\n)+)/g)].flatMap(([, block]) =>
    [...block.matchAll(/^ \* {3}(.+?);? \/\/ (=>|≈) (.+)$/gm)].map(([, code, sign, promised]): Example => ({
      file,
      code,
      sign: sign as Example['sign'],
      promised,
    })),
  );
}

const files = readdirSync(core, { recursive: true })
  .map((name) => relative(core, join(core, String(name))))
  .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts') && !name.startsWith('testing'));
const all = files.flatMap(examplesOf);

async function valueOf({ file, code }: Pick<Example, 'file' | 'code'>): Promise<unknown> {
  const exported = (await import(/* @vite-ignore */ join(core, file))) as Record<string, unknown>;
  // eslint-disable-next-line @typescript-eslint/no-implied-eval -- an example is a text
  const run = new Function(...Object.keys(exported), `return (${code});`) as (...all: unknown[]) => unknown;
  return run(...Object.values(exported));
}

describe('examples in docstrings', () => {
  it('are found: one line below the tag each, with what it gives', () => {
    const tags = files.flatMap((file) => [...readFileSync(join(core, file), 'utf8').matchAll(/@example/g)]);
    expect(all.length).toBeGreaterThanOrEqual(tags.length);
    expect(tags.length).toBeGreaterThan(30);
  });

  it.each(all.map((e) => [`${e.code} ${e.sign} ${e.promised}`, e] as const))('%s', async (_, example) => {
    const value = await valueOf(example);
    const promised = await valueOf({ file: example.file, code: example.promised });
    if (example.sign === '=>') expect(value).toEqual(promised);
    else expect((value as number).toFixed(/\.(\d+)$/.exec(example.promised)?.[1].length ?? 0)).toBe(example.promised);
  });
});
