import { access, mkdir, readdir, rename, rm } from 'node:fs/promises';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';

/**
 * Files that are made from others, each once, and kept as long as nobody deletes them: what is missing is made again. A
 * file has its name when it is whole, so an ended process leaves nothing that looks finished.
 */
export class DerivedFiles {
  private readonly making = new Map<string, Promise<string | null>>();

  constructor(private readonly folder: string) {}

  /** Removes what an ended process left half-written. */
  async sweep(): Promise<void> {
    await this.remove((name) => name.endsWith('.part'));
  }

  /** Deletes the files whose names begin so. */
  async forget(beginning: string): Promise<void> {
    await this.remove((name) => name.startsWith(beginning));
  }

  /**
   * Where a file lies; of two that ask at once one makes it.
   *
   * @param name - says what it is made from, and how
   * @param make - writes it to where it is told; false where there is nothing that it could be made from
   */
  async path(name: string, make: (into: string) => Promise<boolean>): Promise<string | null> {
    let made = this.making.get(name);
    if (!made) {
      made = this.made(join(this.folder, name), make).finally(() => this.making.delete(name));
      this.making.set(name, made);
    }
    return made;
  }

  private async made(into: string, make: (into: string) => Promise<boolean>): Promise<string | null> {
    const isThere = await access(into).then(
      () => true,
      () => false,
    );
    if (isThere) return into;
    await mkdir(this.folder, { recursive: true });
    const part = `${into}.${randomUUID()}.part`;
    try {
      if (!(await make(part))) return null;
      await rename(part, into);
    } catch (error) {
      await rm(part, { force: true });
      throw error;
    }
    return into;
  }

  private async remove(goes: (name: string) => boolean): Promise<void> {
    const names = await readdir(this.folder).catch(() => []);
    for (const name of names) if (goes(name)) await rm(join(this.folder, name), { force: true });
  }
}
