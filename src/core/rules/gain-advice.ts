/** What the knob needs. */
export interface GainAdvice {
  /** Decibels to turn, rounded to whole ones; 0: leave it. */
  readonly turnDb: number;
  readonly text: string;
}

/**
 * How far to turn the gain so that peaks come to lie in a window.
 *
 * @param peakDbfs - highest sample, dBFS; −∞ for digital silence
 * @param window - where it should lie
 * @param window.lowDbfs - lower end
 * @param window.highDbfs - upper end
 * @param isClipped - the true peak is then unknown, and higher
 * @returns null where nothing can be told from silence
 */
export function gainAdvice(
  peakDbfs: number,
  window: { readonly lowDbfs: number; readonly highDbfs: number },
  isClipped = false,
): GainAdvice | null {
  if (!Number.isFinite(peakDbfs)) return null;
  const target = (window.lowDbfs + window.highDbfs) / 2;
  if (!isClipped && peakDbfs >= window.lowDbfs && peakDbfs <= window.highDbfs)
    return { turnDb: 0, text: 'The level lies in the window; leave the gain.' };
  const exact = target - peakDbfs;
  const turnDb = exact < 0 ? Math.floor(exact) : Math.ceil(exact);
  const by = `${Math.abs(turnDb)} dB`;
  if (isClipped) return { turnDb, text: `Clipped: turn down by at least ${by}.` };
  return { turnDb, text: turnDb < 0 ? `Turn down by ${by}.` : `Turn up by ${by}.` };
}
