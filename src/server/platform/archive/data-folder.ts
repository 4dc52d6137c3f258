import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { StartRefused } from '../start-refused';

const MARK = 'sediment.json';
const markSchema = z.object({ format: z.literal('sediment-data/1'), kind: z.enum(['own', 'demo']) });

/** Whose data a folder holds. */
export type FolderKind = z.infer<typeof markSchema>['kind'];

/**
 * Sees to it that the invented units of the demo never mix with a person's own: a folder says what it is, from its
 * first start on. One without a mark that holds something was made before there were marks.
 *
 * @param folder - the data folder; its lock is held
 * @param kind - what is to be opened
 * @param isUsualDemo - this is the folder in which the demo lives by itself
 * @throws {@link StartRefused} for the demo on a person's own archive
 */
export function markDataFolder(folder: string, kind: FolderKind, isUsualDemo: boolean): FolderKind {
  const path = join(folder, MARK);
  const found = readMark(path) ?? (isEmpty(folder) ? null : isUsualDemo ? 'demo' : 'own');
  if (kind === 'demo' && found === 'own')
    throw new StartRefused(
      `${folder} holds an archive of your own; the demo would mix invented units into it. Nothing was changed. Start the demo without SEDIMENT_DATA, or with an empty folder.`,
    );
  const mark = found ?? kind;
  if (!existsSync(path))
    writeFileSync(path, JSON.stringify({ format: 'sediment-data/1', kind: mark }), { flush: true });
  return mark;
}

function readMark(path: string): FolderKind | null {
  if (!existsSync(path)) return null;
  try {
    return markSchema.parse(JSON.parse(readFileSync(path, 'utf8'))).kind;
  } catch {
    // An unreadable mark protects nothing: what is there counts as a person's own.
    return 'own';
  }
}

const isEmpty = (folder: string): boolean =>
  !['database', 'clips', 'recordings'].some((name) => {
    const path = join(folder, name);
    return existsSync(path) && readdirSync(path).length > 0;
  });
