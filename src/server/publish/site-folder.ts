import { createHash } from 'node:crypto';
import { copyFile, mkdir, readFile, readdir, rename, rm, stat, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { z } from 'zod';
import { changeSchema } from '#contracts/review';
import { Failure } from '../platform/failure';

/** What a folder holds of a site, so that only what has changed is written. */
const MANIFEST = 'sediment-site.json';
const manifestSchema = z.object({
  format: z.literal('sediment-site/1'),
  /** What each file was made from, by its path. */
  files: z.record(z.string(), z.string()),
  /** What has changed since editions, by their hashes. */
  since: z.record(z.string(), z.object({ key: z.string(), changes: z.array(changeSchema) })),
});
export type SiteManifest = z.infer<typeof manifestSchema>;

/** What publishing did. */
export interface SiteReport {
  readonly folder: string;
  readonly pages: number;
  readonly written: number;
  readonly kept: number;
  readonly removed: number;
}

/**
 * A folder that holds a site. Files whose making has not changed are left as they are; what the site has no more is taken
 * away; what somebody else has put there stays. Each file is written beside its place and moved, so that a reader never
 * gets half of one.
 */
export class SiteFolder {
  private readonly files: Record<string, string> = {};
  private written = 0;
  private kept = 0;

  private constructor(
    private readonly folder: string,
    readonly before: SiteManifest,
  ) {}

  /** @throws Failure `invalid-request` where the folder holds something that is no site of ours */
  static async open(folder: string): Promise<SiteFolder> {
    await mkdir(folder, { recursive: true });
    const names = await readdir(folder);
    const empty: SiteManifest = { format: 'sediment-site/1', files: {}, since: {} };
    if (!names.includes(MANIFEST)) {
      if (names.length > 0)
        throw new Failure('invalid-request', `The folder ${folder} is not empty and holds no site of Sediment.`, [
          { file: null, field: 'out', message: 'name an empty folder, or the one that was published to before' },
        ]);
      // At once: a power cut half-way leaves a folder that is known as ours, and the next time goes on.
      await writeFile(join(folder, MANIFEST), JSON.stringify(empty));
      return new SiteFolder(folder, empty);
    }
    const parsed = manifestSchema.safeParse(await readJson(join(folder, MANIFEST)));
    // A manifest that cannot be read makes everything anew; it never makes anything stay that should go.
    return new SiteFolder(folder, parsed.success ? parsed.data : empty);
  }

  /**
   * Writes a file where what it is made from has changed.
   *
   * @param path - in the site
   * @param key - what it is made from
   * @param make - its bytes, or the path of a file that is copied
   */
  async put(
    path: string,
    key: string,
    make: () => Promise<string | { readonly copyOf: string } | null>,
  ): Promise<void> {
    if (this.files[path] !== undefined) return;
    const full = join(this.folder, path);
    const isThere = this.before.files[path] === key && (await exists(full));
    if (!isThere) {
      const made = await make();
      if (made === null) return;
      await mkdir(dirname(full), { recursive: true });
      const part = `${full}.part`;
      if (typeof made === 'string') await writeFile(part, made);
      else await copyFile(made.copyOf, part);
      await rename(part, full);
      this.written++;
    } else this.kept++;
    this.files[path] = key;
  }

  /** Whether the site has this file now. */
  has(path: string): boolean {
    return this.files[path] !== undefined;
  }

  /** Takes away what the site has no more, and notes what it has. */
  async close(since: SiteManifest['since']): Promise<SiteReport> {
    const gone = Object.keys(this.before.files).filter((path) => this.files[path] === undefined);
    for (const path of gone) await rm(join(this.folder, path), { force: true });
    const manifest: SiteManifest = { format: 'sediment-site/1', files: this.files, since };
    const part = join(this.folder, `${MANIFEST}.part`);
    await writeFile(part, JSON.stringify(manifest));
    await rename(part, join(this.folder, MANIFEST));
    const pages = Object.keys(this.files).filter((path) => path.endsWith('.html')).length;
    return { folder: this.folder, pages, written: this.written, kept: this.kept, removed: gone.length };
  }
}

/** What something is made from, as short as a name. */
export const madeFrom = (...parts: readonly unknown[]): string =>
  createHash('sha256').update(JSON.stringify(parts)).digest('hex').slice(0, 32);

const exists = (path: string): Promise<boolean> =>
  stat(path).then(
    () => true,
    () => false,
  );

async function readJson(path: string): Promise<unknown> {
  try {
    return JSON.parse(await readFile(path, 'utf8')) as unknown;
  } catch {
    return null;
  }
}
