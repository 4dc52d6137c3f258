import { FramePairPlan } from './fft';

/** Longer frames are rare, and their plans too large to keep (some 100 bytes per sample). */
export const LONGEST_SHARED = 2 ** 17;

/** The plan of the longest frames that a thread has used so far at their length. */
const plans = new Map<number, FramePairPlan>();

/**
 * A plan that all of a thread share, under the window of whoever asks. It is theirs until they return to the caller:
 * nothing may stay in it that somebody counts on later.
 *
 * @param size - samples of a frame, a power of two, 64 or more
 * @param window - as long
 */
export function sharedFramePairPlan(size: number, window: Float64Array): FramePairPlan {
  const plan = plans.get(size) ?? new FramePairPlan(size);
  if (size <= LONGEST_SHARED) plans.set(size, plan);
  plan.window.set(window);
  return plan;
}
