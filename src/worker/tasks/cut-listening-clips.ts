import { writeFileSync } from 'node:fs';
import { AudioFileError } from '#core/audio/audio-file-error';
import { commonPassage, excerpt, type Passage } from '#core/audio/excerpt';
import { ANCHOR_HZ, lowPassAnchor } from '#core/audio/low-pass-anchor';
import { alignPhrases, SAME_TIME, type TimeMap } from '#core/audio/phrase-alignment';
import { resample } from '#core/audio/resample';
import { readStretch } from '#core/audio/sample-stream';
import { encodeWav } from '#core/audio/wav-write';
import { excerptLevel } from '#core/measure/excerpt-level';
import { levelMatch } from '#core/measure/level-match';
import { openClip } from '../open-clip';
import { readClip } from '../read-clip';

/** Order to a worker: make clips that a listener can be given. */
export interface CutListeningClipsTask {
  readonly clips: readonly { readonly path: string; readonly into: string; readonly name: string }[];
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
  const { maps, lengthsS, rate } = await laidOver(task.clips.map((c) => c.path));
  const { startsS, lengthS } = commonPassage(lengthsS, maps, task.passage);
  const frames = Math.floor(lengthS * rate);
  const excerpts: Float64Array[] = [];
  for (const [i, { path }] of task.clips.entries()) excerpts.push(await cut(path, rate, startsS[i], frames));
  const levels = await Promise.all(excerpts.map((e) => excerptLevel(e, rate)));
  const silent = task.clips.filter((_, i) => !Number.isFinite(levels[i].integratedLufs)).map((c) => c.name);
  if (silent.length > 0)
    throw new AudioFileError(
      'unmeasurable',
      `Nothing above −70 LUFS is to be heard of ${silent.join(', ')} in this passage, so it cannot be made as loud as the others. Choose another passage, or another step.`,
    );
  const { gainsDb } = levelMatch(levels, TARGET_LUFS);
  const matched = excerpts.map((e, i) => {
    const gain = 10 ** (gainsDb[i] / 20);
    return e.map((x) => x * gain);
  });
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

/** How each clip lies to the first. Two clips are in memory at a time, however many there are. */
async function laidOver(paths: readonly string[]): Promise<{ maps: TimeMap[]; lengthsS: number[]; rate: number }> {
  const first = await readClip(paths[0]);
  const rate = first.format.sampleRate;
  const maps: TimeMap[] = [SAME_TIME];
  const lengthsS = [first.samples.length / rate];
  for (const path of paths.slice(1)) {
    const { samples, format } = await readClip(path);
    maps.push(alignPhrases(first.samples, resample(samples, format.sampleRate, rate), rate));
    lengthsS.push(samples.length / format.sampleRate);
  }
  return { maps, lengthsS, rate };
}

/** Around a stretch that is resampled: more than the interpolator reaches. */
const MARGIN_S = 0.05;

async function cut(path: string, rate: number, startS: number, frames: number): Promise<Float64Array> {
  const stream = openClip(path);
  try {
    const { sampleRate } = stream.format;
    // Whole samples of both rates at the beginning, so that nothing shifts.
    const from = Math.max(0, Math.floor((startS - MARGIN_S) * 10)) / 10;
    const to = startS + frames / rate + MARGIN_S;
    const [samples] = await readStretch(stream, Math.round(from * sampleRate), Math.ceil(to * sampleRate));
    return excerpt(resample(samples, sampleRate, rate), rate, startS - from, frames);
  } finally {
    stream.close();
  }
}
