import { BODY_FIELDS, BOX_FIELDS } from '../sheet/common-fields';
import type { SheetField } from '../sheet/sheet-field';

export const ACCESSORY_SHEET = [
  {
    id: 'form',
    name: 'What it is',
    group: 'What it is',
    type: 'choice',
    isClass: true,
    options: ['isolation shield', 'foam windscreen', 'fur windscreen', 'basket', 'pop filter', 'mount', 'shock mount', 'stand'],
    alsoCalled: ['type'],
  },
  { id: 'fits', name: 'Fits', group: 'What it is', type: 'several', options: [], alsoCalled: ['compatible with', 'compatibility'] },
  { id: 'thread', name: 'Thread', group: 'Body', type: 'several', options: ['3/8″', '5/8″', '1/4″'], alsoCalled: ['threads', 'mounting thread'] },
  {
    id: 'windReduction',
    name: 'Wind that it takes away',
    group: 'Sound',
    type: 'number',
    unit: 'dB',
    least: 0,
    most: 80,
    alsoCalled: ['wind noise reduction', 'wind noise attenuation'],
  },
  {
    id: 'roomReduction',
    name: 'Room that it takes away',
    group: 'Sound',
    type: 'number',
    unit: 'dB',
    least: 0,
    most: 60,
    alsoCalled: ['attenuation', 'noise reduction'],
  },
  { id: 'loss', name: 'Highs that it takes away', group: 'Sound', type: 'number', unit: 'dB', least: 0, most: 40, alsoCalled: ['high frequency loss'] },
  { id: 'folds', name: 'Folds', group: 'Body', type: 'yes-no', isClass: true },
  { id: 'washable', name: 'Washable', group: 'Body', type: 'yes-no' },
  { id: 'carries', name: 'Carries', group: 'Body', type: 'number', unit: 'g', least: 0, most: 50_000, alsoCalled: ['maximum load', 'load capacity'] },
  ...BODY_FIELDS,
  ...BOX_FIELDS,
] as const satisfies readonly SheetField[];
