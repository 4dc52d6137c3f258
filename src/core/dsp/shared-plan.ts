import { FramePairPlan, type FftPlan } from './fft';

/** Longer transforms are rare, and their plans too large to keep (some 100 bytes per sample). */
export const LONGEST_SHARED = 2 ** 17;

/** One per size, made when first asked for. */
const plans = new Map<number, FramePairPlan>();

/**
 * A plan that all of a thread share, for pairs of frames under the window of whoever asks: its tables cost more than
 * the transforms of a short take. It is theirs until they return to the caller; nothing may stay in it that somebody
 * counts on later.
 *
 * @param size - samples of a frame, a power of two, 64 or more
 * @param window - as long
 */
export function sharedFramePairPlan(size: number, window: Float64Array): FramePairPlan {
  const plan = sharedPlan(size);
  plan.window.set(window);
  return plan;
}

/** The same for single transforms: whoever asks fills both parts of the input. */
export const sharedFftPlan = (size: number): FftPlan => sharedPlan(size);

function sharedPlan(size: number): FramePairPlan {
  const plan = plans.get(size) ?? new FramePairPlan(size);
  if (size <= LONGEST_SHARED) plans.set(size, plan);
  return plan;
}
