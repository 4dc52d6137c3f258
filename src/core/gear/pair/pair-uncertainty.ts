// What halves of pairs are unsure by, where the takes themselves do not tell.

/** A known filter comes back within 0.3 dB from one performance through two devices: a third of that as standard. */
export const TRANSFER_U_DB = 0.1;
/** A voice does not read twice alike: of a third octave, and of the whole (common practice, no source). */
export const SPOKEN_ANEW_BAND_DB = 1;
export const SPOKEN_ANEW_LEVEL_DB = 1;
