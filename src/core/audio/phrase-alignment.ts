import { FftPlan } from '../dsp/fft';
import { hann } from '../dsp/hann';
import { align, type Alignment } from './alignment';

/** Frames that the two readings are compared in. */
const HOP_S = 0.02;
/** Bands that tell one sound of speech from another, edges in hertz. */
const EDGES_HZ = [100, 200, 315, 450, 630, 850, 1100, 1450, 1900, 2500, 3300, 4400, 6000, 8000] as const;
/** Frames this far below the loud part are a pause. */
const PAUSE_DB = 25;
/** Shorter dips are inside a word. */
const SHORTEST_PAUSE_S = 0.12;
/** How far the readings may run apart, beside a share of the length. */
const SLACK_S = 2;
const SLACK_SHARE = 0.12;
/** Longest stretch that is compared frame by frame. */
const LONGEST_S = 180;

/** Which moment of one clip belongs to which moment of another. */
export interface TimeMap {
  /** One performance (a constant lag), or a text spoken anew (phrase by phrase). */
  readonly kind: 'performance' | 'phrases';
  /** Seconds of the first and of the second clip, both rising; straight lines between. */
  readonly anchors: readonly (readonly [first: number, second: number])[];
}

/** Every moment belongs to the same moment: clips that are aligned already. */
export const SAME_TIME: TimeMap = { kind: 'performance', anchors: [[0, 0]] };

/**
 * Lays two clips of one text over each other. Clips of one performance lie at a constant lag; of a text spoken anew,
 * the beginning and the end of every phrase are matched by dynamic time warping over band levels, with the mean
 * spectrum of each clip taken off, so that another microphone does not count as another sound.
 *
 * @param a - first clip, one channel
 * @param b - second clip, one channel, same sample rate
 * @param sampleRate - in hertz
 * @param alignment - how they lie to each other, where that is known already
 * @see Sakoe & Chiba, Dynamic programming algorithm optimization for spoken word recognition, IEEE Trans. ASSP 26 (1978)
 */
export function alignPhrases(
  a: Float64Array,
  b: Float64Array,
  sampleRate: number,
  alignment: Alignment = align(a, b, sampleRate),
): TimeMap {
  const { lagS, isSamePerformance } = alignment;
  const endS = Math.min(a.length / sampleRate, LONGEST_S);
  if (isSamePerformance)
    return {
      kind: 'performance',
      anchors: [
        [0, lagS],
        [endS, endS + lagS],
      ],
    };
  const [x, y] = [a, b].map((clip) => features(clip.subarray(0, LONGEST_S * sampleRate), sampleRate));
  if (x.frames === 0 || y.frames === 0) return { kind: 'phrases', anchors: [[0, lagS], [endS, endS + lagS]] }; // prettier-ignore
  const path = warp(x, y);
  return { kind: 'phrases', anchors: phraseAnchors(x, path) };
}

/**
 * The moment of the second clip that belongs to a moment of the first; beyond the anchors, in step with the last one.
 *
 * @param map - rising anchors, at least one
 * @param atS - seconds of the first clip
 */
export function mapTime(map: TimeMap, atS: number): number {
  const { anchors } = map;
  const last = anchors.length - 1;
  if (atS <= anchors[0][0]) return anchors[0][1] + atS - anchors[0][0];
  if (atS >= anchors[last][0]) return anchors[last][1] + atS - anchors[last][0];
  let i = 1;
  while (anchors[i][0] < atS) i++;
  const [[a0, b0], [a1, b1]] = [anchors[i - 1], anchors[i]];
  return a1 > a0 ? b0 + ((atS - a0) / (a1 - a0)) * (b1 - b0) : b0;
}

/** The map the other way round. */
export const turned = ({ kind, anchors }: TimeMap): TimeMap => ({ kind, anchors: anchors.map(([a, b]) => [b, a]) });

interface Features {
  readonly frames: number;
  /** Band levels in dB, mean of the speech taken off, frame by frame. */
  readonly bands: Float64Array;
  readonly isPause: readonly boolean[];
}

function features(samples: Float64Array, sampleRate: number): Features {
  const size = 2 ** Math.round(Math.log2(0.03 * sampleRate));
  const hop = Math.round(HOP_S * sampleRate);
  const fft = new FftPlan(Math.max(16, size));
  const window = hann(size);
  const frames = Math.max(0, Math.floor((samples.length - size) / hop) + 1);
  const count = EDGES_HZ.length - 1;
  const bands = new Float64Array(frames * count);
  const loudness = new Float64Array(frames);
  for (let f = 0; f < frames; f++) {
    // The transform uses its input up.
    fft.input.im.fill(0);
    for (let i = 0; i < size; i++) fft.input.re[i] = samples[f * hop + i] * window[i];
    fft.forward();
    for (let k = 0; k < count; k++) {
      const first = Math.max(1, Math.round((EDGES_HZ[k] * size) / sampleRate));
      const last = Math.min(size / 2, Math.round((EDGES_HZ[k + 1] * size) / sampleRate));
      let power = 1e-14;
      for (let bin = first; bin < Math.max(last, first + 1); bin++)
        power += fft.output.re[bin] ** 2 + fft.output.im[bin] ** 2;
      bands[f * count + k] = 10 * Math.log10(power);
      loudness[f] += power;
    }
  }
  const db = loudness.map((p) => 10 * Math.log10(p));
  const loud = Float64Array.from(db).sort()[Math.floor(0.9 * frames)] ?? 0;
  const isPause = Array.from(db, (level) => level < loud - PAUSE_DB);
  limitAndCentre(bands, count, isPause, loud - PAUSE_DB - 20);
  return { frames, bands, isPause };
}

