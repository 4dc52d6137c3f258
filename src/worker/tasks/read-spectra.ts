import type { MessagePort } from 'node:worker_threads';
import { spectralPass } from '#core/measure/spectral-pass';
import { openClip } from '../open-clip';

/** Order to a worker: take the spectra of a clip while another one takes its levels, and send them there. */
export interface ReadSpectraTask {
  readonly path: string;
  readonly to: MessagePort;
}

/** Spectra of a long clip, while another thread takes its levels. */
export default async function readSpectra({ path, to }: ReadSpectraTask): Promise<void> {
  // Whoever waits at the other end is told by its closing that nothing will come.
  try {
    const stream = openClip(path);
    try {
      const spectra = await spectralPass(stream);
      // A view would travel with all the room behind it.
      to.postMessage({ ...spectra, bandFrames: spectra.bandFrames.slice() });
    } finally {
      stream.close();
    }
  } finally {
    to.close();
  }
}
