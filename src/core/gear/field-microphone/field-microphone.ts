import type { GearKind } from '../gear-kind';
import { PICKUP } from '../microphone/microphone';
import { FIELD_SHEET } from '../microphone/sheet';

/** Field microphone: its takes are measured as a microphone's are. */
export const FIELD_MICROPHONE = {
  ...PICKUP,
  id: 'field-microphone',
  name: 'Field microphone',
  sheet: FIELD_SHEET,
} as const satisfies GearKind;
