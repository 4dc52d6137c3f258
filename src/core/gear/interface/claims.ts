import { isAWeighted, NOT_A_WEIGHTED } from '../claim-readings';
import { AUDIO_BAND } from '../../dsp/band-power-frames';
import { formatNumber } from '../../measure/figure-text';
import type { ClaimedFigure, ClaimRules } from '../gear-kind';
import { SHEET_UNITS } from '../sheet/sheet-units';
import { thermalNoiseDbu, thermalNoiseDbuA } from './thermal-noise';

const DBU = SHEET_UNITS.dBu;

/** The resistor that a claim is made with where it does not say. */
const USUAL_OHMS = 150;
const ohmsIn = (condition: string): number | null => {
  const found = /(\d+)\s*(?:Ω|ohm)/i.exec(condition);
  return found && Number(found[1]);
};

const otherSource = ({ condition }: ClaimedFigure): string | null => {
  const ohms = ohmsIn(condition);
  return ohms === null || ohms === USUAL_OHMS ? null : `claimed with ${ohms} Ω, measured with 150 Ω`;
};

/** Rounded to a tenth, as data sheets are, a claim may lie this far below. */
const ROUNDING_DB = 0.05;

/** An input cannot be quieter than the resistor at it, open as Johnson and Nyquist have it, 20 Hz to 20 kHz. */
const quieterThanItsSource =
  (floor: (ohms: number, band: typeof AUDIO_BAND) => number, unit: string) =>
  ({ condition }: ClaimedFigure, value: number): string | null => {
    const ohms = ohmsIn(condition) ?? USUAL_OHMS;
    // What shorts the input makes next to no noise.
    if (ohms === 0 || /short/i.test(condition)) return null;
    const limit = floor(ohms, AUDIO_BAND);
    return value >= limit - ROUNDING_DB
      ? null
      : `impossible: ${ohms} Ω at 20 °C make ${formatNumber(limit, 1)} ${unit} themselves`;
  };

/** What data sheets of interfaces and preamps claim. */
export const LINE_CLAIMS = {
  einA: {
    units: { ...DBU, 'dBu(A)': DBU.dBu, 'dBV(A)': DBU.dBV },
    unlike: (claim) => (isAWeighted(claim) ? otherSource(claim) : NOT_A_WEIGHTED),
    beyond: quieterThanItsSource(thermalNoiseDbuA, 'dBu(A)'),
  },
  einZ: {
    units: DBU,
    unlike: (claim) => (isAWeighted(claim) ? 'claimed A-weighted, measured unweighted' : otherSource(claim)),
    beyond: quieterThanItsSource(thermalNoiseDbu, 'dBu'),
  },
  dynamicRange: {
    units: { dB: (value) => value, 'dB(A)': (value) => value },
    unlike: (claim) => (isAWeighted(claim) ? null : NOT_A_WEIGHTED),
  },
  distortion: { units: SHEET_UNITS['dB re signal'] },
  mostInput: { units: DBU },
  headphoneImpedance: { units: SHEET_UNITS['Ω'] },
} as const satisfies ClaimRules;
