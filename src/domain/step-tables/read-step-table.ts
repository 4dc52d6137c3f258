import { leading } from '#core/gear/run/leading-number';
import { numberText, readNumber } from '#core/text/read-number';
import type { TableCell } from '#contracts/table-reading';
import { cellSheet } from './cell-sheet';
import type { StepTable } from './step-table';

/** A number that was read for a cell. */
export type ReadCell = Pick<TableCell, 'row' | 'column' | 'value'>;

/** What a file or a pasted text gives a table. */
export interface ReadTable {
  readonly cells: readonly ReadCell[];
  /** What was not taken, or not as it stood, each with its reason. */
  readonly notes: readonly string[];
}

/** Between lines that are further apart than a third of an octave nothing is read; nominal ones are up to 1.28 (ISO 266). */
const NEIGHBOURS = 1.285;
/** A frequency this near to that of a row is the row's. */
const SAME_FREQUENCY = 1e-4;
/** Digits of a value that stands in no line: those of the lines around it are not better. */
const READ_DIGITS = 4;
const MOST_NOTES = 8;
/** So many names are told; of more, how many. */
const MOST_NAMED = 5;

const FREQUENCY = /^[\d.,]+\s*k?Hz$/i;
const nothing = (...notes: string[]): ReadTable => ({ cells: [], notes });

/**
 * Reads the cells of a table from lines of text. Rows and columns are known by their names, in any order, also lying on
 * their side; what has no name is not guessed at. Where the rows are frequencies, lines of a measured curve serve as
 * well: a value between two lines that stand no further apart than a third of an octave is read on a straight line over
 * the logarithm of the frequency.
 *
 * @param lines - cells of each line, as text
 * @param table - that they are for
 * @param into - column that a file of one column of numbers is for; null: the file says it
 */
export function readStepTable(lines: readonly (readonly string[])[], table: StepTable, into: string | null): ReadTable {
  const filled = withPoints(lines)
    .map((cells, i) => ({ line: i + 1, cells: cells.map((c) => c.trim()) }))
    .filter(({ cells }) => cells.some((c) => c !== ''));
  if (filled.length === 0) return nothing('There is nothing in it.');
  const upright = into === null && liesOnItsSide(filled[0].cells, table) ? turned(filled) : filled;
  const heading = upright.find(({ cells }) =>
    cells.slice(1).some((c) => table.columns.some((name) => isName(c, name))),
  );
  const columns = columnsOf(heading?.cells ?? null, upright, table, into);
  if (typeof columns === 'string') return nothing(columns);
  const body = upright.filter((l) => l !== heading && !(heading === undefined && isHeading(l, upright[0])));
  const isCurve = isOverFrequency(table) && body.filter((l) => frequencyOf(l.cells[0]) > 0).length > 1;
  const { cells, notes } = isCurve ? readCurve(body, columns, table) : readNamed(body, columns, table);
  const further = notes.length - MOST_NOTES;
  return { cells, notes: further > 0 ? [...notes.slice(0, MOST_NOTES), `And ${further} more of the kind.`] : notes };
}

/** Whether a value between two rows means anything: not where the rows are rates of sampling, or bands. */
const isOverFrequency = ({ rowName, rows }: StepTable): boolean =>
  /freq/i.test(rowName) && rows.every((row) => FREQUENCY.test(row));

/** Lines with decimal points: where one number has a decimal comma beyond doubt, and none a point, all commas are such. */
function withPoints(lines: readonly (readonly string[])[]): readonly (readonly string[])[] {
  const all = lines.flat();
  const hasCommas = all.some((c) => /^\s*[+−–-]?(\d+,(\d{1,2}|\d{4,})|0,\d+)(\s|$)/.test(c));
  const hasPoints = all.some((c) => /\d\.\d/.test(c));
  if (!hasCommas || hasPoints) return lines;
  return lines.map((cells) => cells.map((c) => c.replace(/(?<=\d),(?=\d)/g, '.')));
}

/** A first line of words above numbers. */
const isHeading = (line: Line, first: Line): boolean =>
  line === first &&
  line.cells.length > 1 &&
  !/^\d/.test(line.cells[0]) &&
  line.cells.slice(1).every((c) => !/\d/.test(c));

interface Line {
  readonly line: number;
  readonly cells: readonly string[];
}
/** Place in the line → column of the table. */
type Columns = ReadonlyMap<number, string>;

function columnsOf(
  heading: readonly string[] | null,
  lines: readonly Line[],
  { columns }: StepTable,
  into: string | null,
): Columns | string {
  if (into !== null) return new Map([[1, into]]);
  if (heading) {
    const found = new Map<number, string>();
    heading.forEach((cell, i) => {
      const name = i === 0 ? undefined : columns.find((c) => isName(cell, c));
      if (name !== undefined && ![...found.values()].includes(name)) found.set(i, name);
    });
    return found;
  }
  const width = Math.max(...lines.map((l) => l.cells.length)) - 1;
  if (columns.length === 1 && width === 1) return new Map([[1, columns[0]]]);
  return `Its first line does not say which column is which: ${columns.join(', ')}. Write the names above the numbers, or say which column it is for.`;
}

/** Whether the first line names rows of the table rather than columns. */
function liesOnItsSide([, ...first]: readonly string[], { rows, columns }: StepTable): boolean {
  const named = (names: readonly string[]): number => first.filter((c) => names.some((n) => isName(c, n))).length;
  return named(rows) > Math.max(1, named(columns));
}

function turned(lines: readonly Line[]): Line[] {
  const width = Math.max(...lines.map((l) => l.cells.length));
  return Array.from({ length: width }, (_, i) => ({ line: i + 1, cells: lines.map((l) => l.cells[i] ?? '') }));
}

