import { HOLDS_OUTSIDE_NOISE } from '#core/gear/pair/take-pair';
import { playKindOf } from '#core/rules/compare-versions';
import { removedByBand, type RemovedBand } from '#core/measure/removed-by-band';
import { fittedStep } from '#core/rules/paired-steps';
import { atOneGain, takeGain } from '#core/rules/take-gain';
import { dbfs } from '#core/units';
import type { ClipSummary } from '#contracts/clip-summary';
import type { CompareTable } from '#contracts/compare';
import { TARGET_LUFS, type ComparedTake } from './compared-take';

type Bands = ClipSummary['thirdOctave'];

/**
 * Two takes that differ by one thing: steps that are each other's pair. Words are held against each other at one
 * loudness; a noise from outside at one gain, since its loudness is what is asked for.
 */
export function withWithout(takes: readonly ComparedTake[]): CompareTable['pair'] {
  if (takes.length !== 2) return null;
  const found = pairedTakes(takes[0], takes[1]) ?? pairedTakes(takes[1], takes[0]);
  if (!found) return null;
  const { withTake, withoutTake, varies, isOutsideNoise } = found;
  const gains = atOneGain([withTake, withoutTake].map((t) => takeGain(t.gainDb, t.dial)));
  const turnedDb = 'refused' in gains ? null : gains[0] - gains[1];
  const [x, y] = [noiseOf(withTake), noiseOf(withoutTake)];
  const [on, off] = [withTake, withoutTake].map(({ summary }) => summary.loudness.integratedLufs);
  const speech = isOutsideNoise ? [] : removed(withTake, withoutTake, ({ thirdOctave }) => thirdOctave);
  const noise = isOutsideNoise
    ? turnedDb === null
      ? []
      : removedByBand(withoutTake.summary.thirdOctave, withTake.summary.thirdOctave).map((b) => ({
          ...b,
          removedDb: b.removedDb === null ? null : b.removedDb + turnedDb,
        }))
    : removed(withTake, withoutTake, (summary) => summary.noise.thirdOctave);
  return {
    varies,
    withTake: withTake.takeId,
    withoutTake: withoutTake.takeId,
    isOutsideNoise,
    gainRefused: 'refused' in gains ? gains.refused : null,
    addedGainDb: isOutsideNoise || on === null || off === null || turnedDb === null ? null : on - off - turnedDb,
    noiseChangeDb: isOutsideNoise || x.value === null || y.value === null ? null : x.value - y.value,
    noiseUncertaintyDb: x.u === null || y.u === null ? null : Math.hypot(x.u, y.u),
    removed: withTake.summary.thirdOctave.map(({ centreHz }) => ({
      centreHz,
      speechDb: removedAt(speech, centreHz),
      noiseDb: removedAt(noise, centreHz),
    })),
  };
}

const removedAt = (bands: readonly RemovedBand[], centreHz: number): number | null => {
  const db = bands.find((b) => b.centreHz === centreHz)?.removedDb ?? null;
  return db !== null && Number.isFinite(db) ? db : null;
};

const noiseOf = ({ summary }: ComparedTake): { value: number | null; u: number | null } => {
  const m = summary.measurements['noiseReSpeechA'];
  return { value: m?.value ?? summary.noise.reSpeechDb.a, u: m?.uncertainty ?? null };
};

/** What is taken away once both are brought to one loudness. */
function removed(
  withTake: ComparedTake,
  withoutTake: ComparedTake,
  bands: (summary: ComparedTake['summary']) => Bands,
): RemovedBand[] {
  const brought = ({ summary }: ComparedTake): Bands => {
    const { integratedLufs } = summary.loudness;
    return bands(summary).map((p) => ({
      ...p,
      levelDbfs:
        p.levelDbfs === null || integratedLufs === null ? null : dbfs(p.levelDbfs + TARGET_LUFS - integratedLufs),
    }));
  };
  return removedByBand(brought(withoutTake), brought(withTake));
}

/** Whether two takes are each other's with and without something. */
export const arePaired = (a: StepOfTake, b: StepOfTake): boolean =>
  pairedTakes(a, b) !== null || pairedTakes(b, a) !== null;

/** What a take has to say of its step, so that its other half can be told. */
type StepOfTake = Pick<ComparedTake, 'step' | 'protocol' | 'document'>;

/** The two halves of a pair; null where the first does not name the other one. */
function pairedTakes<T extends StepOfTake>(
  a: T,
  b: T,
): { withTake: T; withoutTake: T; varies: string; isOutsideNoise: boolean } | null {
  const stepOf = (take: T) => take.document.steps.find((s) => s.id === take.step);
  const [step, other] = [stepOf(a), stepOf(b)];
  if (a.protocol !== b.protocol || !step?.pair || !other || step.pair.step !== b.step) return null;
  const isFitted = fittedStep(step, other) === step;
  return {
    withTake: isFitted ? a : b,
    withoutTake: isFitted ? b : a,
    varies: step.pair.varies,
    isOutsideNoise: HOLDS_OUTSIDE_NOISE.includes(playKindOf(step)),
  };
}
