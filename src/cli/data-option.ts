import { join, resolve } from 'node:path';
import { Option } from 'commander';
import { markDataFolder } from '#server/platform/archive/data-folder';
import { FolderInUse, holderOf, lockDataFolder } from '#server/platform/archive/data-folder-lock';
import { packageRoot } from '#server/platform/package-root';
import { openApplication, type Application } from '#server/wiring';

/** --data DIR, else SEDIMENT_DATA, else the person's own data. */
export const dataOption = (): Option =>
  new Option('--data <dir>', 'data folder').env('SEDIMENT_DATA').default(join(packageRoot, 'data', 'own'));

/**
 * Does something with a data folder: through the server that holds it, or else by opening it.
 *
 * @param folder - the data folder
 * @param throughServer - given the server's address
 * @param directly - given the opened application
 */
export async function withData<T>(
  folder: string,
  throughServer: (address: string) => Promise<T>,
  directly: (application: Application) => Promise<T>,
): Promise<T> {
  const path = resolve(folder);
  const holder = holderOf(path);
  if (holder?.port) return throughServer(`http://127.0.0.1:${holder.port}`);
  if (holder) throw new FolderInUse(path, holder);
  const lock = await lockDataFolder(path);
  try {
    markDataFolder(path, 'own', false);
    const application = await openApplication({ folder: path });
    try {
      return await directly(application);
    } finally {
      await application.close();
    }
  } finally {
    lock.release();
  }
}
