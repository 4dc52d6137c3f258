import { numberText, readNumber } from '../text/read-number';
import type { Reading } from '../text/reading';

/**
 * How far the input of a take was turned up. Many devices have a dial without numbers, a scale of their own, or turn by
 * themselves: what was set is kept as it is, and figures that need decibels say why they are missing.
 */
export type TakeGain =
  | { readonly kind: 'dB'; readonly db: number }
  /** A place of a dial as it is read there: "7", "50 %", "three o’clock". */
  | { readonly kind: 'dial'; readonly position: string }
  | { readonly kind: 'automatic' }
  | { readonly kind: 'unknown' };

/** Gains that a chain can have, dB: from a pad to everything in a row. */
export const GAIN_DB = { least: -40, most: 120 } as const;
/** Longest name of a place of a dial. */
const LONGEST_POSITION = 40;
const AUTOMATIC = 'automatic';
const UNKNOWN = 'unknown';
const AUTOMATIC_WORDS: readonly string[] = [AUTOMATIC, 'auto', 'agc', 'automatic gain'];
const UNKNOWN_WORDS: readonly string[] = [UNKNOWN, '?', 'not known', 'not noted'];

/** Two names of one place of a dial: capitals and spaces do not matter. */
const asPlace = (text: string): string => text.trim().toLowerCase().replace(/\s+/g, ' ').replace(/ %$/, '%');

/**
 * The gain of a take, as it is kept: a number of decibels, or what stands at the dial.
 *
 * @param gainDb - null where no decibels are known
 * @param dial - place of the dial, "automatic" or "unknown"; it may also stand beside decibels
 */
export function takeGain(gainDb: number | null, dial: string | null | undefined): TakeGain {
  if (gainDb !== null) return { kind: 'dB', db: gainDb };
  const place = asPlace(dial ?? '');
  if (AUTOMATIC_WORDS.includes(place)) return { kind: 'automatic' };
  if (place === '' || UNKNOWN_WORDS.includes(place)) return { kind: 'unknown' };
  return { kind: 'dial', position: (dial ?? '').trim() };
}

/** A gain as it is noted with a take, in two places: decibels, and what stands at the dial. */
export interface NotedGain {
  readonly gainDb: number | null;
  /** '' where nothing is noted. */
  readonly dial: string;
}

/** The gain that is noted; null where nothing is, which is another thing than a gain that is noted as unknown. */
export const notedGain = ({ gainDb, dial }: NotedGain): TakeGain | null =>
  gainDb === null && dial.trim() === '' ? null : takeGain(gainDb, dial);

/** A gain as it is noted: a dial beside decibels stays, one that stood in their place goes with what it said. */
export function asNoted(gain: TakeGain | null, before: NotedGain): NotedGain {
  if (gain === null) return { gainDb: null, dial: '' };
  if (gain.kind === 'dB') return { gainDb: gain.db, dial: before.gainDb === null ? '' : before.dial };
  return { gainDb: null, dial: keptGain(gain).dial ?? '' };
}

/** What is kept of a gain: decibels, or the word or place that stands where they would. */
export function keptGain(gain: TakeGain): { readonly gainDb: number | null; readonly dial: string | null } {
  if (gain.kind === 'dB') return { gainDb: gain.db, dial: null };
  if (gain.kind === 'dial') return { gainDb: null, dial: gain.position };
  return { gainDb: null, dial: gain.kind === 'automatic' ? AUTOMATIC : UNKNOWN };
}

/**
 * A gain as somebody types it: "20", "20 dB", "−6,5", "50 %", "dial 7", "auto", "unknown".
 *
 * A bare number is decibels; a place of a dial is said to be one, or looks like nothing else ("7 of 10", "max").
 *
 * @returns the gain, null where nothing was typed, or why it is not understood
 * @example
 *   readTakeGain('dial 7'); // => { isUnderstood: true, value: { kind: 'dial', position: '7' } }
 */
