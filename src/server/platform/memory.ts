import type { SeparateFacts } from '#contracts/events';
import type { EventHub } from './event-hub';

/** What has happened, as far as something that is remembered may be wrong by it. */
export type Change =
  /** `only`: which of its facts, where no other can have changed. */
  | { readonly cause: 'unit'; readonly unit: string; readonly only?: SeparateFacts }
  | { readonly cause: 'rules' }
  /** Answers of listeners were taken back, put back or moved, not only added. */
  | { readonly cause: 'answers' }
  | { readonly cause: 'devices' };

/**
 * Something that the process remembers to save time. It may be forgotten at any moment: no answer hangs on it, and
 * none on what was asked before (`testing/memories.test.ts` forgets all of it between questions).
 */
export interface Remembered {
  /** What it is, in words. */
  readonly what: string;
  /** Forgets what is wrong since something has happened. */
  told(change: Change): void;
  forget(): void;
}

/** Everything that this process remembers. */
export class Memories {
  private readonly all: Remembered[] = [];

  constructor(hub: EventHub) {
    hub.events.subscribe((event) => {
      if (event.type === 'specimen')
        this.tell({ cause: 'unit', unit: event.specimenId, ...(event.only && { only: event.only }) });
      if (event.type === 'rules') this.tell({ cause: 'rules' });
    });
  }

  add(remembered: Remembered): void {
    this.all.push(remembered);
  }

  tell(change: Change): void {
    for (const remembered of this.all) remembered.told(change);
  }

  forget(): void {
    for (const remembered of this.all) remembered.forget();
  }

  names(): string[] {
    return this.all.map((r) => r.what);
  }
}

/** Values by key, each made once. */
export class Memory<K, V> implements Remembered {
  /** Another map after each forgetting: what was begun before it is given to who asked for it, and not kept. */
  private values = new Map<K, Promise<V>>();

  /**
   * @param memories - who tells of changes
   * @param what - it is, in words
   * @param causes - what makes all of it wrong; none: keys say everything that values follow from
   * @param most - values that are kept, the latest
   */
  constructor(
    memories: Memories,
    readonly what: string,
    private readonly causes: readonly Change['cause'][],
    private readonly most = Infinity,
  ) {
    memories.add(this);
  }

  /** A value; of several who ask at once one makes it. A failure is not kept. */
  of(key: K, make: () => Promise<V>): Promise<V> {
    return this.values.get(key) ?? this.keep(key, make());
  }

  /** The value that goes on from the one before (undefined: there is none), one after the other. */
  next(key: K, make: (before: V | undefined) => Promise<V>): Promise<V> {
    const before = this.values.get(key)?.catch(() => undefined);
    return this.keep(key, before ? before.then(make) : make(undefined));
  }

  told({ cause }: Change): void {
    if (this.causes.includes(cause)) this.forget();
  }

  forget(): void {
    this.values = new Map();
  }

  private keep(key: K, made: Promise<V>): Promise<V> {
    const { values } = this;
    values.delete(key);
    values.set(key, made);
    for (const old of values.keys()) if (values.size > this.most) values.delete(old);
    made.catch(() => {
      if (values.get(key) === made) values.delete(key);
    });
    return made;
  }
}
