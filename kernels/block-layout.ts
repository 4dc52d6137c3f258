// Where the parts of a channel's block stand in the memory of its kernel. From 1024 on: coefficients (also in
// pairs), states and results of K-weighting; the phases of the true-peak interpolator; lowest and highest sample of every
// stride; coefficients and states of the low band, and the block at its rate; a table of peaks by value (place, value),
// and what may be repeats among those of a block; lowest and highest sample of the block and its flat strides; twelve
// samples from before the block (the interpolator reaches eleven back; twelve keep the block aligned), and the slots that
// blocks stand in one after the other: the past of a block stays where it was filled in, and is not copied. Behind the
// last one there is room for the thirteen zeros in which the interpolator rings out.

/** Samples of a block; BLOCK_FRAMES of src/core/audio/sample-stream.ts. */
export const BLOCK: i32 = 8192;
/** Samples of a stride; STRIDE of src/core/dsp/channel-block.ts. */
export const STRIDE: i32 = 32;
/** Slots of the table of peaks: so many more than come in 250 ms that two of unlike value rarely meet in one. */
export const SLOT_BITS: i32 = 14;

export const K_COEFFICIENTS: usize = 1024;
export const K_PAIRS: usize = K_COEFFICIENTS + 8 * 8;
export const K_STATE: usize = K_PAIRS + 9 * 16;
export const K_RESULTS: usize = K_STATE + 4 * 8;
export const PHASES: usize = K_RESULTS + 4 * 8;
export const LOWEST: usize = PHASES + 4 * 12 * 16;
export const HIGHEST: usize = LOWEST + ((<usize>(BLOCK / STRIDE)) << 3);
export const LOW_SECTIONS: usize = HIGHEST + ((<usize>(BLOCK / STRIDE)) << 3);
export const LOW_STATES: usize = LOW_SECTIONS + 4 * 5 * 8;
export const LOW_BAND: usize = LOW_STATES + 4 * 2 * 8;
export const PEAKS: usize = LOW_BAND + ((<usize>BLOCK) << 3);
export const CANDIDATES: usize = PEAKS + ((<usize>16) << SLOT_BITS);
export const BLOCK_EXTREMES: usize = CANDIDATES + ((<usize>(BLOCK / STRIDE)) << 4);
const BEFORE: usize = 12 * 8;
export const SLOTS: usize = (BLOCK_EXTREMES + 3 * 8 + BEFORE + 63) & ~63;
/** Bytes of a slot. */
const SLOT: usize = (<usize>BLOCK) << 3;

let slots: i32 = 1;
let slot: i32 = 0;
/** Where the block stands now. */
export let SAMPLES: usize = SLOTS;
/** Where all of it ends. */
export let END: usize = SLOTS;

/** Makes room for all of it with so many slots, and so many bytes behind it. */
export function plan(blocks: i32, room: i32): void {
  slots = blocks;
  // The first block goes into the first slot.
  slot = blocks - 1;
  SAMPLES = SLOTS + <usize>slot * SLOT;
  END = (SLOTS + <usize>blocks * SLOT + BEFORE + 8 + 63) & ~63;
  const pages: i32 = <i32>((END + <usize>room + 65535) >> 16);
  if (memory.size() < pages) memory.grow(pages - memory.size());
}

/** Fills all of it with zeros, and begins with the first slot: as it was planned. What stands behind it stays. */
export function forget(): void {
  memory.fill(K_COEFFICIENTS, 0, END - K_COEFFICIENTS);
  slot = slots - 1;
  SAMPLES = SLOTS + <usize>slot * SLOT;
}

/** Goes on to the next slot behind a block of so many samples, the last of which stand before it; returns which it is. */
export function next(count: i32): i32 {
  const end = SAMPLES + ((<usize>count) << 3);
  slot = slot + 1 == slots ? 0 : slot + 1;
  SAMPLES = SLOTS + <usize>slot * SLOT;
  memory.copy(SAMPLES - BEFORE, end - BEFORE, BEFORE);
  return slot;
}
