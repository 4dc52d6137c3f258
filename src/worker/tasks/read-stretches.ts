import type { MessagePort } from 'node:worker_threads';
import { openClip } from '../open-clip';
import { takeStretches, type SharedStretches } from '../shared-stretches';

/** Order to a worker: help another one that measures a long clip. */
export interface ReadStretchesTask extends SharedStretches {
  readonly path: string;
  /** Where that one is told. */
  readonly to: MessagePort;
}

/** Measures stretches of a long clip while another thread measures others. */
export default async function readStretches({ path, to, ...shared }: ReadStretchesTask): Promise<void> {
  try {
    const stream = openClip(path);
    try {
      await takeStretches(stream, shared, (arrival) => to.postMessage(arrival));
    } finally {
      stream.close();
    }
  } finally {
    // A thread that waits for its next task does not close a port before that comes: so this is told as well.
    to.postMessage(null);
    to.close();
  }
}
