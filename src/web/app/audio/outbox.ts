import { createStore, del, entries, set, type UseStore } from 'idb-keyval';

/** A chunk that the server has not acknowledged yet. */
export interface Chunk {
  readonly recording: string;
  readonly frame: number;
  readonly bytes: Uint8Array;
}

const keyOf = ({ recording, frame }: Pick<Chunk, 'recording' | 'frame'>): string =>
  `${recording}/${String(frame).padStart(14, '0')}`;

/**
 * Chunks on their way, kept in the browser's own database until the server has them: a closed tab or a dead network
 * does not lose them, and memory does not grow while they wait.
 */
export class Outbox {
  private readonly store: UseStore = createStore('sediment-outbox', 'chunks');

  keep(chunk: Chunk): Promise<void> {
    return set(keyOf(chunk), chunk, this.store);
  }

  sent(chunk: Chunk): Promise<void> {
    return del(keyOf(chunk), this.store);
  }

  /** All that wait, oldest first. */
  async waiting(): Promise<Chunk[]> {
    const found = await entries<string, Chunk>(this.store);
    return found.sort(([a], [b]) => (a < b ? -1 : 1)).map(([, chunk]) => chunk);
  }
}
