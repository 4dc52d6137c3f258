/**
 * Which work is under way, and since when, by counting: whatever began after a fact was known has that fact in it, and
 * need not be done once more for it.
 */
export class BegunWork {
  private tick = 0;
  private readonly begun = new Map<string, number>();

  /** A moment: all that is known now is known before it. */
  now(): number {
    return ++this.tick;
  }

  /**
   * Does the work, unless the same is under way that began after a moment.
   *
   * @param key - of the work
   * @param moment - from {@link now}
   * @param work - what is done
   */
  async unlessSince(key: string, moment: number, work: () => Promise<void>): Promise<void> {
    if ((this.begun.get(key) ?? 0) > moment) return;
    const own = this.now();
    this.begun.set(key, own);
    try {
      await work();
    } finally {
      // A later one may have begun meanwhile.
      if (this.begun.get(key) === own) this.begun.delete(key);
    }
  }
}
