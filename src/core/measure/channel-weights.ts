/** Speaker bits of WAVE_FORMAT_EXTENSIBLE that carry a weight other than 1. */
const LOW_FREQUENCY = 0x8;
const BACK_LEFT = 0x10;
const BACK_RIGHT = 0x20;
const SIDE_LEFT = 0x200;
const SIDE_RIGHT = 0x400;

/** Customary masks where a file names none: 4.0, 5.0, 5.1, 6.1, 7.1. */
const USUAL_MASK: Readonly<Record<number, number>> = { 4: 0x33, 5: 0x37, 6: 0x3f, 7: 0x70f, 8: 0x63f };

/**
 * Weights of channels in loudness, ITU-R BS.1770-5 Annex 1 Table 3 and Annex 3 Table 4: 1.41 for loudspeakers
 * between 60° and 120° to the side, 0 for the low-frequency channel, 1 for all others. The back pair of a
 * five-channel layout stands at ±110° and counts as side; with a side pair present it is truly behind and weighs 1.
 *
 * @param channels - number of channels, 1…8
 * @param mask - speaker positions from the file, or null for the customary layout
 */
export function channelWeights(channels: number, mask: number | null): number[] {
  const positions = mask ?? USUAL_MASK[channels] ?? 0;
  const hasSides = (positions & (SIDE_LEFT | SIDE_RIGHT)) !== 0;
  const weights: number[] = [];
  for (let bit = 1; bit < 0x40000 && weights.length < channels; bit <<= 1) {
    if ((positions & bit) === 0) continue;
    if (bit === LOW_FREQUENCY) weights.push(0);
    else if (bit === SIDE_LEFT || bit === SIDE_RIGHT) weights.push(1.41);
    else if (bit === BACK_LEFT || bit === BACK_RIGHT) weights.push(hasSides ? 1 : 1.41);
    else weights.push(1);
  }
  while (weights.length < channels) weights.push(1);
  return weights;
}
