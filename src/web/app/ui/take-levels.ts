import type { KeptSheet } from '#core/text/kept-number';
import type { TakeLevel } from '#contracts/protocol';
import { SHEETS } from './field/number-sheets';

/** Fields for the levels and speeds that a take has of its own. */
export const TAKE_LEVELS: readonly { readonly id: TakeLevel; readonly label: string; readonly sheet: KeptSheet }[] = [
  { id: 'levelDbu', label: 'Level at the input', sheet: SHEETS.inputTone },
  { id: 'levelDbSpl', label: 'Calibrator', sheet: SHEETS.calibrator },
  { id: 'windSpeedMs', label: 'Wind speed', sheet: SHEETS.wind },
];
