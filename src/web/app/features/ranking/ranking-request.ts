import { gearKind } from '#core/gear/kinds';
import { isClassField } from '#core/gear/sheet/sheet-field';
import { PRICE_BASES, withPriceBasis, type PriceBasis } from '#core/rules/price-basis';
import { pricePoints } from '#core/rules/price-rule';
import { daySchema, type Category } from '#contracts/common';
import type { RankingInputs } from '#contracts/ranking';
import type { SpecimenRow } from '#contracts/specimen';

/** What the ranking shows. */
export const RANKING_VIEWS = ['list', 'board', 'records', 'price', 'moved'] as const;
export type RankingView = (typeof RANKING_VIEWS)[number];

/** Units that are ranked among each other, as the address names them: a link shows the same. */
export interface RankingFilter {
  /** A word of a field that divides the kind. */
  readonly classes: readonly { readonly field: string; readonly word: string }[];
  /** Highest price, in the currency of the rubric; null: any, and units without one. */
  readonly upTo: number | null;
}

/** A filter in the address: "transducer:ribbon,pattern:cardioid", a comma in a word as %2C. What is no field is left out. */
export function readClasses(text: string | undefined, kind: Category): RankingFilter['classes'] {
  const fields = new Set(
    gearKind(kind)
      .sheet.filter(isClassField)
      .map((f) => f.id),
  );
  return (text ?? '').split(',').flatMap((part) => {
    const at = part.indexOf(':');
    const [field, word] = [part.slice(0, at), part.slice(at + 1).replace(/%2C|%25/gu, decodeURIComponent)];
    return at > 0 && word !== '' && fields.has(field) ? [{ field, word }] : [];
  });
}

/** The same as it stands in the address; null for none. */
export const classesText = (classes: RankingFilter['classes']): string | null =>
  classes.length === 0
    ? null
    : classes.map((c) => `${c.field}:${c.word.replace(/[%,]/gu, encodeURIComponent)}`).join(',');

/** A price in the address; null for what is no number above zero. */
export function readUpTo(text: string | undefined): number | null {
  const amount = Number(text ?? '');
  return Number.isFinite(amount) && amount > 0 ? amount : null;
}

/** Words of each class field that units of a kind have, with how many have them. */
export function classChoices(kind: Category, rows: readonly SpecimenRow[]) {
  return gearKind(kind)
    .sheet.filter(isClassField)
    .map((field) => {
      const counts = new Map<string, number>();
      for (const row of rows)
        for (const word of row.category === kind ? (row.classes[field.id] ?? []) : [])
          counts.set(word, (counts.get(word) ?? 0) + 1);
      const words = [...counts].sort((a, b) => b[1] - a[1]).map(([word, units]) => ({ word, units }));
      return { field: field.id, name: field.name, words };
    })
    .filter((choice) => choice.words.length > 0);
}

/** Facts of the units that a filter leaves; of several words of one field, one is enough. */
export function filterInputs(
  inputs: RankingInputs,
  rows: readonly SpecimenRow[],
  filter: RankingFilter,
): RankingInputs {
  if (filter.classes.length === 0 && filter.upTo === null) return inputs;
  const classes = new Map(rows.map((r) => [r.id, r.classes]));
  const fields = [...new Set(filter.classes.map((c) => c.field))];
  const rule = inputs.rubric.criteria.find((c) => c.kind === 'price');
  const units = inputs.units.filter((unit) => {
    const isIn = fields.every((field) => {
      const own = classes.get(unit.id)?.[field] ?? [];
      return filter.classes.some((c) => c.field === field && own.includes(c.word));
    });
    if (!isIn || filter.upTo === null) return isIn;
    const verdict = rule ? pricePoints(unit, rule) : null;
    return verdict !== null && verdict.points !== null && verdict.total <= filter.upTo;
  });
  return { ...inputs, units };
}

/** A day of the address; null for what is none, and for days that have not come. */
export function readPastDay(text: string | undefined, today: string): string | null {
  const day = daySchema.safeParse(text ?? '').data ?? null;
  return day !== null && day < today ? day : null;
}

/** Which price counts, as the address says; anything else is as the rules say. */
export const readBasis = (text: string | undefined): PriceBasis => PRICE_BASES.find((b) => b === text) ?? 'rules';

/** The same facts by rules that count another price. */
export function withBasis(inputs: RankingInputs, basis: PriceBasis, use: string | null): RankingInputs {
  const rubric = withPriceBasis(inputs.rubric, basis, use);
  return rubric === inputs.rubric ? inputs : { ...inputs, rubric };
}
