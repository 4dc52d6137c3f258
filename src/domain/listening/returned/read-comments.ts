import { lettersOf, type PackEars } from './pack-ears';
import { readComment } from './read-comment';
import type { ReadAnswer } from './read-table';

/** What a line says about when something was written, as comments carry it. */
const WHEN = /^\(?(edited|\d+ (second|minute|hour|day|week|month|year)s? ago|yesterday|today)\b.*$/i;

/**
 * Reads pasted comments: one per line, or one per paragraph with the listener's name above what was said. A name may
 * stand in front, before a colon or a tab.
 *
 * @param text - as it was pasted
 * @param pack - what can be spoken of
 */
export function readComments(text: string, pack: PackEars): ReadAnswer[] {
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n?|\n/);
  const hasParagraphs = lines.some((l, i) => l.trim() === '' && i > 0 && i < lines.length - 1 && lines.slice(i).some((x) => x.trim() !== '')); // prettier-ignore
  return hasParagraphs ? paragraphsOf(lines).map((p) => readParagraph(p, pack)) : lines.flatMap((line, i) => (line.trim() === '' ? [] : [readLine(line, i + 1, pack)])); // prettier-ignore
}

interface Paragraph {
  readonly line: number;
  readonly lines: readonly string[];
}

function paragraphsOf(lines: readonly string[]): Paragraph[] {
  const all: { line: number; lines: string[] }[] = [];
  let isOpen = false;
  for (const [i, line] of lines.entries()) {
    if (line.trim() === '') isOpen = false;
    else if (isOpen) all[all.length - 1].lines.push(line.trim());
    else {
      all.push({ line: i + 1, lines: [line.trim()] });
      isOpen = true;
    }
  }
  return all;
}

function readParagraph({ line, lines }: Paragraph, pack: PackEars): ReadAnswer {
  if (lines.length === 1) return readLine(lines[0], line, pack);
  const [first, ...rest] = lines;
  const said = rest.filter((l) => !WHEN.test(l));
  // Above what was said stands who said it, if that line itself says nothing of a clip.
  if (said.length > 0 && first.length <= 60 && !NO_NAME.test(first) && readComment(first, pack).problem !== null)
    return { ...readComment(said.join('\n'), pack), line, text: shortened(said.join(' ')), listener: nameIn(first) };
  return readLine(lines.join(' '), line, pack);
}

/** What stands before a colon and is no name: "My ranking:", "worst to best:". */
const NO_NAME =
  /\b(my|mine|rank\w*|orders?|top|best|worst|fav\w*|votes?|picks?|answers?|choices?|guess\w*|lists?|scores?|points|here|imo|edit|results?)\b/i;

function readLine(text: string, line: number, pack: PackEars): ReadAnswer {
  const m = /^\s*([^:\t]{1,60})(?::|\t)\s*(.*\S)\s*$/s.exec(text);
  const isClip = (before: string): boolean =>
    [...pack.clips, ...lettersOf(pack)].some((c) => c.toLowerCase() === before.trim().toLowerCase());
  if (
    m &&
    !isClip(m[1]) &&
    !NO_NAME.test(m[1]) &&
    !/^\s*\(?#?\d/.test(m[1]) &&
    readComment(m[1], pack).problem !== null
  )
    return { ...readComment(m[2], pack), line, text: shortened(m[2]), listener: nameIn(m[1]) };
  return { ...readComment(text, pack), line, text: shortened(text), listener: null };
}

/** A name without the signs that places where one writes put before it. */
const nameIn = (text: string): string | null => text.trim().replace(/^[@•*-]\s*/, '') || null;
const shortened = (text: string): string => (text.length > 200 ? `${text.slice(0, 199)}…` : text);
