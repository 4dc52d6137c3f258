/**
 * JSON of long lists, of which most rows are the very objects of the last time: each is written once, and its text kept
 * as long as the row.
 */
export class RowTexts {
  private readonly texts = new WeakMap<object, string>();

  /** @param rows - objects that nobody changes */
  of(rows: readonly object[]): string {
    return `[${rows.map((row) => this.textOf(row)).join(',')}]`;
  }

  private textOf(row: object): string {
    const known = this.texts.get(row);
    if (known !== undefined) return known;
    const text = JSON.stringify(row);
    this.texts.set(row, text);
    return text;
  }
}