/** A value as it stands in the file: null where the cell is empty or cannot be read. */
function valueIn({ line, cells }: Line, at: number, column: string, table: StepTable, notes: string[]): number | null {
  const text = cells[at] ?? '';
  if (/^[-–—]?$/.test(text)) return null;
  const reading = readNumber(text, cellSheet(table));
  if (reading.isUnderstood) return reading.value;
  notes.push(`Line ${line}, ${column}: ${reading.why}`);
  return null;
}

function readNamed(body: readonly Line[], columns: Columns, table: StepTable): ReadTable {
  const notes: string[] = [];
  const strange: string[] = [];
  const cells = new Map<string, ReadCell>();
  for (const line of body) {
    const row = table.rows.find((name) => isName(line.cells[0], name));
    if (row === undefined) {
      strange.push(line.cells[0]);
      continue;
    }
    for (const [at, column] of columns) {
      const value = valueIn(line, at, column, table, notes);
      const key = `${row}\n${column}`;
      if (value === null) continue;
      if (cells.has(key)) notes.push(`Line ${line.line}: “${row}” stands there twice; the first one was taken.`);
      else cells.set(key, { row, column, value });
    }
  }
  if (strange.length > 0) notes.push(`Not of this table, and left out: ${some(strange)}.`);
  return { cells: [...cells.values()], notes };
}

interface Point {
  readonly hz: number;
  readonly value: number;
}

function readCurve(body: readonly Line[], columns: Columns, table: StepTable): ReadTable {
  const notes: string[] = [];
  // What stands before the first frequency is a heading; what stands between frequencies is told.
  const first = body.findIndex((l) => frequencyOf(l.cells[0]) > 0);
  const strange = body.slice(first).filter((l) => !(frequencyOf(l.cells[0]) > 0));
  if (strange.length > 0) notes.push(`No frequency, and left out: ${some(strange.map((l) => `line ${l.line}`))}.`);
  // Columns of which the same is to be said are named together.
  const said = new Map<string, string[]>();
  const say = (what: string, column: string): unknown => said.set(what, [...(said.get(what) ?? []), column]);
  const cells = [...columns].flatMap(([at, column]) => {
    const points = body
      .slice(first)
      .flatMap((line): Point[] => {
        const hz = frequencyOf(line.cells[0]);
        if (!(hz > 0)) return [];
        const value = valueIn(line, at, column, table, notes);
        return value === null ? [] : [{ hz, value }];
      })
      .sort((a, b) => a.hz - b.hz);
    return curveCells(points, column, table, (what) => say(what, column));
  });
  return { cells, notes: [...notes, ...[...said].map(([what, named]) => `${named.join(', ')}: ${what}`)] };
}

function curveCells(
  points: readonly Point[],
  column: string,
  { rows }: StepTable,
  say: (what: string) => void,
): ReadCell[] {
  const [between, without]: [string[], string[]] = [[], []];
  const cells = rows.flatMap((row): ReadCell[] => {
    const value = at(points, leading(row));
    if (value === null) without.push(row);
    else if (value.isBetween) between.push(row);
    return value === null ? [] : [{ row, column, value: value.value }];
  });
  const only = points.length === 0 ? '' : `; its lines go from ${hzText(points[0].hz)} to ${hzText(points[points.length - 1].hz)}`; // prettier-ignore
  if (between.length > 0) say(`${some(between)} read between two lines, to ${READ_DIGITS} digits.`);
  if (without.length > 0) say(`nothing near enough for ${some(without)}${only}.`);
  return cells;
}

/** A curve at a frequency: of a line where one stands there, else on the straight line between its neighbours. */
function at(points: readonly Point[], hz: number): { value: number; isBetween: boolean } | null {
  const same = points.find((p) => Math.abs(p.hz / hz - 1) < SAME_FREQUENCY);
  if (same) return { value: same.value, isBetween: false };
  const above = points.findIndex((p) => p.hz > hz);
  if (above <= 0) return null;
  const [low, high] = [points[above - 1], points[above]];
  if (high.hz / low.hz > NEIGHBOURS) return null;
  const share = Math.log(hz / low.hz) / Math.log(high.hz / low.hz);
  const value = low.value + share * (high.value - low.value);
  return { value: Number(value.toPrecision(READ_DIGITS)), isBetween: true };
}

/** A frequency as it stands in a file; NaN where there is none, or more than one that it can be. */
function frequencyOf(text: string): number {
  const reading = readNumber(text, { unit: 'Hz', units: { kHz: 1000 } });
  return reading.isUnderstood ? (reading.value ?? NaN) : NaN;
}

function hzText(exact: number): string {
  const hz = Number(exact.toPrecision(3));
  return hz < 1000 ? numberText(hz, { unit: 'Hz' }) : numberText(hz / 1000, { unit: 'kHz' });
}

const some = (names: readonly string[]): string =>
  names.length <= MOST_NAMED
    ? names.join(', ')
    : `${names.slice(0, MOST_NAMED).join(', ')} and ${names.length - MOST_NAMED} more`;

/** Names of rows and columns: capitals, spaces and the shape of a minus sign do not count; 1000 and "1 kHz" are one row. */
function isName(typed: string, name: string): boolean {
  if (folded(typed) === folded(name)) return true;
  const [number, unit] = [/^[\d.,]+$/.test(typed.trim()), FREQUENCY.test(name)];
  return number && unit && Math.abs(leading(typed) / leading(name) - 1) < SAME_FREQUENCY;
}

const folded = (text: string): string =>
  text.normalize('NFKC').toLowerCase().replace(/[−–]/gu, '-').replace(/\s+/gu, '');
