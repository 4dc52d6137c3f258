import { arePlaces } from './are-places';
import { lettersOf, NOTHING, refused, saysSomething, type PackEars, type Understood } from './pack-ears';
import { readComment, unitIn } from './read-comment';
import { wholeNames } from './whole-names';

/** A line of a table, and where it stands. */
export interface TableRow {
  readonly line: number;
  readonly cells: readonly string[];
}

/** An answer, by whom, and where it stands. */
export interface ReadAnswer extends Understood {
  readonly line: number;
  readonly text: string;
  readonly listener: string | null;
}

const COLUMNS = {
  listener: /^(listener|name|who|user|nick ?name|author|from)$/,
  clip: /^(clip|code|code name|sample)$/,
  place: /^(place|rank|order|position)$/,
  points: /^(points|score|rating|stars)$/,
  guess: /^(guess|unit|name guessed)$/,
  answer: /^(answer|comment|text|reply|message)$/,
  votes: /^(votes|count|number of votes)$/,
  pack: /^(pack|test)$/,
} as const;
type Column = keyof typeof COLUMNS;

/** Which column says what; clips that have a column of their own stand by their letters. */
interface Heading {
  readonly columns: Partial<Record<Column, number>>;
  readonly clips: readonly { readonly letter: string; readonly at: number }[];
}

function headingOf(cells: readonly string[], pack: PackEars): Heading | null {
  const plain = cells.map((c) => c.trim().toLowerCase());
  const columns: Partial<Record<Column, number>> = {};
  for (const [name, pattern] of Object.entries(COLUMNS) as [Column, RegExp][]) {
    const at = plain.findIndex((c) => pattern.test(c));
    if (at >= 0) columns[name] = at;
  }
  const clips = lettersOf(pack).flatMap((letter, i) => {
    const at = plain.findIndex((c) => c === letter.toLowerCase() || c === pack.clips[i].toLowerCase());
    return at < 0 ? [] : [{ letter, at }];
  });
  const isTable = columns.clip !== undefined || columns.answer !== undefined || clips.length > 1;
  return isTable && cells.length > 1 ? { columns, clips } : null;
}

/** Whether the first line of a text names columns that are known. */
export const isHeading = (cells: readonly string[], pack: PackEars): boolean => headingOf(cells, pack) !== null;

/**
 * Reads answers from a table with a heading: a line per clip (listener, clip, place, points, guess; or clip, votes), a
 * line per listener with a column per clip, or a column with what was written. A heading that comes again begins anew,
 * as where several files were joined.
 *
 * @param rows - with the heading
 * @param pack - what can be spoken of
 */
export function readTable(rows: readonly TableRow[], pack: PackEars): ReadAnswer[] {
  const answers: ReadAnswer[] = [];
  let heading: Heading | null = null;
  let block: TableRow[] = [];
  const end = (): void => {
    if (heading) answers.push(...readBlock(heading, block, pack));
    block = [];
  };
  for (const row of rows) {
    const next = headingOf(row.cells, pack);
    if (next) {
      end();
      heading = next;
    } else if (row.cells.some((c) => c.trim() !== '')) block.push(row);
  }
  end();
  return answers;
}

function readBlock(heading: Heading, rows: readonly TableRow[], pack: PackEars): ReadAnswer[] {
  const { columns, clips } = heading;
  const cell = (row: TableRow, column: Column): string => {
    const at = columns[column];
    return at === undefined ? '' : (row.cells.at(at) ?? '').trim();
  };
  const answer = (row: TableRow, read: Understood): ReadAnswer => {
    const listener = cell(row, 'listener');
    return {
      ...read,
      line: row.line,
      text: row.cells.join(', ').slice(0, 200),
      listener: listener === '' ? null : listener,
    };
  };
  const foreign = rows.find((r) => cell(r, 'pack') !== '' && cell(r, 'pack').toUpperCase() !== pack.tag);
  if (foreign) return [answer(foreign, refused(`These answers belong to another pack (${cell(foreign, 'pack')}; this one is ${pack.tag}).`))]; // prettier-ignore
  if (columns.answer !== undefined) return rows.map((row) => answer(row, readComment(cell(row, 'answer'), pack)));
  if (columns.clip === undefined) return rows.map((row) => answer(row, wholeNames(wideRow(row, clips, pack), pack)));
  if (columns.votes !== undefined && rows.length > 0) return [answer(rows[0], votes(rows, cell, pack))];
  // A line per clip: lines of one listener belong together.
  const byListener = new Map<string, TableRow[]>();
  for (const row of rows) {
    const key = cell(row, 'listener').toLowerCase();
    byListener.set(key, [...(byListener.get(key) ?? []), row]);
  }
  return [...byListener.values()].map((own) => answer(own[0], wholeNames(longRows(own, cell, pack), pack)));
}

type CellOf = (row: TableRow, column: Column) => string;

