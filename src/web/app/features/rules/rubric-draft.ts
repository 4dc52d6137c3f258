import { gearKind } from '#core/gear/kinds';
import { isClassField, type SheetField } from '#core/gear/sheet/sheet-field';
import { QUANTITY_IDS, quantity, type QuantityId } from '#core/measure/registry';
import type { Knot } from '#core/rules/points-curve';
import { MOST_POINTS } from '#core/rules/points-curve';
import type { Criterion, Rubric } from '#core/rules/rubric';
import type { Category } from '#contracts/common';
import { issueText } from '#contracts/issue-text';
import { servesKind, type Protocol } from '#contracts/protocol';
import { rubricProblems, rubricSchema } from '#contracts/rubric';

/** What criteria can be made of, in the order in which they are offered. */
export const SOURCES: readonly { readonly label: string; readonly value: Criterion['kind'] }[] = [
  { label: 'a measured figure', value: 'measured' },
  { label: 'what was heard blind', value: 'heard' },
  { label: 'points by hand', value: 'by-hand' },
  { label: 'the price', value: 'price' },
  { label: 'a number of the data sheet', value: 'sheet-number' },
  { label: 'a word of the data sheet', value: 'sheet-word' },
  { label: 'features that are there', value: 'features' },
  { label: 'a cell of a table', value: 'table' },
];

/** Rules for a kind that has none. */
export const firstRubric = (category: Category): Rubric => ({
  id: category,
  version: 1,
  name: `${gearKind(category).name}s`,
  category,
  criteria: [],
  weights: {},
  stratumProbability: 0.9,
});

const numberFields = (category: Category): readonly SheetField[] => gearKind(category).sheet.filter((f) => f.type === 'number'); // prettier-ignore
/** Fields whose words can be given points. */
export const wordFields = (category: Category): readonly SheetField[] =>
  gearKind(category).sheet.filter((f) => f.type === 'choice' || f.type === 'several' || f.type === 'yes-no');
/** Fields that can be a feature: yes, a word, or any number above zero. */
export const featureFields = (category: Category): readonly SheetField[] =>
  gearKind(category).sheet.filter((f) => f.type !== 'text');

/** Cells of all tables that protocols of a kind have, the newest version of each. */
export function tableCells(category: Category, protocols: readonly Protocol[]) {
  const own = protocols.filter((p) => servesKind(p, category));
  const newest = own.filter((p) => own.every((o) => o.id !== p.id || o.version <= p.version));
  return newest.flatMap((p) =>
    p.steps.flatMap((s) =>
      (s.table?.rows ?? []).flatMap((row) =>
        (s.table?.columns ?? []).map((column) => ({
          protocol: p.id,
          step: s.id,
          row,
          column,
          label: `${s.title}: ${row}, ${column}${s.table?.unit ? ` (${s.table.unit})` : ''}`,
        })),
      ),
    ),
  );
}

/** A curve over a range, rising to the better end. */
function curveOver(low: number, high: number, better: 'higher' | 'lower' | null): readonly Knot[] {
  const [from, to] = better === 'lower' ? [MOST_POINTS, 0] : [0, MOST_POINTS];
  return [[low, from], [(low + high) / 2, MOST_POINTS / 2], [high, to]]; // prettier-ignore
}

/** Ends of what the catalogue has, opened a little where all are alike. */
function rangeOf(values: readonly number[]): readonly [number, number] {
  if (values.length === 0) return [0, 10];
  const [low, high] = [Math.min(...values), Math.max(...values)];
  return low === high ? [low - 1, high + 1] : [low, high];
}

const roundedTo = (value: number): number => Number(value.toPrecision(3));

/**
 * A criterion of another source: its name and meaning stay, what belongs to the source starts from what the kind and the
 * catalogue have.
 *
 * @param values - of a measured figure among the units of the kind
 * @returns null where the kind has nothing of this source
 */
