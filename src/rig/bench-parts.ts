import { NEW_DESK, OLD_DESK, type InterfaceModel } from './audio-interface';
import type { MicrophoneModel } from './microphone';
import { NET_LOFT, PADDED_CRATE, type Room } from './room';

/** Something on the shelf of the simulated bench. */
export interface BenchPart<T> {
  readonly id: string;
  readonly name: string;
  readonly model: T;
}

/** A stone hall without carpets. */
const ECHOING_HALL: Room = { size: [14, 9, 6], t60: 1.9, microphone: [5, 4, 1.2], noiseDbA: 34 };
/** The quay at noon. */
const QUAY: Room = { size: null, t60: 0.1, microphone: [0, 0, 0], noiseDbA: 58 };

const plain = (change: Partial<MicrophoneModel>): MicrophoneModel => ({
  sensitivityMvPa: 15,
  selfNoiseDbA: 15,
  alphaLow: 0.55,
  alphaHigh: 0.5,
  lowHz: 45,
  highHz: 17_000,
  bells: [],
  puffDb: 18,
  ...change,
});

/** Voices by the name of their file in demo/speech. */
export const BENCH_TALKERS: readonly BenchPart<'low' | 'high' | 'north'>[] = [
  { id: 'low', name: 'Low voice', model: 'low' },
  { id: 'north', name: 'Northern voice', model: 'north' },
  { id: 'high', name: 'High voice', model: 'high' },
];
export const BENCH_ROOMS: readonly BenchPart<Room>[] = [
  { id: 'loft', name: 'Net loft', model: NET_LOFT },
  { id: 'crate', name: 'Padded crate', model: PADDED_CRATE },
  { id: 'hall', name: 'Echoing hall', model: ECHOING_HALL },
  { id: 'quay', name: 'Quay at noon', model: QUAY },
];
export const BENCH_MICROPHONES: readonly BenchPart<MicrophoneModel>[] = [
  { id: 'even', name: 'Even cardioid', model: plain({}) },
  {
    id: 'bright',
    name: 'Bright cardioid',
    model: plain({ sensitivityMvPa: 20, bells: [{ hz: 8000, db: 6, q: 0.8 }] }),
  },
  {
    id: 'dull',
    name: 'Quiet dynamic',
    model: plain({ sensitivityMvPa: 1.8, selfNoiseDbA: 18, alphaLow: 0.4, alphaHigh: 0.36, lowHz: 70, highHz: 12_000 }),
  },
  {
    id: 'ribbon',
    name: 'Ribbon',
    model: plain({ sensitivityMvPa: 2.5, alphaLow: 0.06, alphaHigh: 0.05, lowHz: 35, highHz: 12_500 }),
  },
  {
    id: 'lapel',
    name: 'Lapel omni',
    model: plain({ sensitivityMvPa: 8, selfNoiseDbA: 28, alphaLow: 0.98, alphaHigh: 0.88, highHz: 18_000 }),
  },
];
export const BENCH_INTERFACES: readonly BenchPart<InterfaceModel>[] = [
  { id: 'new', name: 'Quiet interface', model: NEW_DESK },
  { id: 'old', name: 'Noisy interface', model: OLD_DESK },
];

/** @throws RangeError for a part that is not on the shelf */
export function partOf<T>(shelf: readonly BenchPart<T>[], id: string): T {
  const part = shelf.find((p) => p.id === id);
  if (!part) throw new RangeError(`The simulated bench has no "${id}"; it has: ${shelf.map((p) => p.id).join(', ')}.`);
  return part.model;
}