export function readTakeGain(text: string): Reading<TakeGain> {
  const typed = text.trim();
  if (typed === '') return { isUnderstood: true, value: null };
  const place = asPlace(typed);
  if (AUTOMATIC_WORDS.includes(place)) return understood({ kind: 'automatic' });
  if (UNKNOWN_WORDS.includes(place)) return understood({ kind: 'unknown' });
  if (LOOKS_LIKE_DECIBELS.test(typed)) {
    const read = readNumber(typed, DECIBELS);
    if (!read.isUnderstood) return read;
    return { isUnderstood: true, value: read.value === null ? null : { kind: 'dB', db: read.value } };
  }
  const said = /^(?:dial|position)\b\s*:?\s*(.*)$/i.exec(typed);
  const position = said ? said[1] : typed;
  if (position === '') return refused('Which place of the dial? As in “dial 7” or “50 %”');
  if (!said && !LOOKS_LIKE_A_PLACE.test(typed))
    return refused(`“${typed}” is no gain: decibels (20), a place of the dial (“dial 7”, “50 %”), “auto” or “unknown”`);
  if (position.length > LONGEST_POSITION)
    return refused(`The name of a place of the dial has at most ${LONGEST_POSITION} characters`);
  const share = /^(.+?)\s*%$/.exec(position);
  if (share) {
    const percent = readNumber(share[1], { unit: '', least: 0, most: 100 });
    if (!percent.isUnderstood) return refused('A dial goes from 0 % to 100 %');
  }
  return understood({ kind: 'dial', position });
}

/** A number alone, or one with a word behind it, which has to be decibels. */
const LOOKS_LIKE_DECIBELS = /^[+\-−–]?[\s\d.,'’]*\d[\s.]*[a-zµΩ]*$/i;
/** Places that are none of decibels by themselves: a share, "7 of 10", "3 o’clock", and the ends. Others are told as "dial …". */
const LOOKS_LIKE_A_PLACE =
  /^(?:[-−–]?[\d.,]+\s*%|[\d.,]+\s*(?:\/|of)\s*[\d.,]+|\d+(?:[.:]\d+)?\s*o['’]\s?clock|noon|half|full|max|maximum|min|minimum|least|most)$/i;
const DECIBELS = { unit: 'dB', least: GAIN_DB.least, most: GAIN_DB.most } as const;

const understood = (value: TakeGain): Reading<TakeGain> => ({ isUnderstood: true, value });
const refused = (reason: string): Reading<TakeGain> => ({ isUnderstood: false, why: reason });

/** A gain as a field shows it, in words that are read as the same again. */
export function typedGain(gain: TakeGain): string {
  if (gain.kind === 'dB') return numberText(gain.db, DECIBELS);
  if (gain.kind !== 'dial') return gain.kind === 'automatic' ? AUTOMATIC : UNKNOWN;
  const again = readTakeGain(gain.position);
  const isSame = again.isUnderstood && again.value?.kind === 'dial' && again.value.position === gain.position;
  return isSame ? gain.position : `dial ${gain.position}`;
}

/** A gain in words. */
export function gainWords(gain: TakeGain): string {
  switch (gain.kind) {
    case 'dB':
      return `${gain.db.toFixed(1).replace(/\.0$/, '').replace('-', '−')} dB of gain`;
    case 'dial':
      return `dial at ${gain.position}`;
    case 'automatic':
      return 'automatic gain';
    case 'unknown':
      return 'gain not known';
  }
}

/**
 * Gains of several takes as numbers of which only the differences count: decibels where all of them have some, zero
 * where all of them stand at one place of the dial.
 *
 * @param gains - at least one
 * @returns one number per take, or why their levels cannot be held against each other
 */
export function atOneGain(gains: readonly TakeGain[]): readonly number[] | { readonly refused: string } {
  const decibels = gains.flatMap((g) => (g.kind === 'dB' ? [g.db] : []));
  if (decibels.length === gains.length) return decibels;
  if (gains.some((g) => g.kind === 'automatic'))
    return { refused: 'The gain of a take was automatic: levels of two takes say nothing then.' };
  if (gains.some((g) => g.kind === 'unknown'))
    return { refused: 'The gain of a take is not known: levels of two takes say nothing then.' };
  const places = new Set(gains.map((g) => (g.kind === 'dial' ? asPlace(g.position) : '')));
  if (decibels.length === 0 && places.size === 1) return gains.map(() => 0);
  return {
    refused: `Noted are ${[...new Set(gains.map(gainWords))].join(' and ')}: how far these lie apart is not known.`,
  };
}
