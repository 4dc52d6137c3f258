import { Failure } from './failure';

/** Work of one kind: so much at a time, so much that waits; more is refused. */
export class WorkLane {
  private running = 0;
  private readonly waiting: (() => void)[] = [];

  constructor(
    private readonly atOnce: number,
    private readonly mostWaiting: number,
  ) {}

  /**
   * Runs the work when its turn comes.
   *
   * @param work - what is to be done
   * @param signal - given up while it waits, it is not begun
   * @throws Failure `too-busy` where too much waits already
   */
  async run<T>(work: () => Promise<T>, signal?: AbortSignal): Promise<T> {
    if (this.running >= this.atOnce) {
      if (this.waiting.length >= this.mostWaiting)
        throw new Failure('too-busy', 'Much work of this kind waits already.');
      // Whoever ends hands its place on, so that nobody slips in between.
      await new Promise<void>((resolve) => this.waiting.push(resolve));
    } else this.running++;
    try {
      signal?.throwIfAborted();
      return await work();
    } finally {
      const next = this.waiting.shift();
      if (next) next();
      else this.running--;
    }
  }
}
