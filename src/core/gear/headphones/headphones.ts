import type { GearKind } from '../gear-kind';
import { HEADPHONES_CLAIMS } from './claims';
import { HEADPHONES_ROLES } from './roles';
import { headphonesRunFigures, ON_THE_EAR } from './run-figures';
import { HEADPHONES_SHEET } from './sheet';

/** Headphones: measured on an artificial ear (IEC 60318) or a stated rig, heard, and read into tables. */
export const HEADPHONES = {
  id: 'headphones',
  name: 'Headphones',
  roles: HEADPHONES_ROLES,
  isHeardThroughAnother: false,
  sweepWhere: ON_THE_EAR,
  cannotTell:
    'It is the response on this ear: units that were measured on it are compared, no others. Neither a free nor a diffuse field is taken off, so flat is not neutral; above some 8 kHz the seating decides, and below 100 Hz the seal, which is another one on every head.',
  keyFigures: ['outsideLessA', 'sideDifference', 'sealSpread', 'impedance'],
  claims: HEADPHONES_CLAIMS,
  sheet: HEADPHONES_SHEET,
  runFigures: headphonesRunFigures,
} as const satisfies GearKind;
