import { powerToDb } from '../units';

/** A decay that was followed into the noise. */
export interface Decay {
  /** Backward-integrated level re its beginning, dB, per sample, as far as it was followed. */
  readonly levels: Float64Array;
  /** Backward-integrated energy, linear. */
  readonly energy: Float64Array;
  /** How far the decay's own line stands above the noise at its beginning: impulse response to noise ratio, dB. */
  readonly headroomDb: number;
}

const BLOCK_S = 0.01;
/** The late slope is read from here to here above the noise (Lundeby et al. 1995). */
const SLOPE_ABOVE_NOISE_DB = [5, 25] as const;
/** The noise is read from where the decay's line has come this far under it. */
const BELOW_CROSSING_DB = 10;
const NOISE_SHARE = 0.1;
const ROUNDS = 6;
/** Noise this far under the mean of the decay is none: a computed response, cut off or faded. */
const NO_NOISE = 1e-11;

interface Line {
  /** dB at time 0. */
  readonly at0: number;
  /** dB per second, negative. */
  readonly slope: number;
}

/**
 * Backward integration (Schroeder 1965) of a squared impulse response up to where its decay meets the noise: the
 * crossing is found by turns with the slope and the noise (Lundeby, Vigran, Bietz & Vorländer, Acustica 81, 1995), the
 * noise power is taken off, and the tail that the noise hides is put back as an exponential (ISO 3382-1:2009 5.3.3;
 * the clause from memory).
 *
 * @param response - from the direct sound on, not faded at its end: the noise is read there
 * @param sampleRate - in hertz
 */
export function followDecay(response: Float64Array, sampleRate: number): Decay {
  const energy = response.map((x) => x * x);
  const block = Math.max(1, Math.round(BLOCK_S * sampleRate));
  const blocks = blockMeans(energy, block);
  const blockS = block / sampleRate;
  let noise = meanOf(energy, Math.floor((1 - NOISE_SHARE) * energy.length), energy.length);
  let line: Line | null = null;
  let crossing = energy.length / sampleRate;
  for (let round = 0; round < ROUNDS && noise > 0; round++) {
    line = lateLine(blocks, blockS, noise);
    if (!line) break;
    crossing = Math.max(0, Math.min(energy.length / sampleRate, (powerToDb(noise) - line.at0) / line.slope));
    const from = Math.round((crossing - BELOW_CROSSING_DB / line.slope) * sampleRate);
    // Where the decay reaches to the end, the last tenth is all there is to read the noise from.
    noise = meanOf(energy, Math.min(from, Math.floor((1 - NOISE_SHARE) * energy.length)), energy.length);
  }
  const end = line ? Math.max(block, Math.round(crossing * sampleRate)) : firstNoiseSample(blocks, block, noise);
  return integrate(energy, Math.min(end, energy.length), noise, line, sampleRate);
}

function integrate(energy: Float64Array, end: number, noise: number, line: Line | null, sampleRate: number): Decay {
  const integrated = new Float64Array(end);
  // ∫ of the line from its crossing on: power there times the time constant.
  let sum = line ? (10 ** ((line.at0 + (line.slope * end) / sampleRate) / 10) * sampleRate * 10) / Math.LN10 / -line.slope : 0; // prettier-ignore
  for (let i = end - 1; i >= 0; i--) integrated[i] = sum = Math.max(0, sum + energy[i] - noise);
  const levels = integrated.map((e) => powerToDb(e / integrated[0]));
  const isSilence = noise <= NO_NOISE * (integrated[0] / end);
  const headroomDb = isSilence ? Infinity : line ? line.at0 - powerToDb(noise) : 0;
  return { levels, energy: integrated, headroomDb };
}

const meanOf = (values: Float64Array, from: number, to: number): number => {
  let sum = 0;
  for (let i = Math.max(0, from); i < to; i++) sum += values[i];
  return sum / Math.max(1, to - Math.max(0, from));
};

const blockMeans = (energy: Float64Array, block: number): Float64Array =>
  Float64Array.from({ length: Math.floor(energy.length / block) }, (_, b) =>
    meanOf(energy, b * block, (b + 1) * block),
  );

/** Where nothing decays above the noise: the first block within 6 dB of it. */
function firstNoiseSample(blocks: Float64Array, block: number, noise: number): number {
  const first = blocks.findIndex((b) => b <= 4 * noise);
  return Math.max(block, (first < 0 ? blocks.length : first) * block);
}

/** Line through the blocks from 25 to 5 dB above the noise, back from where they first come down to that. */
function lateLine(blocks: Float64Array, blockS: number, noise: number): Line | null {
  const floor = powerToDb(noise);
  const [near, far] = SLOPE_ABOVE_NOISE_DB;
  const levels = Array.from(blocks, (b) => powerToDb(Math.max(b - noise, 1e-300)));
  const stop = levels.findIndex((l) => l < floor + near);
  if (stop < 0) return null;
  let start = stop;
  while (start > 0 && levels[start - 1] < floor + far) start--;
  // The block with the direct sound in it belongs to no line.
  start = Math.max(start, 1);
  if (stop - start < 3) return null;
  let [n, st, sl, stt, stl] = [0, 0, 0, 0, 0];
  for (let b = start; b < stop; b++) {
    const t = (b + 0.5) * blockS;
    n++;
    st += t;
    sl += levels[b];
    stt += t * t;
    stl += t * levels[b];
  }
  const slope = (n * stl - st * sl) / (n * stt - st * st);
  return slope < 0 ? { slope, at0: (sl - slope * st) / n } : null;
}