export function withSource(
  criterion: Pick<Criterion, 'id' | 'name' | 'meaning'>,
  source: Criterion['kind'],
  category: Category,
  protocols: readonly Protocol[],
  values: (id: QuantityId) => readonly number[],
): Criterion | null {
  const { id, name, meaning } = criterion;
  const base = { id, name, meaning };
  const spread = (of: readonly number[], better: 'higher' | 'lower' | null): readonly Knot[] => {
    const [low, high] = rangeOf(of).map(roundedTo);
    return curveOver(low, high, better);
  };
  switch (source) {
    case 'measured': {
      const measured = measuredChoices(category);
      const found = measured.find((q) => values(q).length > 0) ?? measured.at(0);
      if (!found) return null;
      return { ...base, kind: 'measured', quantity: found, curve: spread(values(found), quantity(found).better), repeatability: 0.5 }; // prettier-ignore
    }
    case 'heard':
      return { ...base, kind: 'heard', curve: [[-2, 1], [0, 3], [2, 5]], leastAnswers: 4, repeatability: 0.35 }; // prettier-ignore
    case 'by-hand':
      return { ...base, kind: 'by-hand', repeatability: 0.2 };
    case 'price':
      return { ...base, kind: 'price', currency: 'EUR', basis: ['street', 'list', 'paid'], curve: [[50, 5], [400, 2.5], [2000, 0]], limit: null }; // prettier-ignore
    case 'sheet-number': {
      const field = numberFields(category).at(0);
      return field ? { ...base, kind: 'sheet-number', field: field.id, curve: curveOver(0, 10, 'higher') } : null;
    }
    case 'sheet-word': {
      const field = wordFields(category).at(0);
      return field ? { ...base, kind: 'sheet-word', field: field.id, points: wordPoints(field), otherwise: 2.5 } : null;
    }
    case 'features': {
      const fields = featureFields(category).filter((f) => f.type === 'yes-no' || isClassField(f));
      const features = fields.filter((f) => f.type === 'yes-no').map((f) => ({ field: f.id, is: null }));
      const some = features.length > 0 ? features : featureFields(category).slice(0, 1).map((f) => ({ field: f.id, is: null })); // prettier-ignore
      return { ...base, kind: 'features', features: some, curve: curveOver(0, some.length, 'higher') };
    }
    case 'table': {
      const cell = tableCells(category, protocols).at(0);
      if (!cell) return null;
      const { protocol, step, row, column } = cell;
      return { ...base, kind: 'table', protocol, step, row, column, curve: curveOver(0, 10, 'lower'), repeatability: 0.2 }; // prettier-ignore
    }
  }
}

/** Points for each word that a field's list has: even until somebody says otherwise. */
export const wordPoints = (field: SheetField): Record<string, number> =>
  Object.fromEntries(wordsOf(field).map((w) => [w, MOST_POINTS / 2]));
export const wordsOf = (field: SheetField): readonly string[] =>
  field.type === 'yes-no' ? ['yes', 'no'] : field.type === 'choice' || field.type === 'several' ? field.options : [];

/** Figures that can be measured of a kind, its key figures first. */
export function measuredChoices(category: Category): readonly QuantityId[] {
  const kind = gearKind(category);
  const roles = new Set<string>(kind.roles.map((r) => r.id));
  const rest = QUANTITY_IDS.filter((id) => {
    const { steps, group } = quantity(id);
    return group !== 'recording' && steps.length > 0 && steps.every((s) => roles.has(s));
  });
  return [...new Set([...kind.keyFigures, ...rest])];
}

/** A name that no criterion has yet, from the one that people read. */
export function criterionId(name: string, taken: readonly string[]): string {
  const slug = name.toLowerCase().replace(/[^a-z0-9]+/gu, '-').replace(/^[^a-z]+|-+$/gu, '') || 'criterion'; // prettier-ignore
  let id = slug;
  for (let n = 2; taken.includes(id); n++) id = `${slug}-${n}`;
  return id;
}

