import { spectralPass, type ClipSpectra } from '#core/measure/spectral-pass';
import { openClip } from '../open-clip';

/** Spectra of a long clip, while another thread takes its levels. */
export default async function readSpectra({ path }: { readonly path: string }): Promise<ClipSpectra> {
  const stream = openClip(path);
  try {
    const spectra = await spectralPass(stream);
    // A view would travel with all the room behind it.
    return { ...spectra, bandFrames: spectra.bandFrames.slice() };
  } finally {
    stream.close();
  }
}
