import { divided } from '#domain/step-tables/separator';

/** A text that cannot be taken apart into lines and cells. */
export class UnreadableTable extends Error {}

/**
 * The cells of each line of a text.
 *
 * @throws UnreadableTable where its quotes do not close
 */
export async function tableLines(text: string): Promise<string[][]> {
  const { parse } = await import('csv-parse/browser/esm/sync');
  const { text: lines, separator } = divided(text);
  try {
    return parse(lines, { delimiter: separator, relax_column_count: true, skip_empty_lines: false });
  } catch (error) {
    throw new UnreadableTable(error instanceof Error ? error.message : String(error));
  }
}
