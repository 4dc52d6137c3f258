import type { GearKind } from '../gear-kind';
import { PICKUP_CLAIMS } from './claims';
import { PICKUP_ROLES } from './roles';
import { pickupRunFigures } from './run-figures';
import { MICROPHONE_SHEET } from './sheet';

/** What is common to everything that picks up sound: kinds take it over, and say what differs. */
export const PICKUP = {
  roles: PICKUP_ROLES,
  isHeardThroughAnother: false,
  sweepWhere: '0°',
  keyFigures: ['noiseReSpeechA', 'rearRejection'],
  claims: PICKUP_CLAIMS,
  runFigures: pickupRunFigures,
} as const satisfies Omit<GearKind, 'id' | 'name' | 'sheet'>;

export const MICROPHONE = {
  id: 'microphone',
  name: 'Microphone',
  ...PICKUP,
  sheet: MICROPHONE_SHEET,
} as const satisfies GearKind;
