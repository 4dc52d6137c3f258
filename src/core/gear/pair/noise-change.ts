import { notMeasured, type Measurement } from '../../measure/measurement';
import { noiseReSpeech } from '../../measure/noise-re-speech';
import { heldAgainstPauses } from '../../measure/silence-against-pauses';
import type { AnalysedTake } from '../run/analysed-take';
import { gained, isRefused } from '../run/gained-take';
import { figureBetween } from './figure-between';
import type { TakePair } from './take-pair';

/** Noise re speech of either half, each with its own silence where there is one, and what lies between them. */
export function noiseChange(words: TakePair, silence: TakePair | undefined): Measurement[] {
  const half = (speech: AnalysedTake, quiet: AnalysedTake): readonly [Measurement, Measurement] | string => {
    const both = gained(speech, quiet);
    if (isRefused(both)) return both.refused;
    return noiseReSpeech(both[0], { ...both[1], noise: heldAgainstPauses(both[1], both[0]) });
  };
  const [fitted, without] = [
    half(words.fitted, silence?.fitted ?? words.fitted),
    half(words.without, silence?.without ?? words.without),
  ];
  return (['noiseChangeZ', 'noiseChangeA'] as const).map((id, i) => {
    const condition = `${i === 0 ? 'unweighted' : 'A-weighted'}, speech of both at one loudness, ${silence ? 'in silent takes' : 'in the pauses of the words'}`;
    if (typeof fitted === 'string' || typeof without === 'string')
      return notMeasured(id, condition, typeof fitted === 'string' ? fitted : (without as string));
    return figureBetween(id, condition, fitted[i], without[i]);
  });
}
