import type { GearKind } from '../gear-kind';
import { PICKUP } from '../microphone/microphone';
import { BOOSTER_SHEET } from './sheet';

/** Booster: it has no sound of its own, and is heard through the microphone that it stands with. */
export const BOOSTER = {
  ...PICKUP,
  id: 'booster',
  name: 'Booster',
  isHeardThroughAnother: true,
  keyFigures: ['gainAdded', 'noiseChangeA'],
  sheet: BOOSTER_SHEET,
} as const satisfies GearKind;
