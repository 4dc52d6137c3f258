/**
 * One flush for all commits that wait for one. A commit is acknowledged when a flush that began after it has ended;
 * commits that come while a flush is under way share the next one.
 */
export class GroupFlush {
  private next: Promise<void> | null = null;

  /**
   * @param flush - puts everything committed so far on disk. It calls `begun` once no further commit can slip in
   *   before it: from then on, a new request waits for another flush.
   */
  constructor(private readonly flush: (begun: () => void) => Promise<void>) {}

  /** Resolves when everything that was committed before this call is on disk. */
  request(): Promise<void> {
    this.next ??= this.start();
    return this.next;
  }

  private start(): Promise<void> {
    const own = this.flush(() => {
      if (this.next === own) this.next = null;
    });
    // One that fails before it has begun must not be what all later ones wait for.
    own.catch(() => {
      if (this.next === own) this.next = null;
    });
    return own;
  }
}
