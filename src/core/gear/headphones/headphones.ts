import { NO_CURVES } from '../run/analysed-take';
import type { GearKind } from '../gear-kind';
import { HEADPHONES_SHEET } from './sheet';

/**
 * Headphones: nothing is recorded of them without an artificial ear (IEC 60318), so what is known is typed into tables,
 * heard, and given by hand.
 */
export const HEADPHONES = {
  id: 'headphones',
  name: 'Headphones',
  roles: [{ id: 'other', name: 'other', plays: null }],
  isHeardThroughAnother: false,
  keyFigures: [],
  claims: {},
  sheet: HEADPHONES_SHEET,
  runFigures: () => ({ measurements: [], curves: NO_CURVES }),
} as const satisfies GearKind;
