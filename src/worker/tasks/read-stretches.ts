import type { MessagePort } from 'node:worker_threads';
import { spectralFigures } from '#core/measure/clip-analysis';
import { clipStretches } from '#core/measure/clip-stretches';
import type { HelperMessage, SpectralOrder } from '../helper';
import { openClip } from '../open-clip';
import { takeStretches, type SharedStretches } from '../shared-stretches';

/** Order to a worker: help another one that measures a long clip. */
export interface ReadStretchesTask extends SharedStretches {
  readonly path: string;
  /** Where that one is told, and asks. */
  readonly to: MessagePort;
}

/** Measures stretches of a long clip while another thread measures others; then what that one asks, until it closes. */
export default async function readStretches({ path, to, ...shared }: ReadStretchesTask): Promise<void> {
  const tell = (message: HelperMessage): void => to.postMessage(message);
  const asked = new Promise<SpectralOrder | null>((resolve) => {
    to.once('message', resolve);
    to.once('close', () => resolve(null));
  });
  try {
    const stream = openClip(path);
    try {
      // A single stretch is left to the one that was asked: it tells how far it is.
      if (clipStretches(stream, shared.longFrom).length > 1) await takeStretches(stream, shared, tell);
    } finally {
      stream.close();
    }
    tell(null);
    const order = await asked;
    if (!order) return;
    const { channels, pauses, sound } = order;
    tell({ figures: await spectralFigures(channels, pauses, { sound, reopen: () => openClip(path) }) });
  } finally {
    to.close();
  }
}
