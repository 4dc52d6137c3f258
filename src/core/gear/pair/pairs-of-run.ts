import { fittedStep, type PairedStep } from '../../rules/paired-steps';
import { settingWords, type TakePair } from './take-pair';

/** A take of a run, as far as finding its other half needs it. */
export interface HalfTake {
  readonly step: string;
  readonly settings: Readonly<Record<string, string | number | boolean>>;
}

/** Two takes that differ by one thing, and the step that says so. */
export interface FoundPair<T> extends Pick<TakePair, 'varies' | 'setting'> {
  readonly fitted: T;
  readonly without: T;
}

/**
 * Pairs of a run: every step that names its other half, once for each setting of the part's switches. Where a step was
 * taken more than once at one setting, the last take counts.
 *
 * @param steps - of the protocol, in order
 * @param takes - of the run, in order
 */
export function pairsOfRun<T extends HalfTake>(steps: readonly PairedStep[], takes: readonly T[]): FoundPair<T>[] {
  return steps.flatMap((step) => {
    const other = steps.find((s) => s.id === step.pair?.step);
    if (!step.pair || !other) return [];
    const { varies } = step.pair;
    const fittedId = fittedStep(step, other).id;
    const withoutId = fittedId === step.id ? other.id : step.id;
    const without = takes.findLast((t) => t.step === withoutId);
    if (!without) return [];
    const bySetting = new Map<string | null, T>();
    for (const take of takes)
      if (take.step === fittedId) bySetting.set(settingWords(take.settings, without.settings), take);
    return [...bySetting].map(([setting, fitted]) => ({ varies, setting, fitted, without }));
  });
}
