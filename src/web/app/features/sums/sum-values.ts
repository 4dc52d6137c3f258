import type { TakenNumber } from './take-from-unit';
import type { Sum, SumAnswer, SumValues } from './sum';

/** Where the number of a field comes from. */
export interface SumValue {
  readonly value: number | null;
  readonly source: TakenNumber['source'] | 'typed' | 'usual' | null;
}

/**
 * The numbers that a sum is made of: what somebody typed, else what the chosen units have, else what is usual.
 *
 * @param sum - whose fields they are
 * @param typed - by field; null: emptied by hand
 * @param taken - by field, from the chosen units
 */
export function valuesOf(
  { fields }: Pick<Sum, 'fields'>,
  typed: SumValues,
  taken: Readonly<Record<string, TakenNumber | null>>,
): Readonly<Record<string, SumValue>> {
  return Object.fromEntries(
    fields.map(({ id, usual }): [string, SumValue] => {
      if (Object.hasOwn(typed, id)) return [id, { value: typed[id], source: typed[id] === null ? null : 'typed' }];
      const found = taken[id];
      if (found) return [id, found];
      return [id, { value: usual, source: usual === null ? null : 'usual' }];
    }),
  );
}

/** Names of the fields that have to be filled in before there is an answer. */
export const missingOf = (sum: Sum, values: Readonly<Record<string, SumValue>>): string[] =>
  sum.fields.flatMap((f) => (f.isOptional || values[f.id].value !== null ? [] : [f.label]));

/** What the sum comes to; null as long as something is missing, or where the numbers make no sense together. */
export function answerOf(sum: Sum, values: Readonly<Record<string, SumValue>>): SumAnswer | null {
  if (missingOf(sum, values).length > 0) return null;
  return sum.answer(
    (field) => values[field].value ?? NaN,
    (field) => values[field].value,
  );
}

/** Numbers that an address carries, by the fields of the sum; what is no number is left out, an empty one is empty. */
export function typedIn({ fields }: Pick<Sum, 'fields'>, read: (name: string) => string | null): SumValues {
  return Object.fromEntries(
    fields.flatMap(({ id }): [string, number | null][] => {
      const text = read(id);
      if (text === null) return [];
      const value = Number(text);
      return text === '' ? [[id, null]] : Number.isFinite(value) ? [[id, value]] : [];
    }),
  );
}
