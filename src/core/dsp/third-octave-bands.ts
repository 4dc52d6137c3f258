/** One band: its nominal centre (what people call it) and its exact edges. */
export interface Band {
  /** Nominal centre frequency in hertz, IEC 61260-1 Annex E. */
  readonly nominalHz: number;
  readonly lowHz: number;
  readonly highHz: number;
}

const NOMINAL = [
  20, 25, 31.5, 40, 50, 63, 80, 100, 125, 160, 200, 250, 315, 400, 500, 630, 800, 1000, 1250, 1600, 2000, 2500, 3150,
  4000, 5000, 6300, 8000, 10000, 12500, 16000, 20000,
];
/** Index of 1 kHz in the list above. */
const REFERENCE_INDEX = 17;

/**
 * The 31 one-third-octave bands from 20 Hz to 20 kHz, IEC 61260-1:2014, base ten: exact centres
 * 1000·10^(n/10) Hz, edges a twentieth of a decade to either side.
 */
export const THIRD_OCTAVE_BANDS: readonly Band[] = NOMINAL.map((nominalHz, i) => ({
  nominalHz,
  lowHz: edgeBelow(i),
  highHz: edgeBelow(i + 1),
}));

/** Where one band ends the next one begins, to the last bit. */
function edgeBelow(index: number): number {
  return 1000 * 10 ** ((index - REFERENCE_INDEX - 0.5) / 10);
}
