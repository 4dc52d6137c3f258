import type { GearKind } from '../gear-kind';
import { PICKUP } from '../microphone/microphone';

/** Booster: it has no sound of its own, and is heard through the microphone that it stands with. */
export const BOOSTER = {
  ...PICKUP,
  id: 'booster',
  name: 'Booster',
  isHeardThroughAnother: true,
} as const satisfies GearKind;
