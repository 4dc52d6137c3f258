import { gearKind } from '#core/gear/kinds';
import { kindStanding } from '#core/rules/kind-standing';
import type { MeasuredFact, UnitFacts } from '#core/rules/criterion-points';
import type { Rubric } from '#core/rules/rubric';
import type { SpecimenSheet } from '#contracts/specimen';
import type { ReviewFacts } from '../review-facts';

/** A figure that is known to ±0.5, unless it says otherwise. */
export const fact = (value: number | null, change: Partial<MeasuredFact> = {}): MeasuredFact => ({
  value,
  uncertainty: 0.5,
  between: null,
  bound: 'exact',
  notMeasured: value === null ? 'No take of it.' : null,
  ...change,
});

/** A unit with its figures, and a street price. */
export const unit = (id: string, figures: Record<string, MeasuredFact>, price: number | null = null): UnitFacts => ({
  id,
  figures,
  byHand: {},
  prices: price === null ? [] : [{ amount: price, currency: 'EUR', kind: 'street', date: '2025-01-01' }],
  reviewedOn: `2025-01-${id.padStart(2, '0')}`,
});

/** Noise and price, the quieter and the cheaper the better. */
export const RUBRIC: Rubric = {
  id: 'r',
  version: 3,
  name: 'Rules',
  category: 'microphone',
  criteria: [
    { kind: 'measured', id: 'noise', name: 'Noise', meaning: 'Quiet.', quantity: 'noiseReSpeechA', curve: [[-80, 5], [-40, 0]], repeatability: 0.5 }, // prettier-ignore
    { kind: 'price', id: 'price', name: 'Price', meaning: 'Cheap.', currency: 'EUR', basis: ['street'], curve: [[0, 5], [500, 0]], limit: null }, // prettier-ignore
  ],
  weights: { noise: 1, price: 1 },
  stratumProbability: 0.9,
};

const EMPTY_SHEET = { prices: [], claims: [], sheet: [], variantOf: null, relations: [], photographs: [], events: [], runs: [], words: [], points: [] } satisfies Omit<SpecimenSheet, 'row'>; // prettier-ignore

/** A unit with the others of its kind beside it; the first of `units` is the one that is reviewed. */
export function reviewFacts(
  units: readonly UnitFacts[],
  change: { sheet?: Partial<SpecimenSheet>; rubric?: Rubric | null; kind?: string; control?: string } = {},
): ReviewFacts {
  const rubric = change.rubric === undefined ? RUBRIC : change.rubric;
  const [own] = units;
  const kind = gearKind(change.kind ?? 'microphone');
  const row = {
    id: own.id,
    maker: 'Thole',
    model: `M${own.id}`,
    label: 'A',
    category: kind.id,
  } as SpecimenSheet['row'];
  return {
    sheet: { ...EMPTY_SHEET, row, ...change.sheet },
    kind,
    own,
    units,
    names: Object.fromEntries(
      units.map((u) => [u.id, { maker: 'Thole', model: `M${u.id}`, label: 'A', onDesk: false, isControl: u.id === change.control, lastTested: null }]), // prettier-ignore
    ),
    rubric,
    standing: kindStanding(units, rubric),
  };
}
