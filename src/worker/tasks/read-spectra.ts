import type { MessagePort } from 'node:worker_threads';
import type { SoundCodec } from '#core/audio/codec';
import { spectralFigures } from '#core/measure/clip-analysis';
import type { ClipPauses } from '#core/measure/level-pass';
import { spectralPass } from '#core/measure/spectral-pass';
import { arrivalAt } from '../arrival';
import { openClip } from '../open-clip';

/** Order to a worker: take the spectra of a clip while another one takes its levels. */
export interface ReadSpectraTask {
  readonly path: string;
  /** Where that one tells its pauses, and is told what they and the spectra come to. */
  readonly levels: MessagePort;
  readonly sound?: SoundCodec | null;
}

/** Spectra of a long clip, and the noise of its pauses, while another thread takes its levels. */
export default async function readSpectra({ path, levels, sound }: ReadSpectraTask): Promise<void> {
  const pauses = arrivalAt<ClipPauses>(levels);
  try {
    const spectra = await readAll(path);
    const known = await pauses;
    // Whoever asked has gone: it says why.
    if (!known) return;
    levels.postMessage(await spectralFigures(spectra, known, { sound, reopen: () => openClip(path) }));
  } finally {
    // It is told by this that nothing more will come.
    levels.close();
  }
}

async function readAll(path: string): ReturnType<typeof spectralPass> {
  const stream = openClip(path);
  try {
    return await spectralPass(stream);
  } finally {
    stream.close();
  }
}
