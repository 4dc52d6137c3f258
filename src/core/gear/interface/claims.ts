import { DBU_VOLTS } from '../../measure/self-noise';
import { asItIs, isAWeighted, NOT_A_WEIGHTED } from '../claim-readings';
import { AUDIO_BAND } from '../../dsp/band-power-frames';
import { formatNumber } from '../../measure/figure-text';
import type { ClaimedFigure, ClaimRules } from '../gear-kind';
import { thermalNoiseDbu, thermalNoiseDbuA } from './thermal-noise';

/** 0 dBV in dBu. */
const DBV_IN_DBU = -20 * Math.log10(DBU_VOLTS);
const fromDbv = (value: number): number => value + DBV_IN_DBU;

const VOLTAGES = {
  V: (v: number) => 20 * Math.log10(v / DBU_VOLTS),
  mV: (v: number) => 20 * Math.log10(v / 1000 / DBU_VOLTS),
};

const otherSource = ({ condition }: ClaimedFigure): string | null => {
  const ohms = /(\d+)\s*(?:Ω|ohm)/i.exec(condition)?.[1];
  return ohms === undefined || ohms === '150' ? null : `claimed with ${ohms} Ω, measured with 150 Ω`;
};

/** A resistor that shorts the input makes next to no noise; nothing is said of it. */
const USUAL_OHMS = 150;
/** Rounded to a tenth, as data sheets are, a claim may lie this far below. */
const ROUNDING_DB = 0.05;

/** An input cannot be quieter than the resistor at it, open as Johnson and Nyquist have it, 20 Hz to 20 kHz. */
const quieterThanItsSource =
  (floor: (ohms: number, band: typeof AUDIO_BAND) => number, unit: string) =>
  ({ condition }: ClaimedFigure, value: number): string | null => {
    if (/short/i.test(condition)) return null;
    const ohms = Number(/(\d+)\s*(?:Ω|ohm)/i.exec(condition)?.[1] ?? USUAL_OHMS);
    if (ohms === 0) return null;
    const limit = floor(ohms, AUDIO_BAND);
    return value >= limit - ROUNDING_DB
      ? null
      : `impossible: ${ohms} Ω at 20 °C make ${formatNumber(limit, 1)} ${unit} themselves`;
  };

/** What data sheets of interfaces and preamps claim. */
export const LINE_CLAIMS = {
  einA: {
    units: { 'dBu(A)': asItIs, dBu: asItIs, 'dBV(A)': fromDbv, dBV: fromDbv, ...VOLTAGES },
    unlike: (claim) => (isAWeighted(claim) ? otherSource(claim) : NOT_A_WEIGHTED),
    beyond: quieterThanItsSource(thermalNoiseDbuA, 'dBu(A)'),
  },
  einZ: {
    units: { dBu: asItIs, dBV: fromDbv, ...VOLTAGES },
    unlike: (claim) => (isAWeighted(claim) ? 'claimed A-weighted, measured unweighted' : otherSource(claim)),
    beyond: quieterThanItsSource(thermalNoiseDbu, 'dBu'),
  },
} as const satisfies ClaimRules;
