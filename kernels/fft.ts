// AssemblyScript, compiled by `npm run kernels` into src/core/dsp/fft-kernel.ts.
//
// Complex forward FFT of doubles. JavaScript checks the bounds of every access to an array; this does not, which makes it
// four to six times as fast.
//
// Memory from 1024 on: two parts of 2n doubles, input and work, each followed by two gaps. The caller sees a part as n
// real parts and, behind a gap, n imaginary ones. Between two stages a part holds, for every two values, a vector of
// their real and one of their imaginary parts: half as many addresses to reckon. Without the gaps all that a butterfly
// reads and writes would stand in the same set of the first cache.
//
// Then the twiddle factors (stockham.ts) of the first stage (1.5 n doubles) and of the later ones. Behind them what pairs
// of frames need, where it was asked for: the first table of a quarter of the size, window, samples, and the powers of
// both frames (n/2 doubles each). The caller gives cosines, then the input.
import { pairPowers } from './pair-powers';
import { Apart, Frames, fillFactors, first, further, laterFactors, standApart, transformQuarters } from './stockham';

/** Bytes: an odd number of cache lines. */
export const GAP: usize = 9 * 64;

let n: i32 = 0;
let INPUT: usize = 0,
  WORK: usize = 0,
  FIRST: usize = 0,
  LATER: usize = 0,
  QUARTER_FIRST: usize = 0,
  WINDOW: usize = 0,
  SAMPLES: usize = 0,
  POWERS_A: usize = 0,
  POWERS_B: usize = 0;

/** Makes room; what a memory holds is never moved. */
function reserve(end: usize): void {
  const pages: i32 = <i32>((end + 65535) >> 16);
  if (memory.size() < pages) memory.grow(pages - memory.size());
}

/** Lays out memory for a size (a power of two, 16 or more); returns where it begins. */
export function plan(size: i32): usize {
  n = size;
  const bytes: usize = (<usize>size) << 3;
  INPUT = 1024;
  const part = bytes + GAP;
  standApart(part);
  WORK = INPUT + 2 * part;
  FIRST = WORK + 2 * part;
  LATER = FIRST + 6 * (bytes >> 2);
  reserve(LATER + ((<usize>laterFactors(size)) << 3));
  return INPUT;
}

/**
 * The same (64 or more) with room for pairs of frames behind it; returns where that begins: the first table of a
 * quarter of the size, then the window.
 */
export function planFrames(size: i32): usize {
  plan(size);
  const bytes: usize = (<usize>size) << 3;
  QUARTER_FIRST = LATER + ((<usize>laterFactors(size)) << 3);
  WINDOW = QUARTER_FIRST + 6 * (bytes >> 4);
  SAMPLES = WINDOW + bytes + GAP;
  POWERS_A = SAMPLES + 2 * bytes + GAP;
  POWERS_B = POWERS_A + (bytes >> 1) + GAP;
  reserve(POWERS_B + (bytes >> 1) + GAP);
  return QUARTER_FIRST;
}

/** Fills the tables, those of the size or those of a quarter of it, from cosines that stand where the work is done. */
export function fill(size: i32): void {
  if (size == n) fillFactors<f64>(WORK, size, FIRST, LATER);
  // The tables of a quarter are the last ones of the whole, all but its first.
  else fillFactors<f64>(WORK, size, QUARTER_FIRST, 0);
}

/** Where the real parts of a result begin: stages swap input and work, so it depends on their number. */
export function resultAt(): usize {
  let inWork = true;
  for (let length = n >> 2; length > 1; length >>= 2) inWork = !inWork;
  return inWork ? WORK : INPUT;
}

/** Transforms the input; the real parts of the result begin at resultAt(), the imaginary ones following. */
export function forward(): void {
  first<Apart, f64>(INPUT, (<usize>n) << 1, ((<usize>n) << 3) + GAP, 0, WORK, 0, FIRST, LATER);
  further<Apart, f64>(n, WORK, INPUT, LATER);
}

/**
 * Powers of two successive frames, which go through one transform as its real and its imaginary part: windowed
 * samples in, |A|² and |B|² times a quarter of the scale out, bins 1 … n/2 − 1 (bin 0 is 0). The second frame begins
 * `step` samples (an even number) after the first.
 */
export function framePair(scale: f64, step: i32): void {
  const bytes = (<usize>n) << 2;
  first<Frames, f64>(SAMPLES, (<usize>n) << 1, (<usize>step) << 3, WINDOW - SAMPLES, INPUT, bytes, FIRST, LATER);
  // The tables of a quarter are the last ones of the whole, all but its first.
  const later = LATER + <usize>(n >> 4) * 48;
  const quarters = transformQuarters<f64>(n >> 2, INPUT, WORK, QUARTER_FIRST, WINDOW, later);
  pairPowers<f64>(quarters, bytes, scale / 4, bytes >> 1, POWERS_A, POWERS_B);
}
