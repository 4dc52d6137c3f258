import { statfs } from 'node:fs/promises';
import type { ArchiveState } from '#contracts/archive';
import type { ClipStore } from '../platform/archive/clip-store';
import type { FilesByHash } from '../platform/archive/files-by-hash';
import type { Database } from '../platform/db/database';
import { findClip } from './queries/clip';
import { clipCheckCounts, clipSizes, nextClipToCheck, noteClipCheck } from '../platform/queries/clip-check';
import {
  fileCheckCounts,
  keptFiles,
  nextFileToCheck,
  noteFileCheck,
  type KeptFile,
} from '../platform/queries/file-check';
import type { JobBoard } from '../platform/job-board';
import { clipName, type SetAside } from '../platform/set-aside';

/** Every clip is read again after this time. */
const CHECK_EVERY_MS = 30 * 24 * 3_600_000;
/** Between two clips, so that nobody notices; a catalogue of 10,000 clips takes a night. */
const PAUSE_MS = 2_000;
/** While there is nothing to check. */
const REST_MS = 600_000;

const WORDS = {
  missing: 'Its file is missing from the archive.',
  damaged: 'Its bytes have changed since it was stored.',
} as const;

const fileName = ({ sha256, extension }: KeptFile): string => `${sha256}.${extension}`;

/** As what, and by which name, a file is set aside. */
const saidOf = (file: KeptFile): ['photograph' | 'original', string] => [
  file.shelf === 'photos' ? 'photograph' : 'original',
  clipName(file.sha256, file.name),
];

/** Whether the clips, and what lies beside them, are what was stored: a look at the start, a quiet reading all over time, a whole one on demand. */
export class Integrity {
  private timer: NodeJS.Timeout | null = null;
  private whole: Promise<void> | null = null;
  private isClosed = false;

  constructor(
    private readonly folder: string,
    private readonly database: Database,
    private readonly store: ClipStore,
    /** What lies beside the clips. */
    private readonly shelves: readonly FilesByHash[],
    private readonly setAside: SetAside,
    private readonly jobs: JobBoard,
    private readonly now: () => Date,
    private readonly report: (error: unknown) => void,
  ) {}

  /** What can be seen without reading: files that are missing or of another size, and files that are no clips. */
  async look(): Promise<void> {
    const there = new Map<string, number>();
    for await (const { sha256, bytes } of this.store.list()) there.set(sha256, bytes);
    for (const { sha256, name, bytes } of await clipSizes(this.database)) {
      const size = there.get(sha256);
      if (size === undefined) this.setAside.note('clip', clipName(sha256, name), WORDS.missing);
      else if (size !== bytes) this.setAside.note('clip', clipName(sha256, name), WORDS.damaged);
    }
    for (const path of await this.store.strays())
      this.setAside.note('file', path, 'This file is no clip of the archive; it is passed over.');
    await this.lookBeside();
  }

  /** The same of photographs and originals. */
  private async lookBeside(): Promise<void> {
    const kept = await keptFiles(this.database);
    for (const shelf of this.shelves) {
      const there = new Map((await shelf.list()).map((f) => [f.file, f]));
      for (const file of kept.filter((k) => k.shelf === shelf.shelf)) {
        const found = there.get(fileName(file));
        there.delete(fileName(file));
        if (!found) this.setAside.note(...saidOf(file), WORDS.missing);
        else if (found.bytes !== file.bytes) this.setAside.note(...saidOf(file), WORDS.damaged);
      }
      // A process that ended between a file and its record leaves one, as does anybody who puts one there.
      for (const { path } of there.values())
        this.setAside.note('file', path, 'Nothing of the archive needs this file; it is passed over.');
    }
  }

  /** Begins the quiet reading. */
  start(pauseMs = PAUSE_MS): void {
    const next = async (): Promise<void> => {
      const read = await this.checkNext(new Date(this.now().getTime() - CHECK_EVERY_MS)).catch((error: unknown) => {
        // What was under way when the archive was closed is read the next time.
        if (!this.isClosed) this.report(error);
        return false;
      });
      if (!this.isClosed) this.timer = setTimeout(() => void next(), read ? pauseMs : REST_MS).unref();
    };
    this.timer = setTimeout(() => void next(), pauseMs).unref();
  }

  /** Reads the clip, or else the file, whose turn it is. @returns whether there was one */
  async checkNext(since: Date): Promise<boolean> {
    const sha256 = await nextClipToCheck(this.database, since);
    if (this.isClosed) return false;
    if (sha256 === null) return this.checkNextFile(since);
    const problem = await this.store.check(sha256);
    if (this.isClosed) return false;
    await noteClipCheck(this.database, sha256, this.now(), problem);
    const name = (await findClip(this.database, sha256))?.name ?? '';
    if (problem) this.setAside.note('clip', clipName(sha256, name), WORDS[problem]);
    else this.setAside.clear('clip', clipName(sha256, name));
    return true;
  }

  private async checkNextFile(since: Date): Promise<boolean> {
    const file = await nextFileToCheck(this.database, since);
    const shelf = this.shelves.find((s) => s.shelf === file?.shelf);
    if (!file || !shelf) return false;
    const problem = await shelf.check(file.sha256, file.extension);
    if (this.isClosed) return false;
    await noteFileCheck(this.database, file, this.now(), problem);
    if (problem) this.setAside.note(...saidOf(file), WORDS[problem]);
    else this.setAside.clear(...saidOf(file));
    return true;
  }

  /** Reads every clip now, and what lies beside them. Asked twice, it is one reading. */
  checkAll(): Promise<void> {
    this.whole ??= this.readAll().finally(() => (this.whole = null));
    return this.whole;
  }

  /** Begins {@link checkAll}, and says how things stand now; the board of jobs shows how far it is. */
  async checkInBackground(): Promise<ArchiveState> {
    this.checkAll().catch(this.report);
    return this.state();
  }

  async state(): Promise<ArchiveState> {
    const { clips, bytes, checked, oldest } = await clipCheckCounts(this.database);
    const beside = await fileCheckCounts(this.database);
    const { bavail, bsize } = await statfs(this.folder);
    return {
      folder: this.folder,
      freeBytes: bavail * bsize,
      clips,
      bytes,
      checked,
      oldestCheck: oldest?.toISOString() ?? null,
      files: beside.files,
      filesChecked: beside.checked,
      isChecking: this.whole !== null,
      setAside: this.setAside.list(),
    };
  }

  async close(): Promise<void> {
    this.isClosed = true;
    if (this.timer) clearTimeout(this.timer);
    await this.whole?.catch(() => undefined);
  }

  private async readAll(): Promise<void> {
    await this.look();
    const since = this.now();
    const { clips } = await clipCheckCounts(this.database);
    const { files } = await fileCheckCounts(this.database);
    const job = this.jobs.open('Reading every clip of the archive', Math.max(1, clips + files), null);
    let done = 0;
    // Those read from now on carry this very moment or a later one.
    while (!this.isClosed && (await this.checkNext(since))) job.progress(++done);
    job.finish();
  }
}
