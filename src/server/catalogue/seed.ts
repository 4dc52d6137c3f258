import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { asFirstVersion, protocolSchema } from '#contracts/protocol';
import { rubricSchema } from '#contracts/rubric';
import type { Database } from '../platform/db/database';
import { addProtocolVersion, listProtocols } from '../sessions/queries/protocol';
import { addRubricVersion, currentRubric } from './queries/rubric';

/**
 * Adds the protocols and rubrics that Sediment ships with (protocol-*.json, rubric-*.json), where they are not yet
 * there.
 *
 * @param withHistory - all versions, as the demo desk has gone through them; a person's archive starts with the newest
 *   of each as its first, and has no history but its own
 */
export async function seedRules(database: Database, folder: string, withHistory: boolean): Promise<void> {
  const names = (await readdir(folder)).filter((name) => name.endsWith('.json')).sort();
  const read = (prefix: string): Promise<unknown[]> =>
    Promise.all(
      names
        .filter((name) => name.startsWith(prefix))
        .map(async (name): Promise<unknown> => JSON.parse(await readFile(join(folder, name), 'utf8'))),
    );
  const protocols = protocolSchema.array().parse(await read('protocol-'));
  const rubrics = rubricSchema.array().parse(await read('rubric-'));
  const known = new Set((await listProtocols(database)).map((p) => p.id));
  for (const protocol of withHistory ? protocols : firsts(protocols).map(asFirstVersion))
    if (withHistory || !known.has(protocol.id)) await database.transaction((tx) => addProtocolVersion(tx, protocol));
  for (const rubric of withHistory ? rubrics : firsts(rubrics).map((r) => ({ ...r, version: 1 })))
    if (withHistory || (await currentRubric(database, rubric.category)) === null)
      await database.transaction((tx) => addRubricVersion(tx, rubric));
}

/** The newest version of each. */
function firsts<T extends { readonly id: string; readonly version: number }>(all: readonly T[]): T[] {
  return all.filter((one) => all.every((other) => other.id !== one.id || other.version <= one.version));
}
