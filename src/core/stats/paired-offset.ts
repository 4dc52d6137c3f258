import { mean, standardDeviation } from './moments';
import { normalQuantile } from './normal';
import { studentQuantile } from './student-t';

/** One unit measured under two conditions. */
export interface BridgePair {
  readonly before: number;
  readonly after: number;
  /** Standard uncertainties; null where they are not known. */
  readonly beforeUncertainty: number | null;
  readonly afterUncertainty: number | null;
}

/** By how much results of one condition differ from those of another. */
export interface PairedOffset {
  /** Mean of after − before. */
  readonly offset: number;
  /** Standard uncertainty of the mean. */
  readonly uncertainty: number;
  /** Units that stand for it. */
  readonly count: number;
  /** 95 % confidence interval of the offset; null where one pair alone stands for it and says nothing of its spread. */
  readonly interval95: readonly [number, number] | null;
}

/**
 * Offset between two conditions from units measured under both. Its standard uncertainty is the larger of what the
 * scatter of the differences says (type A, JCGM 100:2008 4.2.3) and what the figures' own uncertainties say (type B,
 * root sum of squares, 5.1.2): few units may agree by chance.
 *
 * @param pairs - one per unit
 * @returns null without any pair, and for a single pair without uncertainties: nothing tells how sure that would be
 */
export function pairedOffset(pairs: readonly BridgePair[]): PairedOffset | null {
  if (pairs.length === 0) return null;
  const differences = pairs.map((p) => p.after - p.before);
  const count = pairs.length;
  const scatter = count > 1 ? standardDeviation(differences) / Math.sqrt(count) : null;
  const known = pairs.filter((p) => p.beforeUncertainty !== null || p.afterUncertainty !== null);
  const own =
    known.length < count
      ? null
      : Math.sqrt(pairs.reduce((s, p) => s + (p.beforeUncertainty ?? 0) ** 2 + (p.afterUncertainty ?? 0) ** 2, 0)) /
        count;
  if (scatter === null && own === null) return null;
  const offset = mean(differences);
  const uncertainty = Math.max(scatter ?? 0, own ?? 0);
  // Known uncertainties say more of it than the scatter of a few pairs can (as in the rig's agreement).
  const isEstimated = (scatter ?? 0) > (own ?? 0);
  const reach =
    count > 1 ? (isEstimated ? studentQuantile(0.975, count - 1) : normalQuantile(0.975)) * uncertainty : null;
  return { offset, uncertainty, count, interval95: reach === null ? null : [offset - reach, offset + reach] };
}
