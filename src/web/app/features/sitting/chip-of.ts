import type { SittingState } from '#contracts/listening';
import type { LetterChip } from '../../ui/letter-chips';

type Trial = NonNullable<SittingState['trial']>;

/** A clip of a trial under its letter; with its name where the test is sighted. The reference is called what it is. */
export function chipOf(trial: Pick<Trial, 'codes' | 'labels' | 'reference'>, slot: string): LetterChip {
  if (slot === 'R' && trial.reference) return { code: slot, shown: 'Ref.', spoken: 'Reference' };
  const at = trial.codes.indexOf(slot);
  const name = at >= 0 ? trial.labels.at(at) : undefined;
  return name === undefined
    ? { code: slot, spoken: `Clip ${slot}` }
    : { code: slot, spoken: `Clip ${slot} ${name}`, name };
}
