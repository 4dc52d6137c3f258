import { answerCodesIn } from '#core/rules/listening/answer-code';
import { arePlaces } from './are-places';
import { lettersOf, NOTHING, refused, type PackEars, type Understood } from './pack-ears';
import { understandCode } from './read-code';
import { wholeNames } from './whole-names';

/** A clip that is named in a text, and where. */
interface Mention {
  readonly letter: string;
  readonly from: number;
  readonly to: number;
  /** Whether it is a code name or a large letter by itself, which is hardly anything else. */
  readonly isSure: boolean;
}

/** Words that may turn what is said into its opposite. */
const TURNING = /\b(not|never|worst|least|hate|dislike|except|but|unlike|last|instead of)\b|n['’]t\b|\?/i;
const FAVOURING =
  /\b(best|favou?rites?|favs?|prefer|prefers|preferred|like|love|winner|wins|vote|pick|choose|choice)\b/i;

/** Words that stand before a letter and say nothing: "clip C", "mic A". */
const CALLED = /\b(?:clips?|mics?|microphones?|samples?|options?|numbers?|letters?)\s+(?=[A-La-l]\b)/gi;
/** An order that begins with the worst, or says that it begins with the best. */
const WORST_FIRST = /\b(?:from\s+)?(?:worst|last)\s*(?:to|->|→|-|>)\s*(?:best|first)\b|\bworst first\b|\bbest last\b/i;
const BEST_FIRST = /\b(?:from\s+)?(?:best|first)\s*(?:to|->|→|-|>)\s*(?:worst|last)\b|\bbest first\b|\bworst last\b/i;

/**
 * Reads what somebody wrote in a comment: a code, an order ("B > C > A", "1. Birch 2. Alder"), points ("A 7, B 8.5"),
 * guesses ("A = …"), or the best one alone. What could mean something else is read with a doubt; what says nothing, or
 * contradicts itself, with a problem.
 *
 * @param written - without the name of who wrote it
 * @param pack - what can be spoken of
 */
export function readComment(written: string, pack: PackEars): Understood {
  const text = written.replaceAll(CALLED, '').replace(BEST_FIRST, '').replace(WORST_FIRST, '');
  const isRising = WORST_FIRST.test(written);
  const codes = answerCodesIn(text);
  if (codes.length > 1 && new Set(codes.map((c) => c.toUpperCase())).size > 1)
    return refused('There are several codes in one answer.');
  if (codes.length > 0) return wholeNames(understandCode(codes[0], pack), pack);
  const mentions = mentionsIn(text, pack);
  const row = inARow(text, pack);
  if (row) return isRising ? { ...row, order: [...row.order].reverse() } : row;
  if (mentions.length === 0) return refused('It names no clip of this pack.');
  const read = guesses(text, mentions, pack) ?? points(text, mentions) ?? order(text, mentions) ?? best(text, mentions); // prettier-ignore
  if (read === null) return refused('What it says of these clips is not understood.');
  const foreign = foreignLetters(text, pack);
  if (foreign.length > 0 && !hasWords(text, pack))
    return refused(`It names ${foreign.join(', ')}, which this pack has not.`);
  const doubts = [...read.doubts, ...foreign.map((l) => `“${l}” is no clip of this pack`)];
  const words = TURNING.exec(text)?.[0];
  if (words !== undefined) doubts.push(`“${words}” may turn its meaning`);
  if (mentions.some((m) => !m.isSure) && /[a-z]{4}/i.test(text))
    doubts.push('a small letter may be a word of the sentence');
  if (isRising && read.order.length === 0) doubts.push('it begins with the worst, which only a plain order can');
  const ordered = isRising ? [...read.order].reverse() : read.order;
  return wholeNames({ ...read, order: ordered, doubts }, pack);
}

/** Whether there is more in a text than names of clips and signs: then a small letter may be a word. */
const hasWords = (text: string, pack: PackEars): boolean =>
  /[\p{L}]{2}/u.test(pack.clips.reduce((rest, name) => rest.replace(new RegExp(name, 'gi'), ''), text));

/** Large letters that stand alone and are none of the pack's; "I" is a word. */
function foreignLetters(text: string, pack: PackEars): string[] {
  const own = [...lettersOf(pack), 'I'];
  const alone = [...text.matchAll(/(?<![\p{L}\p{N}'’])([A-Z])(?![\p{L}\p{N}'’])/gu)].map((m) => m[1]);
  return [...new Set(alone)].filter((l) => !own.includes(l));
}

/** Clips that are named: by their code names in any letters, or by a letter that stands alone. */
function mentionsIn(text: string, pack: PackEars): Mention[] {
  const found: Mention[] = [];
  const letters = lettersOf(pack);
  // In a line that has no words, small letters are letters of clips.
  const isSentence = hasWords(text, pack);
  for (const [i, name] of pack.clips.entries())
    for (const m of text.matchAll(new RegExp(`\\b${name}\\b`, 'gi')))
      found.push({ letter: letters[i], from: m.index, to: m.index + name.length, isSure: true });
  for (const m of text.matchAll(/(?<![\p{L}\p{N}'’])([a-l])(?![\p{L}'’])/giu)) {
    const letter = m[1].toUpperCase();
    if (!letters.includes(letter)) continue;
    const isLarge = m[1] === letter;
    // "a" and "I" are words more often than clips.
    if (!isLarge && isSentence && m[1] === 'a') continue;
    if (letter === 'I' && isSentence && /^I\s+(\p{Ll}|['’])/u.test(text.slice(m.index))) continue;
    found.push({ letter, from: m.index, to: m.index + 1, isSure: !isSentence || (isLarge && !/^A\s+(?!(?:gets|is|has|was|wins|sounds)\b)\p{Ll}/u.test(text.slice(m.index))) }); // prettier-ignore
  }
  return found.sort((a, b) => a.from - b.from);
}

/** Letters in a row, such as "BCA": all clips, each once, and nothing else. */
function inARow(text: string, pack: PackEars): Understood | null {
  const row = text.trim().toUpperCase();
  const letters = lettersOf(pack);
  const isAll = letters.length > 1 && row.length === letters.length && letters.every((l) => row.includes(l));
  return isAll ? { ...NOTHING, order: Array.from(row) } : null;
}

/** Units that are named behind clips ("A = Lantern One", "A is the Lantern") or before them ("the Lantern is A"). */
function guesses(text: string, mentions: readonly Mention[], pack: PackEars): Understood | null {
  const doubts = new Set<string>();
  const names: Record<string, string> = {};
  const isBefore = unitIn(text.slice(0, mentions[0].from), pack) !== null;
  if (isBefore && unitIn(text.slice(mentions[mentions.length - 1].to), pack) !== null)
    return { ...NOTHING, problem: 'Units stand before clips and behind them: which belongs to which is not clear.' };
  for (const [i, mention] of mentions.entries()) {
    const behind = text.slice(mention.to, mentions.at(i + 1)?.from ?? text.length);
    const before = text.slice(i === 0 ? 0 : mentions[i - 1].to, mention.from);
    const unit = unitIn(isBefore ? before : behind, pack);
    if (unit === null) continue;
    if (unit === 'several') return { ...NOTHING, problem: `More than one unit is named for ${mention.letter}.` };
    if (mention.letter in names && names[mention.letter] !== unit.id)
      return { ...NOTHING, problem: `Two units are guessed for ${mention.letter}.` };
    names[mention.letter] = unit.id;
    if (!unit.isWhole) doubts.add('a unit is named by a part of its name');
  }
  return Object.keys(names).length === 0 ? null : { ...NOTHING, names, doubts: [...doubts] };
}

/** The unit that a piece of text names: by its whole name, or by a word that no other has. */
export function unitIn(
  text: string,
  pack: PackEars,
): { readonly id: string; readonly isWhole: boolean } | 'several' | null {
  const plain = text.toLowerCase();
  const whole = pack.units.filter((u) => plain.includes(u.name.toLowerCase()));
  // "Lantern One" stands in "Lantern One mk 2" as well: the longest is meant.
  const longest = whole.sort((a, b) => b.name.length - a.name.length).at(0);
  if (longest) {
    const others = whole.filter((u) => !longest.name.toLowerCase().includes(u.name.toLowerCase()));
    return others.length > 0 ? 'several' : { id: longest.specimenId, isWhole: true };
  }
  const said = new Set(plain.match(/[\p{L}\p{N}]{2,}/gu) ?? []);
  const wordsOf = (name: string): string[] => name.toLowerCase().match(/[\p{L}\p{N}]{2,}/gu) ?? [];
  const named = pack.units.filter((u) =>
    wordsOf(u.name).some((w) => said.has(w) && pack.units.every((o) => o === u || !wordsOf(o.name).includes(w))),
  );
  if (named.length === 0) return null;
  return named.length > 1 ? 'several' : { id: named[0].specimenId, isWhole: false };
}

/** A number behind every clip: "A 7, B 8.5", "A: 7/10". */
function points(text: string, mentions: readonly Mention[]): Understood | null {
  // "1. B 2. A": numbers belong to what comes after them.
  if (placeIn(text.slice(0, mentions[0].from)) !== null) return null;
  const given: Record<string, number> = {};
  const out: number[] = [];
  for (const [i, { letter, to }] of mentions.entries()) {
    const behind = text.slice(to, mentions.at(i + 1)?.from ?? text.length);
    const m = /^\s*(?:[:=\-–—]|gets|is)?\s*(\d{1,3}(?:[.,]\d{1,2})?)\s*(?:\/\s*(\d{1,3}))?/i.exec(behind);
    if (!m || /\d/.test(behind.slice(m[0].length))) return null;
    if (letter in given) return { ...NOTHING, problem: `${letter} has points twice.` };
    given[letter] = Number(m[1].replace(',', '.'));
    if (m[2] && Number(m[2]) < given[letter])
      return { ...NOTHING, problem: `${letter} has more points than there are: ${m[0].trim()}.` };
    if (m[2]) out.push(Number(m[2]));
  }
  if (Object.values(given).some((n) => n > 100)) return { ...NOTHING, problem: 'Points go from 0 to 100 at most.' };
  const doubts = new Set(out).size > 1 ? ['points are out of different numbers'] : [];
  if (arePlaces(Object.values(given)))
    doubts.push('these may be places, not points: the largest number is taken as the best');
  return { ...NOTHING, points: given, doubts };
}

/** Clips one after the other, with nothing between them but signs, or numbers of their places. */
function order(text: string, mentions: readonly Mention[]): Understood | null {
  if (mentions.length < 2) return null;
  const between = mentions.slice(1).map((m, i) => text.slice(mentions[i].to, m.from));
  const before = text.slice(0, mentions[0].from);
  const letters = mentions.map((m) => m.letter);
  const numbers = mentions.map((_, i) => placeIn(i === 0 ? before : between[i - 1]));
  if (numbers.every((n) => n !== null)) {
    if (new Set(letters).size < letters.length) return twice(letters);
    const byPlace = letters.map((letter, i) => ({ letter, place: numbers[i] ?? 0 })).sort((a, b) => a.place - b.place);
    if (!byPlace.every((p, i) => p.place === i + 1))
      return { ...NOTHING, problem: `The places are ${numbers.join(', ')}: one is missing or stands twice.` };
    return { ...NOTHING, order: byPlace.map((p) => p.letter) };
  }
  const isListed = between.every((b) => /^[\s>→,;/|&+.…=<()[\]-]*(?:\b(?:then|and|over|before)\b)?[\s>→,;/|&+.…=<()[\]-]*$/i.test(b)); // prettier-ignore
  if (!isListed) return null;
  if (new Set(letters).size < letters.length) return twice(letters);
  const [more, less, same] = ['>', '<', '='].map((sign) => between.filter((b) => b.includes(sign)).length);
  if (more > 0 && less > 0) return { ...NOTHING, problem: 'It goes up and down: > and < stand in one order.' };
  const doubts = more + less === 0 && between.some((b) => /\band\b|[&+/|]/i.test(b)) ? ['clips are named together: the first is taken as the best'] : []; // prettier-ignore
  if (same > 0) return { ...NOTHING, points: tied(letters, between, less > 0), doubts };
  return { ...NOTHING, order: less > 0 ? [...letters].reverse() : letters, doubts };
}

const twice = (letters: readonly string[]): Understood => ({
  ...NOTHING,
  problem: `${letters.find((l, i) => letters.indexOf(l) < i)} stands twice in the order.`,
});

/** The place that stands in front of a clip, such as "1." or "2nd:"; null where none does. */
function placeIn(text: string): number | null {
  const m = /(?:^|[\s,;(#])#?(\d{1,2})\s*(?:st|nd|rd|th)?\s*[.):=-]?\s*(?:place)?\s*[:=-]?\s*$/i.exec(text);
  return m ? Number(m[1]) : null;
}

/** An order in which some are alike, as points. */
function tied(letters: readonly string[], between: readonly string[], isRising: boolean): Record<string, number> {
  let step = 0;
  const steps = letters.map((letter, i) => {
    if (i > 0 && !between[i - 1].includes('=')) step++;
    return [letter, step] as const;
  });
  return Object.fromEntries(steps.map(([letter, s]) => [letter, isRising ? s : step - s]));
}

/** The best one alone. */
function best(text: string, mentions: readonly Mention[]): Understood | null {
  const named = [...new Set(mentions.map((m) => m.letter))];
  if (named.length !== 1) return null;
  const isAlone = text.slice(mentions[0].to).trim().replaceAll(/[.!]+/g, '') === '' && mentions[0].from === 0;
  const isFavoured = FAVOURING.test(text);
  const doubts = isFavoured || isAlone ? [] : ['one clip alone is named: it is taken as the best'];
  return { ...NOTHING, best: named[0], doubts };
}