/** Rules with one more criterion. */
export function withCriterion(rubric: Rubric, criterion: Criterion): Rubric {
  return {
    ...rubric,
    criteria: [...rubric.criteria, criterion],
    weights: { ...rubric.weights, [criterion.id]: 1 },
  };
}

/** Rules without a criterion, and without its weights. */
export function withoutCriterion(rubric: Rubric, id: string): Rubric {
  const less = (weights: Rubric['weights']) =>
    Object.fromEntries(Object.entries(weights).filter(([key]) => key !== id));
  return {
    ...rubric,
    criteria: rubric.criteria.filter((c) => c.id !== id),
    weights: less(rubric.weights),
    ...(rubric.uses ? { uses: rubric.uses.map((u) => ({ ...u, weights: less(u.weights) })) } : {}),
  };
}

/** A curve with one knot moved; one that would pass its neighbour stays where it is. */
export function withKnot(curve: readonly Knot[], at: number, [x, points]: Knot): readonly Knot[] {
  const isBetween = (at === 0 || x > curve[at - 1][0]) && (at === curve.length - 1 || x < curve[at + 1][0]);
  const within = Math.min(MOST_POINTS, Math.max(0, points));
  return curve.map((knot, i) => (i === at ? ([isBetween ? x : knot[0], within] as const) : knot));
}

/** A curve with a knot more, in the middle of its longest stretch or beyond a single one. */
export function withMoreKnots(curve: readonly Knot[]): readonly Knot[] {
  if (curve.length < 2) return [...curve, [(curve.at(0)?.[0] ?? 0) + 1, MOST_POINTS / 2]];
  const gaps = curve.slice(1).map(([x], i) => x - curve[i][0]);
  const at = gaps.indexOf(Math.max(...gaps));
  const [[x0, p0], [x1, p1]] = [curve[at], curve[at + 1]];
  const middle: Knot = [roundedTo((x0 + x1) / 2), roundedTo((p0 + p1) / 2)];
  return [...curve.slice(0, at + 1), middle, ...curve.slice(at + 1)];
}

/** Whether the rules can be saved: everything that is wrong with them, in words. */
export function draftProblems(rubric: Rubric, protocols: readonly Protocol[]): string[] {
  const parsed = rubricSchema.safeParse(rubric);
  if (!parsed.success) return parsed.error.issues.map((i) => `${place(i.path, rubric)}: ${issueText(i)}`);
  return rubricProblems(parsed.data, protocols).map(
    (p) => `${place(p.field.split(/[.[\]]+/u).filter(Boolean).map((k) => (/^\d+$/u.test(k) ? Number(k) : k)), rubric)}: ${p.message}`, // prettier-ignore
  );
}

/** A place in the rules as a person names it. */
function place([list, index, ...rest]: readonly PropertyKey[], rubric: Rubric): string {
  if (list === 'criteria' && typeof index === 'number')
    return [rubric.criteria.at(index)?.name ?? `criterion ${index + 1}`, ...rest.map(String)].join(', ');
  if (list === 'uses' && typeof index === 'number') return `use “${rubric.uses?.at(index)?.name ?? index + 1}”`;
  return String(list ?? 'rules');
}

/** What a criterion is made of, in few words. */
export function sourceWords(criterion: Criterion, category: Category): string {
  const field = (id: string): string => gearKind(category).sheet.find((f) => f.id === id)?.name ?? id;
  switch (criterion.kind) {
    case 'measured':
      return `measured: ${quantity(criterion.quantity).name}`;
    case 'heard':
      return 'heard blind, and by hand';
    case 'by-hand':
      return 'by hand';
    case 'price':
      return `price in ${criterion.currency}: ${criterion.basis.join(', else ')}`;
    case 'sheet-number':
    case 'sheet-word':
      return `data sheet: ${field(criterion.field)}`;
    case 'features':
      return `how many of ${criterion.features.length}: ${criterion.features.map((f) => f.is ?? field(f.field)).join(', ')}`; // prettier-ignore
    case 'table':
      return `table “${criterion.step}”: ${criterion.row}, ${criterion.column}`;
  }
}
