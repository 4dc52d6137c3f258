/** Longer ones are sentences: they are kept as they were said, and make no word. */
const MOST_LETTERS = 40;
/** What divides one thing that was said from the next. */
const BETWEEN = /[,;:/!?()|\n"“”„«»]+|\.(?!\d)|\s+(?:and|but|with)\s+|\s+[–—-]+\s+/;
/** What says how much, or says nothing; the word stays the same without it. "Not" is none of them. */
const BEFORE =
  /^(?:a bit|a little|a touch|a tad|kind of|sort of|it is|it's|it sounds|sounds|is|was|very|quite|rather|slightly|somewhat|too|really|so|more|most|a|an|the|and|but|bit)\s+/;

/**
 * Words of what somebody said in their own words: "a bit woolly, and far away" is "woolly" and "far away". English
 * only. What divides words, and what says how much, is common practice, no source.
 *
 * @param text - as it was noted
 * @returns in lower case, each once, in the order in which they were said
 *
 * @example
 *   spokenWords('Very warm; not harsh'); // => ['warm', 'not harsh']
 */
export function spokenWords(text: string): string[] {
  const words = text.toLowerCase().split(BETWEEN).map(bare);
  return [...new Set(words.filter((w) => w.length > 1 && w.length <= MOST_LETTERS && /\p{L}/u.test(w)))];
}

function bare(part: string): string {
  let word = part
    .replaceAll(/\s+/g, ' ')
    .replaceAll(/^['’\s-]+|['’\s-]+$/g, '')
    .trim();
  for (let before = ''; before !== word;) {
    before = word;
    word = word.replace(BEFORE, '');
  }
  return word;
}
