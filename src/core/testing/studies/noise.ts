import { memoryStream } from '../../audio/memory-stream';
import { analyseClip } from '../../measure/clip-analysis';
import { noiseReSpeech } from '../../measure/noise-re-speech';
import type { SilenceNoise } from '../../measure/silence-noise';
import { colouredNoise, noisyTake, NOISY_RATE, PAUSE_FAULTS, type PauseFault } from '../noisy-takes';
import { coverage, type Coverage, type Trial } from './coverage';

const analyse = (samples: Float64Array) => analyseClip(memoryStream([samples], NOISY_RATE));

/** Corner of the noise: rumble of a room, which leaves the fewest independent readings. */
export const ROOM_CORNER_HZ = 60;
const NOISE_DB = -75;

/** Level of the noise that all takes of a study stand in, read over two minutes. */
export function trueNoise(cornerHz: number | null): Promise<SilenceNoise> {
  const key = String(cornerHz);
  const known = truths.get(key) ?? readTruth(cornerHz);
  truths.set(key, known);
  return known;
}

const truths = new Map<string, Promise<SilenceNoise>>();

async function readTruth(cornerHz: number | null): Promise<SilenceNoise> {
  const { noise } = await analyse(colouredNoise(120, 10 ** (NOISE_DB / 20), cornerHz, 'truth'));
  if (!noise) throw new Error('two minutes of noise hold no pause');
  return noise;
}

const trial = (noise: SilenceNoise | null, truth: SilenceNoise, weighting: 'a' | 'z'): Trial | null =>
  noise && noise.refused === null
    ? {
        error: noise[weighting].levelDbfs - truth[weighting].levelDbfs,
        u: noise[weighting].uncertaintyDb ?? 0,
        bound: noise.bound,
      }
    : null;

/** A-weighted noise of spoken takes with faults in their pauses. */
export async function pauseFaults(trials: number, faults: readonly PauseFault[] = PAUSE_FAULTS): Promise<Coverage[]> {
  const truth = await trueNoise(ROOM_CORNER_HZ);
  const rows: Coverage[] = [];
  for (const fault of faults) {
    const all: (Trial | null)[] = [];
    for (let t = 0; t < trials; t++) {
      const { noise } = await analyse(noisyTake(fault, `study ${t}`, { cornerHz: ROOM_CORNER_HZ }));
      all.push(trial(noise, truth, 'a'));
    }
    rows.push(coverage(`noise of the pauses, ${fault}`, all));
  }
  return rows;
}

/** A pause of 0.95 s, by itself. */
export async function shortPause(trials: number): Promise<Coverage[]> {
  const rows: Coverage[] = [];
  for (const cornerHz of [null, ROOM_CORNER_HZ]) {
    const truth = await trueNoise(cornerHz);
    const all: (SilenceNoise | null)[] = [];
    for (let t = 0; t < trials; t++)
      all.push((await analyse(colouredNoise(0.95, 10 ** (NOISE_DB / 20), cornerHz, `short ${t}`))).noise);
    for (const w of ['a', 'z'] as const)
      rows.push(
        coverage(
          `silent part ${w.toUpperCase()}, one pause of 0.95 s, ${cornerHz === null ? 'white' : 'room'} noise`,
          all.map((n) => trial(n, truth, w)),
        ),
      );
  }
  return rows;
}

/** Noise re speech at several signal-to-noise ratios: the truth is noise against the speech without it. */
export async function noiseReSpeechStudy(trials: number): Promise<Coverage[]> {
  const rows: Coverage[] = [];
  const truth = await trueNoise(null);
  for (const noiseDb of [-38, -50, -70]) {
    const level = truth.a.levelDbfs + noiseDb - NOISE_DB;
    const all: (Trial | null)[] = [];
    for (let t = 0; t < trials; t++) {
      const seed = `speech ${t}`;
      const clean = (await analyse(noisyTake('none', seed, { noiseDb: -140 }))).loudness.integratedLufs;
      const { loudness, stepPowers, noise } = await analyse(noisyTake('none', seed, { noiseDb }));
      const [, a] = noiseReSpeech({ loudness, stepPowers, gainDb: 0 }, { noise, gainDb: 0 });
      all.push(
        a.value === null ? null : { error: a.value - (level - 23 - clean), u: a.uncertainty ?? 0, bound: a.bound },
      );
    }
    rows.push(coverage(`noise re speech, noise at ${noiseDb} dB, speech at −23 dB`, all));
  }
  return rows;
}
