import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { asFirstVersion, protocolSchema, type Protocol } from '#contracts/protocol';
import { rubricSchema } from '#contracts/rubric';
import type { Database } from '../platform/db/database';
import { addProtocolVersion, listProtocols } from '../sessions/queries/protocol';
import { addRubricVersion, currentRubric } from './queries/rubric';

/**
 * Adds the protocols and rubrics that Sediment ships with (protocol-*.json, rubric-*.json), where they are not yet
 * there, and the next version of a protocol that was left as it was shipped.
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
  const known = await listProtocols(database);
  const wanted = withHistory ? protocols : firsts(protocols).flatMap((p) => wantedVersion(p, protocols, known) ?? []);
  for (const protocol of wanted) await database.transaction((tx) => addProtocolVersion(tx, protocol));
  for (const rubric of withHistory ? rubrics : firsts(rubrics).map((r) => ({ ...r, version: 1 })))
    if (withHistory || (await currentRubric(database, rubric.category)) === null)
      await database.transaction((tx) => addRubricVersion(tx, rubric));
}

/**
 * The version of a shipped protocol that an archive lacks: as its first where the protocol is not there, as its next
 * where the newest there is what was shipped before this; null where it is there, or a person has gone on from it.
 *
 * @param newest - the version that ships now
 * @param shipped - all versions that ship
 * @param known - all versions of the archive
 */
export function wantedVersion(
  newest: Protocol,
  shipped: readonly Protocol[],
  known: readonly Protocol[],
): Protocol | null {
  const own = known.filter((p) => p.id === newest.id);
  if (own.length === 0) return asFirstVersion(newest);
  const [latest] = firsts(own);
  const before = shipped.find((p) => p.id === newest.id && p.version === newest.version - 1);
  return before && saysTheSame(before, latest) ? { ...newest, version: latest.version + 1 } : null;
}

const saysTheSame = (a: Protocol, b: Protocol): boolean =>
  JSON.stringify(asFirstVersion(a)) === JSON.stringify(asFirstVersion(b));

/** The newest version of each. */
function firsts<T extends { readonly id: string; readonly version: number }>(all: readonly T[]): T[] {
  return all.filter((one) => all.every((other) => other.id !== one.id || other.version <= one.version));
}
