import type { ClaimRules } from '../gear-kind';
import { SHEET_UNITS } from '../sheet/sheet-units';

/** Where a data sheet says at which frequency a figure is, and it is not 1 kHz. */
const atOtherFrequency = ({ condition }: { readonly condition: string }): string | null => {
  const found = /(\d+(?:[.,]\d+)?)\s*(k?)hz/i.exec(condition);
  if (!found) return null;
  const hz = Number(found[1].replace(',', '.')) * (found[2] === '' ? 1 : 1000);
  return hz === 1000 ? null : `claimed at ${found[0]}, measured at 1 kHz`;
};

/** What data sheets of headphones claim. */
export const HEADPHONES_CLAIMS = {
  impedance: { units: SHEET_UNITS['Ω'], unlike: atOtherFrequency },
  sensitivityPerVoltage: { units: SHEET_UNITS['dB SPL/V'], unlike: atOtherFrequency },
  sensitivityPerPower: { units: SHEET_UNITS['dB SPL/mW'], unlike: atOtherFrequency },
} as const satisfies ClaimRules;
