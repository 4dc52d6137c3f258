import { rm } from 'node:fs/promises';
import { extname, join } from 'node:path';
import type { CompareRequest } from '#contracts/compare';
import { fileName, levelsText } from '#domain/compare/levels-text';
import type { CutMatchedClipTask } from '#worker/tasks/cut-matched-clip';
import type { RenderComparisonZipTask } from '#worker/tasks/render-comparison-zip';
import { temporaryFolder, type ClipStore } from '../platform/archive/clip-store';
import type { WorkerPool } from '../platform/worker-pool';
import type { ClipDifferences } from './clip-differences';
import type { Compare } from './compare';

/** Comparisons as files. */
export class ComparisonExport {
  constructor(
    private readonly store: ClipStore,
    private readonly pool: WorkerPool,
    private readonly compare: Compare,
    private readonly clips: ClipDifferences,
  ) {}

  /**
   * A ZIP of level-matched copies, the untouched originals, and a text of what was applied.
   *
   * @param request - what is compared
   * @param title - heading of the text
   * @returns where it lies, and a function that takes it away
   */
  async zip(request: CompareRequest, title: string): Promise<{ path: string; cleanUp: () => Promise<void> }> {
    const table = await this.compare.table(request);
    const folder = await temporaryFolder(this.store);
    const cleanUp = (): Promise<void> => rm(folder, { recursive: true, force: true });
    try {
      const files: { path: string; as: string }[] = [];
      for (const [i, lane] of table.lanes.entries()) {
        const name = `${i + 1} ${fileName(`${lane.unit} ${lane.date}`)}`;
        const path = await this.clips.path(lane.sha256);
        const into = join(folder, `${i + 1}.wav`);
        await this.pool.run('cut-matched-clip', { path, gainDb: lane.appliedDb, into } satisfies CutMatchedClipTask);
        files.push({ path: into, as: `matched/${name}.wav` }, { path, as: `original/${name}${extname(path)}` });
      }
      const task: RenderComparisonZipTask = {
        files,
        text: { as: 'levels.txt', body: levelsText(title, table, request) },
        into: join(folder, 'comparison.zip'),
      };
      await this.pool.run('render-comparison-zip', task);
      return { path: task.into, cleanUp };
    } catch (error) {
      await cleanUp();
      throw error;
    }
  }
}
