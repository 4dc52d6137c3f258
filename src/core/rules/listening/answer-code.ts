import { CROCKFORD } from './crockford';

/** What a listener of a blind pack says; clips by their letters. */
export interface PackAnswer {
  /** Best first; empty where nothing was put in order. */
  readonly order: readonly string[];
  /** Points from 0 to 10, in tenths. */
  readonly points: Readonly<Record<string, number>>;
  /** Which name of the list each clip is thought to be, counted from 1. */
  readonly names: Readonly<Record<string, number>>;
}

export const NO_ANSWER: PackAnswer = { order: [], points: {}, names: {} };

/** What was read from a code, or why it is none. */
export type ReadCode =
  | { readonly kind: 'answer'; readonly pack: string; readonly answer: PackAnswer }
  | { readonly kind: 'damaged'; readonly why: string };

/** Two signs over everything before them: a letter that was lost or changed is found in all but 1 of 1,024 cases. */
function checkOf(text: string): string {
  // FNV-1a, folded to ten bits.
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193) >>> 0;
  const folded = (hash ^ (hash >>> 10) ^ (hash >>> 20) ^ (hash >>> 30)) & 0x3ff;
  return CROCKFORD[folded >> 5] + CROCKFORD[folded & 31];
}

const byLetter = (values: Readonly<Record<string, number>>): string =>
  Object.keys(values)
    .sort()
    .map((letter) => `${letter}${values[letter]}`)
    .join('');

/**
 * An answer as a word that can be pasted anywhere: letters, digits, dots and strokes alone, which no comment field takes
 * for something else.
 *
 * @param pack - the first six signs of the key's hash
 * @param answer - what is said
 *
 * @example
 *   answerCode('7F3A2C', { order: ['B', 'A'], points: {}, names: {} }); // => 'SD1-7F3A2C-OBA-TZ'
 */
export function answerCode(pack: string, answer: PackAnswer): string {
  const parts = ['SD1', pack.toUpperCase()];
  if (answer.order.length > 0) parts.push(`O${answer.order.join('')}`);
  const points = byLetter(answer.points);
  if (points !== '') parts.push(`P${points}`);
  const names = byLetter(answer.names);
  if (names !== '') parts.push(`N${names}`);
  const body = parts.join('-');
  return `${body}-${checkOf(body)}`;
}

const CODE = /\bSD1-[0-9A-F]{6}(?:-[A-Z0-9.]+)*/gi;

/** Every answer code in a text, in its order. */
export const answerCodesIn = (text: string): string[] => text.match(CODE) ?? [];

/**
 * Reads an answer code; large and small letters are alike.
 *
 * @param code - as it was pasted
 */
export function readAnswerCode(code: string): ReadCode {
  const damaged = (why: string): ReadCode => ({ kind: 'damaged', why });
  const parts = code.toUpperCase().replace(/\.+$/, '').split('-');
  const check = parts.pop() ?? '';
  if (checkOf(parts.join('-')) !== check)
    return damaged('its last two signs do not fit: something in it was lost or changed');
  const [, pack, ...said] = parts;
  let answer = NO_ANSWER;
  for (const part of said) {
    const [what, rest] = [part[0], part.slice(1)];
    if (what === 'O' && /^[A-L]+$/.test(rest) && new Set(rest).size === rest.length)
      answer = { ...answer, order: Array.from(rest) };
    else if (what === 'P' && /^(?:[A-L]\d{1,2}(?:\.\d)?)+$/.test(rest)) answer = { ...answer, points: numbersIn(rest) };
    else if (what === 'N' && /^(?:[A-L]\d{1,2})+$/.test(rest)) answer = { ...answer, names: numbersIn(rest) };
    else return damaged(`its part ${part} says nothing that is known`);
  }
  return { kind: 'answer', pack, answer };
}

const numbersIn = (text: string): Record<string, number> =>
  Object.fromEntries([...text.matchAll(/([A-L])(\d{1,2}(?:\.\d)?)/g)].map(([, letter, n]) => [letter, Number(n)]));
