import { removedByBand } from '#core/measure/removed-by-band';
import { dbfs } from '#core/units';
import type { ClipSummary } from '#contracts/clip-summary';
import type { CompareTable } from '#contracts/compare';
import { TARGET_LUFS, type ComparedTake } from './compared-take';

/** Two takes that differ by one thing: steps that are each other's pair, or one step of one unit with and without. */
export function withWithout(takes: readonly ComparedTake[]): CompareTable['pair'] {
  if (takes.length !== 2) return null;
  const [a, b] = takes;
  const found = pairedSteps(a, b) ?? pairedSteps(b, a);
  if (!found) return null;
  const { withTake, withoutTake, varies } = found;
  const noise = ({ summary }: ComparedTake): { value: number | null; u: number | null } => {
    const m = summary.measurements['noiseReSpeechA'];
    return { value: m?.value ?? summary.noise.reSpeechDb.a, u: m?.uncertainty ?? null };
  };
  const [x, y] = [noise(withTake), noise(withoutTake)];
  const level = ({ summary, gainDb }: ComparedTake): number | null =>
    summary.loudness.integratedLufs === null ? null : summary.loudness.integratedLufs - gainDb;
  const [on, off] = [level(withTake), level(withoutTake)];
  const brought = ({ summary }: ComparedTake, bands: ClipSummary['thirdOctave']) =>
    bands.map((p) => ({
      ...p,
      levelDbfs:
        p.levelDbfs === null || summary.loudness.integratedLufs === null
          ? null
          : dbfs(p.levelDbfs + TARGET_LUFS - summary.loudness.integratedLufs),
    }));
  const removed = (bands: (take: ComparedTake) => ClipSummary['thirdOctave']) =>
    removedByBand(
      brought(withoutTake, bands(withoutTake)).map((p) => ({ ...p, levelDbfs: p.levelDbfs ?? dbfs(-Infinity) })),
      brought(withTake, bands(withTake)).map((p) => ({ ...p, levelDbfs: p.levelDbfs ?? dbfs(-Infinity) })),
    );
  const [noiseBands, speechBands] = [
    removed((l) => l.summary.noise.thirdOctave),
    removed((l) => l.summary.thirdOctave),
  ];
  const finite = (v: number | null | undefined): number | null =>
    v === undefined || v === null || !Number.isFinite(v) ? null : v;
  return {
    varies,
    withTake: withTake.takeId,
    withoutTake: withoutTake.takeId,
    addedGainDb: on === null || off === null ? null : on - off,
    noiseChangeDb: x.value === null || y.value === null ? null : x.value - y.value,
    noiseUncertaintyDb: x.u === null || y.u === null ? null : Math.hypot(x.u, y.u),
    removed: speechBands.map(({ centreHz, removedDb }) => ({
      centreHz,
      speechDb: finite(removedDb),
      noiseDb: finite(noiseBands.find((p) => p.centreHz === centreHz)?.removedDb),
    })),
  };
}

/** The two halves of a pair; null where neither is the other's. */
function pairedSteps(
  a: ComparedTake,
  b: ComparedTake,
): { withTake: ComparedTake; withoutTake: ComparedTake; varies: string } | null {
  const stepOf = (take: ComparedTake) => take.document.steps.find((s) => s.id === take.step);
  const step = stepOf(a);
  if (a.protocol !== b.protocol || step?.pair?.step !== b.step) return null;
  // The half that uses more accessories is the one "with".
  const more = step.accessories.length - (stepOf(b)?.accessories.length ?? 0);
  const isWith = more === 0 ? !/without|bare|off\b/i.test(`${a.step} ${a.stepTitle}`) : more > 0;
  return { withTake: isWith ? a : b, withoutTake: isWith ? b : a, varies: step.pair.varies };
}
