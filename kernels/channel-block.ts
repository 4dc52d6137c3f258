// AssemblyScript, compiled by `npm run kernels` into src/core/dsp/channel-block-kernel.ts.
//
// A block of one channel, and the loops over its samples that every clip goes through. They share one memory, so that
// the samples are written once; JavaScript checks the bounds of every access to an array, this does not.
export {
  BLOCK_EXTREMES,
  CANDIDATES,
  END,
  HIGHEST,
  K_COEFFICIENTS,
  K_PAIRS,
  K_RESULTS,
  LOWEST,
  LOW_BAND,
  LOW_SECTIONS,
  PHASES,
  SLOTS,
  forget,
  next,
  plan,
} from './block-layout';
export { extremes } from './extremes';
export { accumulate } from './k-weighting';
export { enterGroup, largestLow, lowBand } from './low-band';
export { repeats } from './repeats';
export { largestOfBlock, ringOut } from './true-peak';
