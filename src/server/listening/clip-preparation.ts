import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { AudioFileError } from '#core/audio/audio-file-error';
import { ALGORITHM_VERSION } from '#core/measure/registry';
import { newTestSchema } from '#contracts/listening';
import { isCopy } from '#domain/listening/trial-plan';
import type { CutListeningClipsTask } from '#worker/tasks/cut-listening-clips';
import { laneTakes } from '../compare/queries/compare';
import type { ClipStore } from '../platform/archive/clip-store';
import { asFailure } from '../platform/as-failure';
import type { Database } from '../platform/db/database';
import type { EventHub } from '../platform/event-hub';
import { Failure } from '../platform/failure';
import type { JobBoard } from '../platform/job-board';
import type { WorkerPool } from '../platform/worker-pool';
import { interruptedTests, itemsOfTest, setItemLevel, setTestStatus } from './queries/listening';
import { mustFindTest } from './must-find-test';
import { insertBlindPack } from './queries/blind-pack';
import { sealPack } from './seal-pack';

/** Clips of listening tests, cut, matched and copied in the background. */
export class ClipPreparation {
  private readonly folder: string;
  private readonly preparing = new Set<Promise<void>>();

  constructor(
    dataFolder: string,
    private readonly database: Database,
    private readonly store: ClipStore,
    private readonly pool: WorkerPool,
    private readonly hub: EventHub,
    private readonly jobs: JobBoard,
    private readonly report: (error: unknown) => void,
  ) {
    this.folder = join(dataFolder, 'listening');
  }

  /** Prepares again what a stop interrupted. */
  async recover(): Promise<void> {
    for (const { id } of await interruptedTests(this.database)) this.start(id);
  }

  /** Waits until nothing is being prepared (closing, tests). */
  async settled(): Promise<void> {
    while (this.preparing.size > 0) await Promise.all(this.preparing);
  }

  /** Path of a prepared clip. Files are named by numbers; what they are stands in the database only. */
  clipPath(testId: string, itemId: string): string {
    return join(this.folder, testId, `${itemId}.wav`);
  }

  /** Path of a clip as a pack sends it out. */
  packedPath(testId: string, itemId: string): string {
    return join(this.folder, testId, `${itemId}.pack.wav`);
  }

  /** Deletes a prepared clip whose take was deleted. */
  async removeClip(testId: string, itemId: string): Promise<void> {
    for (const path of [this.clipPath(testId, itemId), this.packedPath(testId, itemId)])
      await rm(path, { force: true });
  }

  /** Prepares the clips of a test; how it went stands with the test. */
  start(id: string): void {
    const work = this.prepare(id)
      .catch(async (error: unknown) => {
        await setTestStatus(this.database, id, 'failed', problemOf(error));
        if (asFailure(error).code === 'internal') this.report(error);
      })
      .catch(this.report)
      .finally(() => {
        this.preparing.delete(work);
        this.hub.emit({ type: 'listening', testId: id });
      });
    this.preparing.add(work);
  }

  private async prepare(id: string): Promise<void> {
    const row = await mustFindTest(this.database, id);
    const test = newTestSchema.parse(row.document);
    const items = await itemsOfTest(this.database, id);
    const folder = join(this.folder, id);
    await rm(folder, { recursive: true, force: true });
    await mkdir(folder, { recursive: true });
    const job = this.jobs.open('Preparing clips for listening', 1, null);
    try {
      const plain = items.filter((i) => !isCopy(i));
      const rows = await laneTakes(
        this.database,
        plain.flatMap((i) => i.take_id ?? []),
        ALGORITHM_VERSION,
      );
      const clips = await Promise.all(
        plain.map(async (item) => {
          const sha256 = rows.find((r) => r.take_id === item.take_id)?.sha256;
          const path = sha256 ? await this.store.verified(sha256) : null;
          if (!path) throw new Failure('not-found', `The clip of ${item.name} is not in the archive.`);
          return { path, into: this.clipPath(id, item.id), name: item.name };
        }),
      );
      const copies = items.filter(isCopy);
      const task: CutListeningClipsTask = {
        clips,
        anchors: copies.map((copy) => ({
          of: Math.max(
            0,
            plain.findIndex((i) => i.take_id === copy.take_id),
          ),
          kind: copy.role === 'anchor-mid' ? 'mid' : 'low',
          into: this.clipPath(id, copy.id),
        })),
        passage: test.passage,
      };
      const result = await this.pool.run('cut-listening-clips', task);
      const sent = test.design === 'pack' ? await this.pool.run('render-pack-clips', { clips: items.map((i) => ({ path: this.clipPath(id, i.id), into: this.packedPath(id, i.id) })) }) : null; // prettier-ignore
      await this.database.transaction(async (tx) => {
        for (const [i, item] of plain.entries())
          await setItemLevel(tx, item.id, result.clips[i].gainDb, result.clips[i].loudnessLufs);
        for (const [i, item] of copies.entries())
          await setItemLevel(tx, item.id, result.anchors[i].gainDb, result.anchors[i].loudnessLufs);
        // Sealed before anybody can have heard a clip, and in one with the test that opens.
        if (sent) await insertBlindPack(tx, sealPack({ row, test, items, sha256s: sent.map((c) => c.sha256) }));
        await setTestStatus(tx, id, 'open');
      });
      job.finish();
    } catch (error) {
      job.fail(problemOf(error));
      throw error;
    }
  }
}

/** What went wrong in words that a page may show. */
const problemOf = (error: unknown): string =>
  error instanceof AudioFileError ? error.message : asFailure(error).message;
