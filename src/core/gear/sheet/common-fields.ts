import { HEARD_WORDS } from '../../rules/listening/vocabulary';
import type { SheetField } from './sheet-field';

/** What every kind of gear has: a body, a box, and a maker. */
export const BODY_FIELDS = [
  { id: 'weight', name: 'Weight', group: 'Body', type: 'number', unit: 'g', least: 0, most: 100_000 },
  { id: 'length', name: 'Length', group: 'Body', type: 'number', unit: 'mm', least: 0, most: 5000 },
  {
    id: 'width',
    name: 'Width or diameter',
    group: 'Body',
    type: 'number',
    unit: 'mm',
    least: 0,
    most: 5000,
    alsoCalled: ['diameter', 'width'],
  },
  {
    id: 'body',
    name: 'Body',
    group: 'Body',
    type: 'several',
    options: ['metal', 'plastic', 'wood', 'rubber', 'fabric'],
    alsoCalled: ['material', 'body material', 'housing'],
  },
] as const satisfies readonly SheetField[];

/** Impedance of an output that is loaded by an input. */
export const OUTPUT_IMPEDANCE = {
  id: 'outputImpedance',
  name: 'Output impedance',
  group: 'Electrical',
  type: 'number',
  unit: 'Ω',
  least: 0,
  most: 1_000_000,
} as const satisfies SheetField;

/** What it draws from a supply on the line. */
export const PHANTOM_CURRENT = {
  id: 'phantomCurrent',
  name: 'Phantom current',
  group: 'Electrical',
  type: 'number',
  unit: 'mA',
  least: 0,
  most: 50,
  alsoCalled: ['current consumption', 'supply current'],
} as const satisfies SheetField;

export const BOX_FIELDS = [
  {
    id: 'inTheBox',
    name: 'In the box',
    group: 'Box and maker',
    type: 'several',
    options: ['cable', 'mount', 'case', 'windscreen', 'power supply', 'adapter'],
    alsoCalled: ['included', 'included accessories', 'supplied accessories', 'box contents'],
  },
  {
    id: 'notInTheBox',
    name: 'Needed, not in the box',
    group: 'Box and maker',
    type: 'several',
    options: ['cable', 'mount', 'stand', 'power supply', 'pop filter', 'adapter', 'cells'],
  },
  {
    id: 'makersWords',
    name: 'Character, as its maker says',
    group: 'Box and maker',
    type: 'several',
    options: HEARD_WORDS,
    alsoCalled: ['character', 'sound character', 'sound signature', 'tonality'],
  },
  {
    id: 'origin',
    name: 'Made in',
    group: 'Box and maker',
    type: 'text',
    alsoCalled: ['country of origin', 'origin'],
  },
  { id: 'warranty', name: 'Warranty', group: 'Box and maker', type: 'number', unit: 'months', least: 0, most: 600 },
] as const satisfies readonly SheetField[];

/** Nothing that is reviewed begins above this, or ends below it: it tells 20,000 Hz from 20 with three decimals. */
const LOWEST_UPPER_END_HZ = 1000;

/** Ends of the response of whatever has one. */
export const RESPONSE_FIELDS = [
  {
    id: 'responseLow3',
    name: 'Response from',
    group: 'Sound',
    type: 'number',
    unit: 'Hz',
    least: 0,
    most: LOWEST_UPPER_END_HZ,
    end: 'low',
    alsoCalled: ['frequency response', 'frequency range', 'bandwidth', 'response'],
  },
  {
    id: 'responseHigh3',
    name: 'Response to',
    group: 'Sound',
    type: 'number',
    unit: 'Hz',
    least: LOWEST_UPPER_END_HZ,
    most: 200_000,
    end: 'high',
    alsoCalled: ['frequency response', 'frequency range', 'bandwidth', 'response'],
  },
] as const satisfies readonly SheetField[];

/** A count of connectors or channels. */
export const MOST_OF_A_KIND = 128;