const numberOf = (text: string): number | null =>
  /^\d{1,8}([.,]\d{1,3})?$/.test(text) ? Number(text.replace(',', '.')) : null;

function letterIn(text: string, pack: PackEars): string | null {
  const plain = text.toLowerCase();
  const at = pack.clips.findIndex(
    (name, i) => plain === name.toLowerCase() || plain === lettersOf(pack)[i].toLowerCase(),
  );
  return at < 0 ? null : lettersOf(pack)[at];
}

function votes(rows: readonly TableRow[], cell: CellOf, pack: PackEars): Understood {
  const counted: Record<string, number> = {};
  for (const row of rows) {
    const letter = letterIn(cell(row, 'clip'), pack);
    const n = numberOf(cell(row, 'votes'));
    if (letter === null) return refused(`Line ${row.line}: “${cell(row, 'clip')}” is no clip of this pack.`);
    if (n === null || !Number.isInteger(n)) return refused(`Line ${row.line}: “${cell(row, 'votes')}” is no number of votes.`); // prettier-ignore
    if (letter in counted) return refused(`Line ${row.line}: ${letter} has votes twice.`);
    counted[letter] = n;
  }
  const without = lettersOf(pack).filter((l) => !(l in counted));
  // Nobody's favourite, or not offered? The two differ.
  const doubts = without.length > 0 ? [`no votes are given for ${without.join(', ')}: taken as not offered`] : [];
  return { ...NOTHING, votes: counted, doubts };
}

function longRows(rows: readonly TableRow[], cell: CellOf, pack: PackEars): Understood {
  const places: { letter: string; place: number }[] = [];
  const points: Record<string, number> = {};
  const names: Record<string, string> = {};
  const seen = new Set<string>();
  for (const row of rows) {
    const letter = letterIn(cell(row, 'clip'), pack);
    if (letter === null) return refused(`Line ${row.line}: “${cell(row, 'clip')}” is no clip of this pack.`);
    if (seen.has(letter)) return refused(`Line ${row.line}: ${letter} stands twice.`);
    seen.add(letter);
    const [place, given, guess] = [cell(row, 'place'), cell(row, 'points'), cell(row, 'guess')];
    if (place !== '') {
      const n = numberOf(place);
      if (n === null || n < 1) return refused(`Line ${row.line}: “${place}” is no place.`);
      places.push({ letter, place: n });
    }
    if (given !== '') {
      const n = numberOf(given);
      if (n === null || n > 100) return refused(`Line ${row.line}: “${given}” is no number of points from 0 to 100.`);
      points[letter] = n;
    }
    if (guess !== '') {
      const unit = unitIn(guess, pack);
      if (unit === null || unit === 'several') return refused(`Line ${row.line}: “${guess}” is none of this pack's units.`); // prettier-ignore
      names[letter] = unit.id;
    }
  }
  places.sort((a, b) => a.place - b.place);
  if (places.length === 1) return refused('One place alone is no order.');
  const isTied = new Set(places.map((p) => p.place)).size < places.length;
  const read = isTied
    ? { ...NOTHING, points: { ...tiedPlaces(places), ...points }, names }
    : { ...NOTHING, order: places.map((p) => p.letter), points, names };
  return saysSomething(read) ? read : refused('It says nothing about any clip.');
}

/** Places of which some are the same, as points. */
const tiedPlaces = (places: readonly { letter: string; place: number }[]): Record<string, number> => {
  const last = Math.min(100, Math.max(...places.map((p) => p.place)));
  return Object.fromEntries(places.map(({ letter, place }) => [letter, Math.max(0, last - place)]));
};

function wideRow(row: TableRow, clips: Heading['clips'], pack: PackEars): Understood {
  const given = clips.flatMap(({ letter, at }) => {
    const text = (row.cells.at(at) ?? '').trim();
    return text === '' ? [] : [{ letter, text, number: numberOf(text) }];
  });
  if (given.length === 0) return refused('It says nothing about any clip.');
  if (given.every((g) => g.number !== null)) {
    const numbers = given.map((g) => g.number ?? 0);
    if (numbers.some((n) => n > 100)) return refused('Points go from 0 to 100 at most.');
    if (!arePlaces(numbers))
      return { ...NOTHING, points: Object.fromEntries(given.map((g) => [g.letter, g.number ?? 0])) };
    const order = [...given].sort((a, b) => (a.number ?? 0) - (b.number ?? 0)).map((g) => g.letter);
    return { ...NOTHING, order, doubts: ['numbers from 1 up, each once: taken as places, 1 as the best'] };
  }
  const names: Record<string, string> = {};
  for (const { letter, text } of given) {
    const unit = unitIn(text, pack);
    if (unit === null || unit === 'several') return refused(`“${text}” is neither a number nor one of this pack's units.`); // prettier-ignore
    names[letter] = unit.id;
  }
  return { ...NOTHING, names };
}
