import type { Character } from '#contracts/character';
import type { FrozenWords } from '#contracts/edition';
import { contradictions } from './character-words';

/**
 * Words that may be published: what listeners said in words of their own is theirs, and is quoted with their consent
 * alone. What contradicts it goes with it.
 */
export function publishedWords({
  heard,
  measured,
  maker,
}: Pick<Character, 'heard' | 'measured' | 'maker'>): FrozenWords {
  const listed = heard.filter((h) => !h.isFree);
  return {
    heard: listed.map(({ word, count }) => ({ word, count })),
    measured: [...measured],
    maker: [...maker],
    contradictions: contradictions({ heard: listed, measured, maker }),
  };
}
