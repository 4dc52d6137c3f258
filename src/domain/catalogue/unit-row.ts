import { gearKind } from '#core/gear/kinds';
import type { GearKind } from '#core/gear/gear-kind';
import { sheetColumns } from '#core/gear/list-columns';
import { isQuantity, type QuantityId } from '#core/measure/registry';
import { criterionPoints, type UnitFacts } from '#core/rules/criterion-points';
import { pricePoints } from '#core/rules/price-rule';
import type { RankedUnit } from '#core/rules/rank';
import { isGivenByHand, type Criterion } from '#core/rules/rubric';
import type { RankingInputs } from '#contracts/ranking';
import type { KeyFigure, SpecimenRow, Stage } from '#contracts/specimen';
import { familyOf } from './family';
import type { SpecimenBase } from './specimen-base';
import { readingAgain, type KindScatters } from './unit-facts';

/** Names of units with what the ranking says beside them. */
export function namesOf(bases: readonly SpecimenBase[], controls: ReadonlySet<string>): RankingInputs['names'] {
  return Object.fromEntries(
    bases.map((b) => [
      b.id,
      {
        maker: b.maker,
        model: b.model,
        label: b.label,
        onDesk: b.on_desk,
        isControl: controls.has(b.id),
        lastTested: b.last_tested,
      },
    ]),
  );
}

/** Where a unit stands. */
export type Placed = Pick<RankedUnit, 'place' | 'stratum' | 'composite'>;

/** A unit as lists show it. */
export function specimenRow(
  base: SpecimenBase,
  unit: UnitFacts,
  ranked: Placed | undefined,
  rules: readonly Criterion[] | null,
  scatters: KindScatters,
  classes: SpecimenRow['classes'],
): SpecimenRow {
  const criteria = rules ?? [];
  const kind = gearKind(base.category);
  const missingPoints = criteria
    .filter((c) => isGivenByHand(c) && criterionPoints(c, unit).points === null)
    .map((c) => c.id);
  return {
    id: base.id,
    maker: base.maker,
    model: base.model,
    label: base.label,
    category: base.category,
    stage: stageOf(base, rules === null ? null : missingPoints),
    onDesk: base.on_desk,
    firstTested: base.first_tested,
    lastTested: base.last_tested,
    review: base.review_id === null ? null : { id: base.review_id, publishedOn: base.published_on },
    takes: base.takes,
    failedAnalyses: base.failed,
    waitingAnalyses: base.waiting,
    missingPoints,
    price: countingPrice(unit, criteria),
    figures: listedFigures(kind).flatMap((id) => keyFigure(unit, id, scatters)),
    sheet: listedSheet(kind, unit),
    place: ranked?.place ?? null,
    stratum: ranked?.stratum ?? null,
    composite: ranked?.composite ?? null,
    hasRules: rules !== null,
    heardAnswers: unit.heard?.answers ?? 0,
    classes,
    family: familyOf(base),
  };
}

/** Figures that lists show of a kind: those that a person has chosen, or the most telling ones. */
const listedFigures = ({ columns, keyFigures }: GearKind): readonly QuantityId[] =>
  columns?.filter(isQuantity) ?? keyFigures;

/** What lists show of a unit’s data sheet. */
function listedSheet({ columns }: GearKind, unit: UnitFacts): SpecimenRow['sheet'] {
  return Object.fromEntries(
    sheetColumns(columns ?? []).flatMap((field) => {
      const value = unit.sheet?.[field];
      return value === undefined ? [] : [[field, typeof value === 'object' ? [...value] : value]];
    }),
  );
}

/** The price that the rules count, in their currency; without such a rule, the newest. */
function countingPrice(unit: UnitFacts, criteria: readonly Criterion[]): SpecimenRow['price'] {
  const rule = criteria.find((c) => c.kind === 'price');
  const verdict = rule ? pricePoints(unit, rule) : null;
  const price = verdict && verdict.points !== null ? verdict.price : unit.prices.at(0);
  if (!price) return null;
  const { amount, currency, kind, date } = price;
  return { amount, currency, kind, date };
}

/** What was tested after its newest edition is not published yet; on the same day it is written after the test. */
const isPublished = ({ published_on, last_tested }: SpecimenBase): boolean =>
  published_on !== null && (last_tested === null || published_on >= last_tested);

/** @param missingPoints - null where there are no rules to score it by */
export function stageOf(base: SpecimenBase, missingPoints: readonly string[] | null): Stage {
  if (base.takes === 0 && base.last_tested === null) return 'received';
  if (base.waiting > 0 || base.failed > 0) return 'takes';
  if (missingPoints !== null && missingPoints.length > 0) return 'measured';
  if (isPublished(base)) return 'published';
  return missingPoints === null ? 'measured' : 'scored';
}

function keyFigure(unit: UnitFacts, quantity: QuantityId, scatters: KindScatters): KeyFigure[] {
  const fact = unit.figures[quantity];
  if (!fact || fact.value === null) return [];
  const { value, uncertainty, bound } = fact;
  const another = readingAgain({ quantity, value, uncertainty, bound }, scatters);
  return [{ quantity, value, uncertainty, anotherReading: another, bound }];
}
