/** A take that was put to a step, with its loudness. */
export interface FacingTake {
  readonly name: string;
  readonly integratedLufs: number | null;
  readonly gainDb: number | null;
}

/** The back of hardly any unit is louder than its front by more than readings differ. Common practice, no source. */
const LOUDER_BACK_DB = 2;

/**
 * Whether the takes for the front and for the back look exchanged: at equal gain the back is the louder one.
 *
 * @param front - take of the step in front, or null
 * @param back - take of the step behind, or null
 * @returns a sentence with the figure, or null where nothing speaks for an exchange or the levels cannot be compared
 */
export function facingDoubt(front: FacingTake | null, back: FacingTake | null): string | null {
  if (!front || !back || front.integratedLufs === null || back.integratedLufs === null) return null;
  if ((front.gainDb === null) !== (back.gainDb === null)) return null;
  const louder = back.integratedLufs - (back.gainDb ?? 0) - (front.integratedLufs - (front.gainDb ?? 0));
  return louder > LOUDER_BACK_DB
    ? `“${back.name}”, put to the back, is ${louder.toFixed(1)} dB louder at equal gain than “${front.name}”, put to the front.`
    : null;
}
