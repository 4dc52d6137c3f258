import type { GearKind } from '../gear-kind';
import { LOOPED } from './loop-response';
import { LINE_CLAIMS } from './claims';
import { LINE_ROLES } from './roles';
import { lineRunFigures } from './run-figures';
import { INTERFACE_SHEET } from './sheet';

/** Interfaces and preamps: their takes are fed by cables, and they are the chain themselves. */
export const INTERFACE = {
  id: 'interface',
  name: 'Interface or preamp',
  roles: LINE_ROLES,
  isHeardThroughAnother: false,
  sweepWhere: LOOPED,
  keyFigures: ['einA', 'noiseFigure'],
  claims: LINE_CLAIMS,
  sheet: INTERFACE_SHEET,
  runFigures: lineRunFigures,
} as const satisfies GearKind;
