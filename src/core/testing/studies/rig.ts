import { agreement, type ControlFigure } from '../../rules/rig-agreement';
import { standardNormal } from '../../stats/normal';
import { seededBits } from '../../stats/random';
import { deviationBetween, pooledScatter } from '../../stats/pooled-scatter';
import { coverage, type Coverage } from './coverage';

/** A rig that is looked at over some sessions. */
export interface RigDesign {
  readonly figures: number;
  readonly sessions: number;
  /** Deviation between sessions, re the one that is expected. */
  readonly ratio: number;
  /** Correlation between the figures of one session: a voice that is louder moves several at once. */
  readonly correlation: number;
  /** Shift of one figure, in expected deviations. */
  readonly shift?: number;
}

/** Share of rigs that are called off. */
export function rigStudy({ figures, sessions, ratio, correlation, shift = 0 }: RigDesign, trials: number): number {
  let off = 0;
  for (let t = 0; t < trials; t++) {
    const bits = seededBits(`rig ${figures} ${sessions} ${ratio} ${correlation} ${shift} ${t}`);
    const rows = Array.from({ length: sessions + 1 }, () => {
      const common = standardNormal(bits);
      return Array.from({ length: figures }, () => {
        const own = standardNormal(bits);
        return ratio * (Math.sqrt(correlation) * common + Math.sqrt(1 - correlation) * own);
      });
    });
    const figure = (value: number): ControlFigure => ({ value, uncertainty: null });
    const isOff = Array.from({ length: figures }, (_, f) =>
      agreement(
        rows.slice(0, sessions).map((r) => figure(r[f])),
        figure(rows[sessions][f] + (f === 0 ? shift : 0)),
        { expected: 1, figures },
      ),
    ).some((a) => a.verdict === 'off');
    if (isOff) off++;
  }
  return off / trials;
}

/** Another reading of a unit, by repeats of the control unit: own scatter 0.3, between readings 1 (0.8 was expected). */
export function anotherReadingStudy(trials: number): Coverage[] {
  const [own, between, expected] = [0.3, 1, 0.8];
  return [0, 2, 5, 12].map((repeats) =>
    coverage(
      `another reading, ${repeats === 0 ? 'no repeats in the archive' : `${repeats + 1} readings of the control unit`}`,
      Array.from({ length: trials }, (_, t) => {
        const bits = seededBits(`another ${repeats} ${t}`);
        const reading = (): number => Math.hypot(own, between) * standardNormal(bits);
        const pooled = pooledScatter([
          Array.from({ length: repeats + 1 }, () => ({ value: reading(), uncertainty: own })),
        ]);
        return { error: reading(), u: Math.hypot(own, deviationBetween(pooled, expected)) };
      }),
    ),
  );
}