/** What lies deep in the noise says nothing; the mean spectrum is the microphone's. */
function limitAndCentre(bands: Float64Array, count: number, isPause: readonly boolean[], floor: number): void {
  for (let i = 0; i < bands.length; i++) bands[i] = Math.max(floor, bands[i]);
  for (let k = 0; k < count; k++) {
    let [sum, n] = [0, 0];
    isPause.forEach((pause, f) => {
      if (pause) return;
      sum += bands[f * count + k];
      n++;
    });
    const mean = n > 0 ? sum / n : floor;
    isPause.forEach((_, f) => (bands[f * count + k] -= mean));
  }
}

/** For every frame of the first clip the frame of the second on the cheapest path. */
function warp(x: Features, y: Features): Int32Array {
  const count = EDGES_HZ.length - 1;
  const slope = y.frames / x.frames;
  const reach = Math.ceil(SLACK_S / HOP_S + SLACK_SHARE * Math.max(x.frames, y.frames));
  const width = 2 * reach + 1;
  const from = new Uint8Array(x.frames * width);
  let before = new Float64Array(width).fill(Infinity);
  let now = new Float64Array(width);
  const startOf = (i: number): number => Math.round(i * slope) - reach;
  for (let i = 0; i < x.frames; i++) {
    now.fill(Infinity);
    const start = startOf(i);
    const shift = i === 0 ? 0 : start - startOf(i - 1);
    for (let w = 0; w < width; w++) {
      const j = start + w;
      if (j < 0 || j >= y.frames) continue;
      const diagonal = i === 0 ? Infinity : (before[w + shift - 1] ?? Infinity);
      const up = i === 0 ? Infinity : (before[w + shift] ?? Infinity);
      const left = w > 0 ? now[w - 1] : Infinity;
      const best = Math.min(diagonal, up, left);
      const base = best === Infinity ? (i === 0 || j === 0 ? 0.3 * Math.abs(i - j) : Infinity) : best;
      if (base === Infinity) continue;
      from[i * width + w] = best === Infinity ? 3 : best === diagonal ? 0 : best === up ? 1 : 2;
      // Waiting costs a little, so that the path runs straight where nothing speaks against it.
      now[w] = base + distance(x, i, y, j, count) * (best === diagonal ? 1 : 1.1) + (best === diagonal ? 0 : 0.3);
    }
    [before, now] = [now, before];
  }
  return traceBack(before, from, x.frames, y.frames, width, startOf);
}

function traceBack(
  last: Float64Array,
  from: Uint8Array,
  frames: number,
  others: number,
  width: number,
  startOf: (i: number) => number,
): Int32Array {
  let i = frames - 1;
  let w = last.indexOf(last.reduce((a, b) => Math.min(a, b), Infinity));
  const path = new Int32Array(frames);
  while (i >= 0) {
    path[i] = Math.min(others - 1, Math.max(0, startOf(i) + w));
    const step = from[i * width + w];
    if (step === 2) w--;
    else {
      const shift = i > 0 ? startOf(i) - startOf(i - 1) : 0;
      if (step === 3) {
        for (let k = 0; k < i; k++) path[k] = path[i];
        break;
      }
      w += step === 0 ? shift - 1 : shift;
      i--;
    }
  }
  return path;
}

/** Root mean square of the differences of the bands, in units of 6 dB. */
function distance(x: Features, i: number, y: Features, j: number, count: number): number {
  let sum = 0;
  for (let k = 0; k < count; k++) sum += (x.bands[i * count + k] - y.bands[j * count + k]) ** 2;
  return Math.sqrt(sum / count) / 6;
}

/** Beginning and end of each phrase, and of the clip. */
function phraseAnchors(x: Features, path: Int32Array): (readonly [number, number])[] {
  const at = (frame: number): readonly [number, number] => [frame * HOP_S, path[frame] * HOP_S];
  const frames: number[] = [0];
  const shortest = Math.round(SHORTEST_PAUSE_S / HOP_S);
  for (let f = 0; f < x.frames;) {
    let end = f;
    while (end < x.frames && x.isPause[end] === x.isPause[f]) end++;
    if (x.isPause[f] && end - f >= shortest) frames.push(f, end);
    f = end;
  }
  frames.push(x.frames - 1);
  const anchors: (readonly [number, number])[] = [];
  for (const frame of frames) {
    if (frame < 0 || frame >= x.frames) continue;
    const [a, b] = at(frame);
    const before = anchors.at(-1);
    if (!before || (a > before[0] && b > before[1])) anchors.push([a, b]);
  }
  return anchors;
}
