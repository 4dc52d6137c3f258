import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { protocolSchema } from '#contracts/protocol';
import { rubricSchema } from '#contracts/rubric';
import type { Database } from '../db/database';
import { addProtocolVersion } from '../db/queries/protocol';
import { addRubricVersion } from '../db/queries/rubric';

/** Adds the protocols and rubrics that Sediment ships with (protocol-*.json, rubric-*.json), where they are not yet there. */
export async function seedRules(database: Database, folder: string): Promise<void> {
  for (const name of (await readdir(folder)).sort()) {
    if (!name.endsWith('.json')) continue;
    const document: unknown = JSON.parse(await readFile(join(folder, name), 'utf8'));
    await database.transaction(async (tx) => {
      if (name.startsWith('protocol-')) await addProtocolVersion(tx, protocolSchema.parse(document));
      else if (name.startsWith('rubric-')) await addRubricVersion(tx, rubricSchema.parse(document));
    });
  }
}
