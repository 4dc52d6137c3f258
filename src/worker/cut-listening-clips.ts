import { writeFileSync } from 'node:fs';
import { commonPassage, excerpt, type Passage } from '#core/audio/excerpt';
import { ANCHOR_HZ, lowPassAnchor } from '#core/audio/low-pass-anchor';
import { alignPhrases, type TimeMap } from '#core/audio/phrase-alignment';
import { resample } from '#core/audio/resample';
import { encodeWav } from '#core/audio/wav-write';
import { excerptLevel } from '#core/measure/excerpt-level';
import { levelMatch } from '#core/measure/level-match';
import { readClip } from './read-clip';

/** Order to a worker: make clips that a listener can be given. */
export interface CutListeningClipsTask {
  readonly clips: readonly { readonly path: string; readonly into: string }[];
  /** Low-passed copies of one of the clips. */
  readonly anchors: readonly { readonly of: number; readonly kind: keyof typeof ANCHOR_HZ; readonly into: string }[];
  /** Of the first clip. */
  readonly passage: Passage;
}

export interface CutListeningClip {
  readonly gainDb: number;
  /** Measured again after everything was applied. */
  readonly loudnessLufs: number;
}

export interface CutListeningClipsResult {
  readonly lengthS: number;
  readonly clips: readonly CutListeningClip[];
  readonly anchors: readonly CutListeningClip[];
}

/** Level at which clips are heard; lowered for all alike where peaks ask for it. */
const TARGET_LUFS = -23;

/**
 * Aligned, of one sample rate and one length, faded, level-matched, and written without a word of what they are: plain
 * WAV files of 32-bit float samples and equal size.
 */
export default async function cutListeningClips(task: CutListeningClipsTask): Promise<CutListeningClipsResult> {
  const clips: Float64Array[] = [];
  let rate = 0;
  for (const { path } of task.clips) {
    const { samples, format } = await readClip(path);
    rate ||= format.sampleRate;
    clips.push(resample(samples, format.sampleRate, rate));
  }
  const maps = clips.map((clip, i): TimeMap =>
    i === 0 ? { kind: 'performance', anchors: [[0, 0]] } : alignPhrases(clips[0], clip, rate),
  );
  const { startsS, lengthS } = commonPassage(
    clips.map((c) => c.length / rate),
    maps,
    task.passage,
  );
  const frames = Math.floor(lengthS * rate);
  const excerpts = clips.map((clip, i) => excerpt(clip, rate, startsS[i], frames));
  const { gainsDb } = levelMatch(await Promise.all(excerpts.map((e) => excerptLevel(e, rate))), TARGET_LUFS);
  const matched = excerpts.map((e, i) => e.map((x) => x * 10 ** (gainsDb[i] / 20)));
  const anchors = task.anchors.map(({ of, kind }) => lowPassAnchor(matched[of], rate, ANCHOR_HZ[kind]));
  matched.forEach((samples, i) => writeFileSync(task.clips[i].into, encodeWav([samples], rate, 'float32')));
  anchors.forEach((samples, i) => writeFileSync(task.anchors[i].into, encodeWav([samples], rate, 'float32')));
  const measured = async (samples: Float64Array, gainDb: number): Promise<CutListeningClip> => ({
    gainDb,
    loudnessLufs: (await excerptLevel(samples, rate)).integratedLufs,
  });
  return {
    lengthS: frames / rate,
    clips: await Promise.all(matched.map((samples, i) => measured(samples, gainsDb[i]))),
    anchors: await Promise.all(anchors.map((samples, i) => measured(samples, gainsDb[task.anchors[i].of]))),
  };
}
