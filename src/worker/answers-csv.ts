import { parse } from 'csv-parse/sync';
import { z } from 'zod';
import { daySchema } from '#contracts/common';
import type { ProblemDetail } from '#contracts/problem';

/** One line of a file of answers. */
export interface CsvAnswer {
  readonly winner: string;
  readonly loser: string;
  readonly isTie: boolean;
  readonly count: number;
  readonly weight: number;
  readonly listener: string | null;
  readonly day: string | null;
}

const lineSchema = z.object({
  winner: z.string().trim().min(1, 'winner is empty'),
  loser: z.string().trim().min(1, 'loser is empty'),
  tie: z
    .string()
    .trim()
    .default('0')
    .refine((s) => s === '' || s === '0' || s === '1', { message: 'tie must be 0 or 1' }),
  count: amount('count').optional(),
  weight: amount('weight').optional(),
  listener: z.string().trim().max(120).optional(),
  date: z.union([z.literal(''), daySchema]).optional(),
});

/** Tables of counts have zeros in them: such a line tells nothing, and is no mistake. */
function amount(name: string) {
  return z
    .string()
    .trim()
    .transform((s) => (s === '' ? 1 : Number(s)))
    .refine((n) => Number.isFinite(n) && n >= 0 && n <= 1e9, { message: `${name} must be a number from 0 up` });
}

/** More problems than anybody reads. */
const MOST_PROBLEMS = 50;

/**
 * Reads answers of pairs from CSV with a heading: winner, loser, tie (0 or 1), and optionally count, weight, listener,
 * date. Other columns are left alone; columns may stand in any order, separated by commas or semicolons.
 *
 * @param text - the file
 * @returns answers, and what is wrong with the rest
 */
export function readAnswersCsv(text: string): { answers: CsvAnswer[]; problems: ProblemDetail[] } {
  const problems: ProblemDetail[] = [];
  const say = (line: number | null, message: string): void => {
    if (problems.length < MOST_PROBLEMS)
      problems.push({ file: null, field: line === null ? null : `line ${line}`, message });
  };
  const heading = text.replace(/^\uFEFF/, '').split(/\r?\n/, 1)[0];
  let rows: { record: Record<string, string>; info: { lines: number } }[];
  try {
    rows = parse(text, {
      bom: true,
      columns: (names: string[]) => names.map((n) => n.trim().toLowerCase()),
      delimiter: heading.includes(';') && !heading.includes(',') ? ';' : ',',
      skip_empty_lines: true,
      info: true,
    }) as unknown as typeof rows;
  } catch (error) {
    // The reader's own words name the line; what it quotes of the file would be cut off anywhere.
    const { lines } = error as { lines?: unknown };
    say(
      typeof lines === 'number' ? lines : null,
      'the columns of this line do not fit the heading, or a quote is not closed',
    );
    return { answers: [], problems };
  }
  const names = heading.split(/[,;]/).map((n) => n.trim().toLowerCase().replaceAll('"', ''));
  for (const needed of ['winner', 'loser']) if (!names.includes(needed)) say(1, `the column "${needed}" is missing`);
  if (problems.length > 0) return { answers: [], problems };
  const answers = rows.flatMap(({ record, info }): CsvAnswer[] => {
    const parsed = lineSchema.safeParse(record);
    if (!parsed.success) {
      for (const issue of parsed.error.issues) say(info.lines, issue.message);
      return [];
    }
    const { winner, loser, tie, count, weight, listener, date } = parsed.data;
    if (winner === loser) {
      say(info.lines, `"${winner}" is held against itself`);
      return [];
    }
    return [{ winner, loser, isTie: tie === '1', count: count ?? 1, weight: weight ?? 1, listener: listener === '' ? null : (listener ?? null), day: date === '' ? null : (date ?? null) }]; // prettier-ignore
  });
  if (answers.length === 0 && problems.length === 0) say(null, 'the file holds no answers');
  return { answers, problems };
}
