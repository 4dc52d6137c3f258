import { copyFileSync, cpSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { packageRoot, workerFolder } from '../platform/package-root';
import { temporaryFolder, testApplication, writeRunFolder } from '../testing/application';

/** The built tasks with another one for measuring; lies in dist, so that packages are found from there. */
function workersWith(body: string): string {
  const folder = join(packageRoot, 'dist', `test-workers-${process.pid}-${Math.random().toString(36).slice(2)}`);
  cpSync(workerFolder, folder, { recursive: true });
  writeFileSync(join(folder, 'analyse-clip.js'), body);
  return folder;
}

describe('a worker that dies', () => {
  it('marks its analysis failed with the reason, leaves the others alone, and can be tried again', async () => {
    const workers = workersWith('export default () => { process.exit(7); };');
    try {
      const application = await testApplication({ workers });
      const { specimenId } = await application.runImport.importFolder(writeRunFolder(temporaryFolder()));
      await application.queue.idle();
      const failed = await application.catalogue.sheet(specimenId);
      expect(failed.row).toMatchObject({ stage: 'takes', failedAnalyses: 3, place: null });
      expect(failed.runs[0].takes[0].analysis).toMatchObject({
        status: 'failed',
        attempts: 1,
        reason: expect.stringMatching(/exit|terminat/i) as string,
      });

      copyFileSync(join(workerFolder, 'analyse-clip.js'), join(workers, 'analyse-clip.js'));
      for (const take of failed.runs[0].takes) await application.queue.retry(take.analysis.id);
      await application.queue.idle();
      const mended = await application.catalogue.sheet(specimenId);
      expect(mended.row).toMatchObject({ stage: 'scored', failedAnalyses: 0, place: 1 });
      await expect(application.queue.retry(mended.runs[0].takes[0].analysis.id)).rejects.toMatchObject({
        code: 'not-found',
      });
    } finally {
      rmSync(workers, { recursive: true });
    }
  });

  it('keeps the message of an error', async () => {
    const workers = workersWith('export default () => { throw new Error("the clip is haunted"); };');
    try {
      const application = await testApplication({ workers });
      const { specimenId } = await application.runImport.importFolder(writeRunFolder(temporaryFolder()));
      await application.queue.idle();
      expect((await application.catalogue.sheet(specimenId)).runs[0].takes[0].analysis.reason).toBe(
        'the clip is haunted',
      );
      expect(application.jobs.list().some((j) => j.state === 'failed' && j.reason === 'the clip is haunted')).toBe(
        true,
      );
    } finally {
      rmSync(workers, { recursive: true });
    }
  });
});
