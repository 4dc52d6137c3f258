/** What divides the cells of a text. */
export type Separator = '\t' | ';' | ',';

/** Two numbers with nothing but blanks between them: what instruments write. */
const BLANKS = /^\s*[+-]?[\d.]+(?:e[+-]?\d+)?[ \t]+[+-]?[\d.]/im;

/**
 * What divides the cells of a text: tabs where a spreadsheet was copied, semicolons where commas are decimal signs, else
 * commas. Where none of them stands between numbers, blanks do, and become tabs.
 *
 * @param text - lines of a table
 */
export function divided(text: string): { readonly text: string; readonly separator: Separator } {
  const lines = text.replace(/^\uFEFF/, '');
  if (lines.includes('\t')) return { text: lines, separator: '\t' };
  if (lines.includes(';')) return { text: lines, separator: ';' };
  if (!lines.includes(',') && BLANKS.test(lines))
    return { text: lines.replace(/(?<=\S) +(?=\S)/gu, '\t'), separator: '\t' };
  return { text: lines, separator: ',' };
}
