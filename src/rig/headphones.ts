import { BiquadCascade, cascadeGainDb } from '#core/dsp/biquad';
import { highPass, lowPass, peaking } from '#core/dsp/eq-biquads';
import { standardNormal } from '#core/stats/normal';
import { seededBits } from '#core/stats/random';
import type { Bell } from './microphone';
import { whiteNoise } from './white-noise';

/** Simulated headphones on a simulated artificial ear. */
export interface HeadphonesModel {
  /** Level at the recorder of 1 kHz played at full scale, dBFS. */
  readonly levelDbfs: number;
  readonly lowHz: number;
  readonly highHz: number;
  readonly bells: readonly Bell[];
  /** How the right side differs from the left one. */
  readonly right?: { readonly levelDb?: number; readonly bells?: readonly Bell[] };
  /** Bass that a seating lets out or keeps in, standard deviation in dB below 100 Hz. */
  readonly sealDb?: number;
  /** What the place of the cup does about 7 kHz, standard deviation in dB. */
  readonly seatDb?: number;
  /** Curve of the drivers: y = x + square·x² + cube·x³. */
  readonly bend?: { readonly square: number; readonly cube: number };
}

/** One seating on the ear, and what is played. */
export interface SeatingSetup {
  readonly sampleRate: number;
  readonly durationS: number;
  readonly side: 'left' | 'right';
  readonly headphones: HeadphonesModel;
  /** As it is played, full scale ±1. */
  readonly played: Float64Array;
  /** Each seating has one of its own. */
  readonly seed: string;
}

const LEAD_IN_S = 0.4;
/** Of the ear's microphone and what is behind it. */
const NOISE_DBFS = -92;
/** A leak is heard below this. */
const SEAL = { hz: 55, q: 0.45 } as const;
const SEAT = { hz: 7000, q: 1.2 } as const;

/** A take of one side: the same setup gives the same samples on every machine. */
export function renderSeating(setup: SeatingSetup): Float64Array {
  const { sampleRate, headphones, side } = setup;
  const bits = seededBits(setup.seed);
  const drawn = (sd = 0): number => sd * standardNormal(bits);
  const { bend } = headphones;
  const right = side === 'right' ? headphones.right : undefined;
  const sections = [
    highPass(sampleRate, headphones.lowHz),
    lowPass(sampleRate, headphones.highHz),
    ...[
      ...headphones.bells,
      ...(right?.bells ?? []),
      { ...SEAL, db: drawn(headphones.sealDb) },
      { ...SEAT, db: drawn(headphones.seatDb) },
    ].map((b) => peaking(sampleRate, b.hz, b.db, b.q)),
  ];
  const at1k = cascadeGainDb(sections.slice(0, 2 + headphones.bells.length), 1000, sampleRate);
  const gain = 10 ** ((headphones.levelDbfs + (right?.levelDb ?? 0) - at1k) / 20);
  const heard = setup.played.map((x) => x + (bend ? bend.square * x * x + bend.cube * x * x * x : 0));
  new BiquadCascade(sections).process(heard);
  const samples = whiteNoise(Math.round(setup.durationS * sampleRate), bits);
  const noise = 10 ** (NOISE_DBFS / 20);
  for (let i = 0; i < samples.length; i++) samples[i] *= noise;
  const start = Math.round(LEAD_IN_S * sampleRate);
  const end = Math.min(samples.length, start + heard.length);
  for (let i = start; i < end; i++) samples[i] += gain * heard[i - start];
  return samples;
}
