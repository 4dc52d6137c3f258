import type { ClipDifferenceResult } from '#worker/tasks/measure-clip-difference';
import type { ClipStore } from '../platform/archive/clip-store';
import { Failure } from '../platform/failure';
import { Memory, type Memories } from '../platform/memory';
import type { WorkerPool } from '../platform/worker-pool';

/** Pairs of clips whose difference is remembered. */
const MOST_REMEMBERED = 64;

/** Differences between clips, measured once and remembered for a while. */
export class ClipDifferences {
  /** By both hashes. */
  private readonly differences: Memory<string, ClipDifferenceResult>;

  constructor(
    private readonly store: ClipStore,
    private readonly pool: WorkerPool,
    memories: Memories,
  ) {
    this.differences = new Memory(memories, 'differences between clips', [], MOST_REMEMBERED);
  }

  /**
   * @param zero - hash of the clip that the other is held against
   * @param other - hash of the other
   * @throws Failure `not-found`, AudioFileError where the two have nothing in common
   */
  between(zero: string, other: string): Promise<ClipDifferenceResult> {
    return this.differences.of(`${zero}/${other}`, async () => {
      const paths = [await this.path(zero), await this.path(other)];
      return this.pool.run('measure-clip-difference', { zero: paths[0], other: paths[1] });
    });
  }

  /** @throws Failure `not-found` */
  async path(sha256: string): Promise<string> {
    const path = await this.store.verified(sha256);
    if (!path) throw new Failure('not-found', 'The clip of this take is not in the archive.');
    return path;
  }
}
