import { BEHAVIOUR_QUANTITIES } from './quantities/behaviour';
import { ELECTRONICS_QUANTITIES } from './quantities/electronics';
import { HEADPHONES_QUANTITIES } from './quantities/headphones';
import { LEVEL_QUANTITIES } from './quantities/level';
import { NOISE_QUANTITIES } from './quantities/noise';
import { PAIR_QUANTITIES } from './quantities/pair';
import { RESPONSE_QUANTITIES } from './quantities/response';
import { SPACE_QUANTITIES } from './quantities/space';
import type { QuantityDefinition } from './quantities/quantity-definition';

/**
 * Version of the whole set of algorithms; any change that moves a figure by a millionth of its unit or more raises it.
 *
 * What the fourth moves: spectra over a whole clip, and the hiss of consonants, are taken in single precision. Of 215
 * clips of the demo no figure of a pause moved by more than 3·10⁻⁷ dB, no third octave above −100 dBFS by more than
 * 0.0002 dB, none above −120 dBFS by more than 0.02 dB (beside a tone or a sweep at full scale: noise 138 dB below it
 * adds so much). Gaps of more than 2.7 s count as drop-outs, as shorter ones do. The ± of a sweep's distortion is a third
 * of what it was: of each harmonic beside its own noise.
 */
export const ALGORITHM_VERSION = 4;

/**
 * Version of what is made of several takes of a run together. A new figure raises it: runs are then measured anew from
 * what is known of their clips, none of which has to be read for that.
 */
export const RUN_FIGURES_VERSION = 6;

/**
 * Every measurement that Sediment makes. The interface, the command line and docs/measurements.md are made from this
 * list. To add one: a file in this folder, an entry under quantities/, a test beside it.
 */
export const QUANTITIES = {
  ...LEVEL_QUANTITIES,
  ...NOISE_QUANTITIES,
  ...RESPONSE_QUANTITIES,
  ...SPACE_QUANTITIES,
  ...BEHAVIOUR_QUANTITIES,
  ...ELECTRONICS_QUANTITIES,
  ...HEADPHONES_QUANTITIES,
  ...PAIR_QUANTITIES,
} as const satisfies Record<string, QuantityDefinition>;

/** Name of a measurement, as it stands in the database, in exports and in JSON. */
export type QuantityId = keyof typeof QUANTITIES;

/** All names, in the order of the list. */
export const QUANTITY_IDS = Object.keys(QUANTITIES) as readonly QuantityId[];

/** Whether a name is that of a figure of the registry. */
export const isQuantity = (id: string): id is QuantityId => (QUANTITY_IDS as readonly string[]).includes(id);

/** The definition of one measurement, its optional parts typed alike. */
export const quantity = (id: QuantityId): QuantityDefinition => QUANTITIES[id];
