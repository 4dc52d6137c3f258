import type { GearKind } from '../gear-kind';
import { PICKUP } from '../microphone/microphone';

/** Field microphone: its takes are measured as a microphone's are. */
export const FIELD_MICROPHONE = {
  ...PICKUP,
  id: 'field-microphone',
  name: 'Field microphone',
} as const satisfies GearKind;
