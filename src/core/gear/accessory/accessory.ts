import type { GearKind } from '../gear-kind';
import { PICKUP } from '../microphone/microphone';
import { ACCESSORY_SHEET } from './sheet';

/** Accessory: it has no sound of its own, and is heard through the microphone that it stands with. */
export const ACCESSORY = {
  ...PICKUP,
  id: 'accessory',
  name: 'Accessory',
  isHeardThroughAnother: true,
  keyFigures: ['outsideLessA', 'tonalChange'],
  sheet: ACCESSORY_SHEET,
} as const satisfies GearKind;
