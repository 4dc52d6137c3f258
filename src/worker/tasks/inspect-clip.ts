import { AudioFileError } from '#core/audio/audio-file-error';
import { formatSummary } from '#core/measure/clip-summary';
import { allocateBlock } from '#core/audio/sample-stream';
import { readWavHeader } from '#core/audio/wav-header';
import type { InspectClipResult, InspectClipTask } from '#contracts/worker-messages';
import { openBytes, openClip } from '../open-clip';

/**
 * Tells whether a file may enter the archive. PCM needs its header only; float samples and FLAC are read to the
 * end, because only that shows NaN, damage or a missing end.
 */
export default async function inspectClipTask({ path, keepPart }: InspectClipTask): Promise<InspectClipResult> {
  try {
    const stream = openClip(path, { keepPart });
    try {
      let { frames } = stream.format;
      if (!stream.format.encoding.startsWith('pcm')) {
        const block = allocateBlock(stream.format.channels);
        frames = 0;
        for (let n = -1; n !== 0; frames += n) n = await stream.read(block);
      }
      if (frames === 0) throw new AudioFileError('no-audio', 'The file holds no samples.');
      const truncatedFrom = stream.format.container === 'flac' ? null : wavTruncation(path, keepPart);
      return { ok: true, format: formatSummary({ ...stream.format, frames }), truncatedFrom };
    } finally {
      stream.close();
    }
  } catch (error) {
    if (!(error instanceof AudioFileError)) throw error;
    const { code, message, truncation } = error;
    return {
      ok: false,
      code,
      message,
      truncation: truncation && {
        claimedS: truncation.claimedFrames === null ? null : truncation.claimedFrames / truncation.sampleRate,
        presentS: truncation.presentFrames / truncation.sampleRate,
      },
    };
  }
}

function wavTruncation(path: string, keepPart: boolean): { claimedS: number | null } | null {
  const bytes = openBytes(path);
  try {
    const { truncatedFrom, format } = readWavHeader(bytes, { keepPart });
    if (!truncatedFrom) return null;
    return { claimedS: truncatedFrom.claimedFrames === null ? null : truncatedFrom.claimedFrames / format.sampleRate };
  } finally {
    bytes.close();
  }
}
