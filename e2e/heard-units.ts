import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { expect } from 'vitest';
import { runDocument, writeRunFolder } from '#server/testing/application';
import { MODELS, unitWav } from '#server/testing/heard-catalogue';
import { packageRoot } from '#server/platform/package-root';

/** Fills a folder with units of one speech take each, imported as anybody's. */
export const catalogueOf =
  (count: number) =>
  (folder: string): void => {
    MODELS.slice(0, count).forEach((model, i) => {
      const run = writeRunFolder(
        join(folder, '..', `${folder.split('/').at(-1) ?? ''}-run-${i}`),
        runDocument({
          specimen: { maker: 'Oarlock', model, label: 'A', category: 'microphone' },
          date: `2026-05-0${i + 1}`,
        }),
        { 'speech.wav': unitWav(i) },
      );
      execFileSync(process.execPath, [join(packageRoot, 'bin/sediment'), 'import', run, '--data', folder]);
    });
  };

/** Waits until every take of the catalogue is measured. */
export async function measuredTakes(
  address: string,
  count: number,
): Promise<{ takes: string[]; ids: Map<string, string> }> {
  const candidates = async () => (await (await fetch(`${address}/api/compare/candidates/microphone/speech`)).json()) as { takeId: string; unit: string; specimenId: string }[]; // prettier-ignore
  await expect.poll(async () => (await candidates()).length, { timeout: 60_000 }).toBe(count);
  const rows = await candidates();
  const inOrder = MODELS.slice(0, count).map((m) => rows.find((r) => r.unit.includes(` ${m} `)));
  return {
    takes: inOrder.map((r) => r?.takeId ?? ''),
    ids: new Map(inOrder.map((r) => [r?.unit ?? '', r?.specimenId ?? ''])),
  };
}
