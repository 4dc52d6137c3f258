import type { NoiseTake } from './noise-re-speech';
import type { NoiseLevel, SilenceNoise } from './silence-noise';

/** A silent step and the pauses of the speech that differ by more are told about (common practice, no source). */
const LEAST_DIFFERENCE_DB = 3;

/**
 * The noise of the silent step, held against the pauses of the spoken take: where they differ, at equal gain, by more
 * than 3 dB and more than both are unsure, something was not the same (a gate, automatic gain, a breath, the room). The
 * uncertainty then takes in half of the difference, and the figure says so. A silent take that is as quiet as the pauses
 * behind a gate was gated as well, and says nothing of the noise.
 *
 * @param silence - the silent take
 * @param speech - the spoken one; the same take gives its own noise back
 */
export function heldAgainstPauses(silence: NoiseTake, speech: NoiseTake): SilenceNoise | null {
  const { noise } = silence;
  const pauses = speech.noise;
  if (!noise || !pauses || noise === pauses || noise.refused !== null) return noise;
  const difference = (w: 'z' | 'a'): number =>
    pauses[w].levelDbfs - speech.gainDb - (noise[w].levelDbfs - silence.gainDb);
  if (pauses.refused !== null) {
    // Between the words a gate was seen to close: where nobody speaks at all, it is closed from the beginning.
    const isGated = pauses.findings.some((f) => f.kind === 'gate') && difference('a') > -LEAST_DIFFERENCE_DB;
    return isGated ? { ...noise, refused: `${pauses.refused} The silent take is no louder than its pauses.` } : noise;
  }
  const isTold = (w: 'z' | 'a'): boolean =>
    Math.abs(difference(w)) >
    Math.max(LEAST_DIFFERENCE_DB, 2 * Math.hypot(noise[w].uncertaintyDb ?? 0, pauses[w].uncertaintyDb ?? 0));
  // A limit says nothing against what lies within it.
  const isOutside =
    (pauses.bound === 'at-most' && difference('a') > 0) || (pauses.bound === 'at-least' && difference('a') < 0);
  if (!isTold('a') || isOutside) return noise;
  const by = difference('a');
  const widened = (w: 'z' | 'a'): NoiseLevel => ({
    ...noise[w],
    uncertaintyDb: Math.hypot(noise[w].uncertaintyDb ?? 0, difference(w) / 2),
  });
  const text = `the pauses of the speech are ${Math.abs(by).toFixed(1)} dB ${by < 0 ? 'quieter' : 'louder'} than the silent take`;
  return { ...noise, z: widened('z'), a: widened('a'), findings: [...noise.findings, { kind: 'silence-step', text }] };
}
