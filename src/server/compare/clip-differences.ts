import type { ClipDifferenceResult, MeasureClipDifferenceTask } from '#worker/tasks/measure-clip-difference';
import type { ClipStore } from '../platform/archive/clip-store';
import { Failure } from '../platform/failure';
import type { WorkerPool } from '../platform/worker-pool';

/** Pairs of clips whose difference is remembered. */
const MOST_REMEMBERED = 64;

/** Differences between clips, measured once and remembered for a while. */
export class ClipDifferences {
  private readonly differences = new Map<string, Promise<ClipDifferenceResult>>();

  constructor(
    private readonly store: ClipStore,
    private readonly pool: WorkerPool,
  ) {}

  /**
   * @param zero - hash of the clip that the other is held against
   * @param other - hash of the other
   * @throws Failure `not-found`, AudioFileError where the two have nothing in common
   */
  async between(zero: string, other: string): Promise<ClipDifferenceResult> {
    const key = `${zero}/${other}`;
    let result = this.differences.get(key);
    if (!result) {
      const paths = [await this.path(zero), await this.path(other)];
      // Somebody else may have asked while the clips were looked at.
      result = this.differences.get(key) ?? this.begun(key, { zero: paths[0], other: paths[1] });
    }
    return result;
  }

  private begun(key: string, task: MeasureClipDifferenceTask): Promise<ClipDifferenceResult> {
    const result = this.pool.run('measure-clip-difference', task);
    this.differences.set(key, result);
    for (const old of this.differences.keys())
      if (this.differences.size > MOST_REMEMBERED) this.differences.delete(old);
    result.catch(() => this.differences.delete(key));
    return result;
  }

  /** @throws Failure `not-found` */
  async path(sha256: string): Promise<string> {
    const path = await this.store.verified(sha256);
    if (!path) throw new Failure('not-found', 'The clip of this take is not in the archive.');
    return path;
  }
}
