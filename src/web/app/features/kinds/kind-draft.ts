import type { KindDocument, OwnHatch } from '#core/gear/kind-document';
import { OWN_HATCHES } from '#core/gear/kind-document';
import type { ShippedKindId } from '#core/gear/kinds';
import type { SheetField } from '#core/gear/sheet/sheet-field';

/** Words of a name, for names that files and addresses can hold. */
const wordsOf = (name: string): string[] =>
  name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .split(/[^a-z0-9]+/)
    .filter(Boolean);

const free = (wanted: string, taken: ReadonlySet<string>): string => {
  for (let n = 2, id = wanted; ; id = `${wanted}${n++}`) if (!taken.has(id)) return id;
};

/** A name for a kind of its own in addresses and files: "portable-recorder". */
export function kindId(name: string, taken: readonly string[]): string {
  const id = wordsOf(name)
    .join('-')
    .replace(/^[^a-z]+/, '')
    .slice(0, 50);
  return free(id || 'kind', new Set(taken));
}

/** A name for a field in files: "muteButton". */
export function fieldId(name: string, taken: readonly string[]): string {
  const [first = '', ...rest] = wordsOf(name);
  const id = [first, ...rest.map((w) => w[0].toUpperCase() + w.slice(1))]
    .join('')
    .replace(/^[^a-z]+/, '')
    .slice(0, 50);
  return free(id || 'field', new Set(taken));
}

/** A kind that somebody begins to add. The hatch is one that no other has, as long as there is one. */
export function newKind(name: string, like: ShippedKindId, others: readonly KindDocument[]): KindDocument {
  const used = new Set<OwnHatch | null>(others.map((k) => k.hatch));
  const hatch = OWN_HATCHES.find((h) => !used.has(h)) ?? OWN_HATCHES[0];
  const id = kindId(name, others.map((k) => k.id)); // prettier-ignore
  return { id, version: 1, name, like, hatch, fields: [], withoutFields: [], columns: null };
}

/** What a field of another type keeps of what was said of it. */
export function withType(field: SheetField, type: SheetField['type']): SheetField {
  const { id, name, group } = field;
  const base = { id, name, group };
  const isClass = 'isClass' in field ? field.isClass === true : false;
  switch (type) {
    case 'number':
      return { ...base, type, unit: '' };
    case 'choice':
    case 'several':
      return { ...base, type, options: 'options' in field ? field.options : [], isClass };
    case 'yes-no':
      return { ...base, type, isClass };
    case 'text':
      return { ...base, type };
  }
}

/** A column is shown last, or not at all. Where none was chosen yet, the usual ones are what is chosen from. */
export function withColumn(
  columns: readonly string[] | null,
  usual: readonly string[],
  id: string,
  isShown: boolean,
): readonly string[] {
  const others = (columns ?? usual).filter((c) => c !== id);
  return isShown ? [...others, id] : others;
}
