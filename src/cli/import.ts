import { createReadStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { Command } from 'commander';
import { clipSchema } from '#contracts/clip';
import { ENDPOINTS, PLAIN_PATHS } from '#contracts/http';
import { problemSchema } from '#contracts/problem';
import { importResultSchema, runFileNameSchema, type ImportResult } from '#contracts/run-document';
import { Failure } from '#server/platform/failure';
import type { Application } from '#server/wiring';
import { dataOption, withData } from './data-option';

/** sediment import RUN_FOLDER --data DIR */
export function importCommand(): Command {
  return new Command('import')
    .description('import a run folder (run.json and its clips)')
    .argument('<run-folder>')
    .addOption(dataOption())
    .action(async (folder: string, options: { data: string }) => {
      const result = await withData(
        options.data,
        (address) => uploadRun(address, folder),
        (application) => importDirectly(application, folder),
      );
      const what = result.created ? 'imported' : 'was imported before; nothing changed';
      process.stdout.write(`Run ${result.runId} of unit ${result.specimenId} ${what}.\n`);
    });
}

async function importDirectly(application: Application, folder: string): Promise<ImportResult> {
  const result = await application.runImport.importFolder(folder);
  await application.queue.idle();
  const { runs } = await application.catalogue.sheet(result.specimenId);
  const failed = runs.flatMap((r) => r.takes).filter((t) => t.analysis.status === 'failed');
  for (const take of failed)
    process.stderr.write(`sediment: ${take.clip.name}: the analysis failed: ${take.analysis.reason}\n`);
  if (failed.length > 0) process.exitCode = 1;
  return result;
}

async function uploadRun(address: string, folder: string): Promise<ImportResult> {
  const document = await readDocument(folder);
  const takes: unknown = (document as { takes?: unknown }).takes;
  const names = (Array.isArray(takes) ? takes : [])
    .map((t: unknown) => (t as { file?: unknown } | null)?.file)
    .filter((name): name is string => runFileNameSchema.safeParse(name).success);
  const clips: Record<string, string> = {};
  for (const name of new Set(names)) {
    const stream = createReadStream(join(folder, name));
    const response = await fetch(`${address}${PLAIN_PATHS.upload}?name=${encodeURIComponent(name)}`, {
      method: 'POST',
      body: Readable.toWeb(stream) as unknown as ReadableStream,
      duplex: 'half',
    } as RequestInit);
    clips[name] = clipSchema.parse(await answerOf(response)).sha256;
  }
  const response = await fetch(`${address}${ENDPOINTS.importRun.path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ document, clips }),
  });
  return importResultSchema.parse(await answerOf(response));
}

async function readDocument(folder: string): Promise<unknown> {
  const path = join(folder, 'run.json');
  try {
    return JSON.parse(await readFile(path, 'utf8'));
  } catch (error) {
    throw new Failure('run-refused', `${path}: ${(error as Error).message}`);
  }
}

async function answerOf(response: Response): Promise<unknown> {
  const body: unknown = await response.json();
  if (response.ok) return body;
  const { error } = problemSchema.parse(body);
  throw new Failure('run-refused', error.message, error.details);
}
