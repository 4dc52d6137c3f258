/** A value of a field before and after. */
export interface FieldChange {
  readonly name: string;
  readonly before: string;
  readonly after: string;
}

/**
 * What a correction changed, in words: only the fields that differ, each with both values.
 *
 * @param subject - what was corrected, with what tells it from others
 * @param fields - its fields, in any state
 * @returns null where nothing differs
 */
export function correctionText(subject: string, fields: readonly FieldChange[]): string | null {
  const changed = fields.filter((f) => f.before !== f.after);
  if (changed.length === 0) return null;
  const parts = changed.map((f) => `${f.name} ${f.before || 'not noted'} → ${f.after || 'not noted'}`);
  return `${subject}: ${parts.join(', ')}`;
}

/**
 * Fields of two records, side by side, in the order in which they first come.
 *
 * @param before - name → value as text
 * @param after - the same, later
 */
export function fieldChanges(
  before: Readonly<Record<string, string>>,
  after: Readonly<Record<string, string>>,
): FieldChange[] {
  return [...new Set([...Object.keys(before), ...Object.keys(after)])].map((name) => ({
    name,
    before: before[name] ?? '',
    after: after[name] ?? '',
  }));
}
