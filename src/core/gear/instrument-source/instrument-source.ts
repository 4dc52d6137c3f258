import type { GearKind } from '../gear-kind';
import { PICKUP } from '../microphone/microphone';

/** Instrument source: its takes are measured as a microphone's are. */
export const INSTRUMENT_SOURCE = {
  ...PICKUP,
  id: 'instrument-source',
  name: 'Instrument source',
} as const satisfies GearKind;
