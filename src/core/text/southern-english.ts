/** Words that are said without stress in running speech: their vowel is the one of "the" (weak forms, Gimson). */
const WEAK_FORMS: Readonly<Record<string, string>> = {
  a: 'AH0',
  an: 'AH0 N',
  and: 'AH0 N D',
  as: 'AH0 Z',
  at: 'AH0 T',
  but: 'B AH0 T',
  can: 'K AH0 N',
  for: 'F ER0',
  from: 'F R AH0 M',
  had: 'HH AH0 D',
  has: 'HH AH0 Z',
  have: 'HH AH0 V',
  her: 'HH ER0',
  of: 'AH0 V',
  or: 'AO1 R',
  some: 'S AH0 M',
  than: 'DH AH0 N',
  that: 'DH AE1 T',
  the: 'DH AH0',
  them: 'DH AH0 M',
  to: 'T AH0',
  was: 'W AH0 Z',
  were: 'W ER0',
  would: 'W AH0 D',
};

/** Vowels that an r after them, not before a vowel, turns into one sound of their own. */
const WITH_R: Readonly<Record<string, string>> = { IH: 'IHR', IY: 'IHR', EH: 'EHR', AE: 'EHR', UH: 'UHR', UW: 'UHR' };

/**
 * Turns a General American pronunciation into the sounds of the frequency table, which are those of Southern English:
 * an r is kept before a vowel only, unstressed AH and ER are the sound of "the".
 *
 * @param arpabet - sounds of one word, e.g. "F EH1 R IY0"
 * @returns names of the table
 */
export function southernSounds(arpabet: string): string[] {
  const sounds = arpabet.split(' ');
  const found: string[] = [];
  for (let i = 0; i < sounds.length; i++) {
    const stress = /[012]$/.exec(sounds[i])?.[0] ?? null;
    const sound = sounds[i].replace(/[012]$/, '');
    const isVowelNext = /[012]$/.test(sounds[i + 1] ?? '');
    if (sound === 'R' && !isVowelNext) continue;
    if (sound === 'ER') {
      found.push(stress === '0' ? 'ə' : 'ER');
      if (isVowelNext) found.push('R');
    } else if (sound === 'AH' && stress === '0') found.push('ə');
    // The last vowel of "happy" was counted with that of "it".
    else if (sound === 'IY' && stress === '0') found.push('IH');
    else if (sounds[i + 1] === 'R' && !/[012]$/.test(sounds[i + 2] ?? '')) found.push(WITH_R[sound] ?? sound);
    else found.push(sound);
  }
  return found;
}

/** Pronunciation of a word in running speech, or null where the dictionary does not have it. */
export function spoken(word: string, lookUp: (word: string) => string | null): string | null {
  return Object.hasOwn(WEAK_FORMS, word) ? WEAK_FORMS[word] : lookUp(word);
}
