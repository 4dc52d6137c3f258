import { AudioFileError } from './audio-file-error';
import { mapTime, type TimeMap } from './phrase-alignment';

/** Fade at both ends of what is heard. */
export const FADE_S = 0.02;

/** A passage of the first clip. */
export interface Passage {
  readonly fromS: number;
  readonly lengthS: number;
}

/**
 * The same passage of several clips: as long as all of them have it, cut where the text is the same.
 *
 * @param lengthsS - length of each clip in seconds
 * @param maps - from the first clip to each (the first one's own map is the identity)
 * @param wanted - passage of the first clip
 * @returns where it begins in each clip, and how long it can be for all of them
 * @throws AudioFileError `unmeasurable` where less than half a second is left
 */
export function commonPassage(
  lengthsS: readonly number[],
  maps: readonly TimeMap[],
  wanted: Passage,
): { readonly startsS: readonly number[]; readonly lengthS: number } {
  // A clip that begins later than the others moves the beginning for all.
  let fromS = wanted.fromS;
  for (const map of maps) if (mapTime(map, fromS) < 0) fromS -= mapTime(map, fromS);
  const startsS = maps.map((map) => Math.max(0, mapTime(map, fromS)));
  const lengthS = Math.min(wanted.lengthS, ...lengthsS.map((length, i) => length - startsS[i]));
  if (lengthS < 0.5)
    throw new AudioFileError('unmeasurable', 'The clips share less than half a second of this passage.');
  return { startsS, lengthS };
}

/**
 * Cuts a passage, with raised-cosine fades of 20 ms at both ends.
 *
 * @param samples - one channel
 * @param sampleRate - in hertz
 * @param startS - where it begins
 * @param frames - samples of the result; what the clip does not have is silence
 */
export function excerpt(samples: Float64Array, sampleRate: number, startS: number, frames: number): Float64Array {
  const from = Math.round(startS * sampleRate);
  const out = new Float64Array(frames);
  out.set(samples.subarray(from, from + frames));
  const fade = Math.min(Math.round(FADE_S * sampleRate), Math.floor(frames / 2));
  for (let i = 0; i < fade; i++) {
    const gain = 0.5 - 0.5 * Math.cos((Math.PI * (i + 0.5)) / fade);
    out[i] *= gain;
    out[frames - 1 - i] *= gain;
  }
  return out;
}
