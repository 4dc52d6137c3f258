import { gearKind, type GearKindId } from '../gear/kinds';
import { isQuantity, quantity, type QuantityId } from '../measure/registry';
import { normalBelow } from '../stats/normal-below';
import type { MeasuredFact, SheetFacts, UnitFacts } from './criterion-points';
import { COVERAGE } from './figures-apart';
import { pricePoints } from './price-rule';
import type { RankOptions } from './ranking-memory';
import { USUAL_UPGRADE, type Rubric, type UpgradeRule } from './rubric';
import { whyAbove } from './why-above';

/** A figure of two units that differs by more than both leave open. */
export interface DifferingFigure {
  readonly quantity: QuantityId;
  readonly old: number;
  readonly new: number;
  /** Whether the new one is better; null where no way is. */
  readonly isBetter: boolean | null;
}

/** What somebody gets who goes from one unit to another. */
export interface UpgradeAdvice {
  /** Probability that the new one is better, the price left out. */
  readonly probability: number;
  readonly verdict: UpgradeVerdict;
  readonly figures: readonly DifferingFigure[];
  /** Probability that it is preferred by ear; null where one of them was not heard. */
  readonly heard: number | null;
  /** What the new one has and the old one has not, by their sheets. */
  readonly gained: readonly string[];
  readonly lost: readonly string[];
  /** What it costs more, in the currency of the rubric; null where a price is missing. */
  readonly costsMore: number | null;
  /** By which it was said. */
  readonly rule: UpgradeRule;
  /** Whether it costs more than the rule allows; false where that is not known. */
  readonly isTooDear: boolean;
}

export const UPGRADE_VERDICTS = ['clearly better', 'probably better', 'not told apart', 'probably worse', 'clearly worse'] as const; // prettier-ignore
export type UpgradeVerdict = (typeof UPGRADE_VERDICTS)[number];

function verdictOf(p: number, { clearly, probably }: UpgradeRule): UpgradeVerdict {
  if (p >= clearly) return 'clearly better';
  if (p >= probably) return 'probably better';
  if (p <= 1 - clearly) return 'clearly worse';
  return p <= 1 - probably ? 'probably worse' : 'not told apart';
}

/**
 * Whether an owner of one unit should go over to another: how likely it is better by everything but its price, what of it
 * was measured and heard to differ, what it has and has not, and what it costs more.
 *
 * @param units - of the whole ranking
 * @param rubric - the rules
 * @param from - id of the unit that somebody has
 * @param to - id of the one that they think of
 * @param options - as of the ranking
 * @throws RangeError where a unit is not among them
 */
export function upgradeAdvice(
  units: readonly UnitFacts[],
  rubric: Rubric,
  from: string,
  to: string,
  options: RankOptions = {},
): UpgradeAdvice {
  const given = options.weights ?? rubric.weights;
  const weights = Object.fromEntries(rubric.criteria.map((c) => [c.id, c.kind === 'price' ? 0 : (given[c.id] ?? 0)]));
  const { probability } = whyAbove(units, rubric, to, from, { ...options, weights });
  const [old, next] = [from, to].map((id) => units.find((u) => u.id === id) as UnitFacts);
  const { gained, lost } = featureChanges(rubric.category, old.sheet ?? {}, next.sheet ?? {});
  const rule = rubric.upgrade ?? USUAL_UPGRADE;
  const costsMore = priceDifference(old, next, rubric);
  return {
    probability,
    verdict: verdictOf(probability, rule),
    figures: differing(old, next),
    heard: preferred(old, next),
    gained,
    lost,
    costsMore,
    rule,
    isTooDear: rule.mostMore !== null && costsMore !== null && costsMore > rule.mostMore,
  };
}

function differing(old: UnitFacts, next: UnitFacts): DifferingFigure[] {
  return Object.entries(next.figures).flatMap(([id, now]): DifferingFigure[] => {
    const before = old.figures[id] as MeasuredFact | undefined;
    if (!isQuantity(id) || !before || before.value === null || now.value === null) return [];
    if (before.bound !== 'exact' || now.bound !== 'exact' || quantity(id).group === 'recording') return [];
    const spread = Math.hypot(before.uncertainty ?? 0, before.between ?? 0, now.uncertainty ?? 0, now.between ?? 0);
    if (Math.abs(now.value - before.value) <= COVERAGE * spread) return [];
    const { better } = quantity(id);
    const isBetter = better === null ? null : now.value > before.value === (better === 'higher');
    return [{ quantity: id, old: before.value, new: now.value, isBetter }];
  });
}

/** Normal on the log scale of worths: what of the difference lies above zero. */
function preferred({ heard: old }: UnitFacts, { heard: next }: UnitFacts): number | null {
  if (!old || !next) return null;
  return normalBelow((next.logWorth - old.logWorth) / Math.hypot(old.se, next.se));
}

/** What both sheets say, and say otherwise: yes against no, and words that only one of them has. */
function featureChanges(kind: GearKindId, old: SheetFacts, next: SheetFacts) {
  const gained: string[] = [];
  const lost: string[] = [];
  for (const field of gearKind(kind).sheet) {
    const [before, now] = [old[field.id], next[field.id]];
    if (before === undefined || now === undefined) continue;
    if (typeof before === 'boolean' && typeof now === 'boolean' && before !== now)
      (now ? gained : lost).push(field.name.toLowerCase());
    if (field.type !== 'several' || typeof before !== 'object' || typeof now !== 'object') continue;
    gained.push(...now.filter((w) => !before.includes(w)));
    lost.push(...before.filter((w) => !now.includes(w)));
  }
  return { gained, lost };
}

function priceDifference(old: UnitFacts, next: UnitFacts, rubric: Rubric): number | null {
  const rule = rubric.criteria.find((c) => c.kind === 'price');
  if (!rule) return null;
  const [before, now] = [old, next].map((u) => pricePoints(u, rule));
  if (before.points === null || now.points === null) return null;
  return Math.round((now.total - before.total) * 100) / 100;
}
