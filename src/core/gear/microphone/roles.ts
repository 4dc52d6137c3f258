import type { StepRoleDefinition } from '../step-role';

/** A cardioid in a room loses about this much from behind; figure-of-eight and omni less. Common practice, no source. */
const BEHIND_DB = -8;
/** The nearest step of a ladder; levels of the others are told from it. */
const NEAREST_M = 0.15;
/** In a room a voice loses less with distance than in the open: about this share of it. Common practice, no source. */
const ROOM_SHARE = 0.8;
/** What is left of a sweep from behind: no pattern cancels better in a room. Common practice, no source. */
const LEAST_OF_SWEEP = 0.12;

/** Front and back are read alike; what parts them is their level, and the back of some units is loud. */
const facing = (expectedDb: number) =>
  ({ group: 'facing', holds: 'passage', playKind: 'text', expectedDb: () => expectedDb, weight: 0.5 }) as const;

/** Steps of protocols for whatever picks up sound from the air. */
export const PICKUP_ROLES = [
  { id: 'speech', name: 'speech', plays: 'text', expectedLevel: facing(0) },
  { id: 'silence', name: 'silence', plays: 'silence' },
  { id: 'rear', name: 'rear', plays: 'text', expectedLevel: facing(BEHIND_DB) },
  {
    id: 'sweep',
    name: 'sweep',
    plays: 'sweep',
    answersSweep: true,
    expectedLevel: {
      group: 'sweep',
      holds: 'sweep',
      expectedDb: ({ angleDeg }) =>
        20 * Math.log10(Math.max(LEAST_OF_SWEEP, (1 + Math.cos(((angleDeg ?? 0) * Math.PI) / 180)) / 2)),
      weight: 1,
    },
  },
  { id: 'room', name: 'room', plays: 'sweep', answersSweep: true },
  {
    id: 'distance',
    name: 'distance',
    plays: 'phrase',
    expectedLevel: {
      group: 'distance',
      holds: 'line',
      expectedDb: ({ distanceM }) => -20 * Math.log10((distanceM ?? NEAREST_M) / NEAREST_M) * ROOM_SHARE,
      weight: 1,
    },
  },
  { id: 'close', name: 'close', plays: 'phrase' },
  { id: 'plosive', name: 'plosive', plays: 'phrase', hasPuffs: true },
  { id: 'handling', name: 'handling', plays: 'knocks' },
  { id: 'wind', name: 'wind', plays: 'wind' },
  { id: 'rub', name: 'clothing rub', plays: 'walk' },
  { id: 'range-walk', name: 'range walk', plays: 'walk' },
  { id: 'range-marks', name: 'distances of the range walk', plays: 'table' },
  { id: 'radio', name: 'beside a telephone', plays: 'silence' },
  { id: 'endurance', name: 'running time', plays: 'table' },
  { id: 'calibration', name: 'calibration', plays: 'tone', levelIn: 'dB SPL' },
  { id: 'other', name: 'other', plays: null },
] as const satisfies readonly StepRoleDefinition[];
