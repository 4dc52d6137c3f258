/** The simulated interface between microphone and file. */
export interface InterfaceModel {
  /** Equivalent input noise at useful gains, dBu, unweighted 20 Hz–20 kHz. */
  readonly einDbu: number;
  /** Input level that reaches full scale at 0 dB of gain, dBu. */
  readonly fullScaleDbu: number;
  /** What it really gives beyond what its dial says, dB. */
  readonly gainErrorDb?: number;
  /** Noise of the converter, dBFS, unweighted 20 Hz–20 kHz: what is left however little gain is used. */
  readonly converterDbfs?: number;
  /** Bend of the transfer curve at full scale ±1: x + square·x² + cube·x³. */
  readonly bend?: { readonly square: number; readonly cube: number };
  /** First-order roll-offs that only full gain shows. */
  readonly atFullGain?: { readonly fromDb: number; readonly lowHz: number; readonly highHz: number };
  /** What of one channel is heard in the other, dB; at 1 kHz where it rises. */
  readonly crosstalkDb?: number;
  /** Through a small capacitance: crosstalk of tones rises in proportion to their frequency. */
  readonly crosstalkRises?: boolean;
  /** Second channel re the first at one setting, dB. */
  readonly balanceDb?: number;
}

/** Before 2022. */
export const OLD_DESK: InterfaceModel = { einDbu: -121, fullScaleDbu: 14, gainErrorDb: -3 };
/** Since 2022. */
export const NEW_DESK: InterfaceModel = { einDbu: -128.5, fullScaleDbu: 14 };

const DBU_VOLTS = 0.774597;

export const dbuToVolts = (dbu: number): number => DBU_VOLTS * 10 ** (dbu / 20);
export const voltsToDbu = (volts: number): number => 20 * Math.log10(volts / DBU_VOLTS);
