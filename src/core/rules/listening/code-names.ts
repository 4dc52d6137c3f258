/**
 * Names under which clips of a blind pack go out. Each begins with another letter, in the order of the alphabet, so that
 * a listener may write the name or its letter; which clip gets which is drawn.
 */
export const CODE_NAMES = ['Alder', 'Birch', 'Cedar', 'Dogwood', 'Elm', 'Fern', 'Gorse', 'Hazel', 'Ivy', 'Jasmine', 'Kelp', 'Larch'] as const; // prettier-ignore

/** Letter of a clip by its place among the code names. */
export const codeLetter = (place: number): string => String.fromCharCode(65 + place);

/** Place of a letter among the code names; -1 for what is none. */
export const placeOfLetter = (letter: string): number => (/^[A-L]$/.test(letter) ? letter.charCodeAt(0) - 65 : -1);
