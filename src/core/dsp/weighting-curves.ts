/**
 * A-weighting, IEC 61672-1:2013 Annex E, from its analytic definition (poles at f₁…f₄), normalised to 0 dB at 1 kHz.
 *
 * @param frequency - in hertz; 0 gives 0
 * @returns gain as a ratio of powers
 */
export function aWeightingPower(frequency: number): number {
  return aCurve(frequency) / A_AT_1_KHZ;
}

const F1 = 20.598997;
const F2 = 107.65265;
const F3 = 737.86223;
const F4 = 12194.217;

function aCurve(frequency: number): number {
  const f2 = frequency * frequency;
  const amplitude =
    (F4 * F4 * f2 * f2) / ((f2 + F1 * F1) * Math.sqrt((f2 + F2 * F2) * (f2 + F3 * F3)) * (f2 + F4 * F4));
  return amplitude * amplitude;
}

const A_AT_1_KHZ = aCurve(1000);
