import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { spokenWords } from './spoken-words';

describe('words of what was said', () => {
  it.each([
    ['Very warm; not harsh', ['warm', 'not harsh']],
    ['a bit woolly, and far away', ['woolly', 'far away']],
    ['like a warm coat', ['like a warm coat']],
    ['Boomy and a little too muddy', ['boomy', 'muddy']],
    ['WARM, warm. Warm!', ['warm']],
    ['it sounds nasal', ['nasal']],
    ['“spits” on every s', ['spits', 'on every s']],
    ['honky - but quite natural', ['honky', 'natural']],
    ['lo-fi / gritty', ['lo-fi', 'gritty']],
    ['very', ['very']],
    ['  ,;  7 ', []],
    ['77, a, q, 3 dB', ['3 db']],
    ['', []],
    ['düster', ['düster']],
    ['rings at 1.5 kHz. Thin', ['rings at 1.5 khz', 'thin']],
    ['one hears the room breathe whenever he turns his head away from it', []],
  ])('%s', (text, words) => {
    expect(spokenWords(text)).toEqual(words);
  });

  it('said twice they are the same, and what they give is words of themselves', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 200 }), (text) => {
        const words = spokenWords(text);
        expect(spokenWords(`${text}, ${text}`)).toEqual(words);
        for (const word of words) expect(spokenWords(word)).toEqual([word]);
      }),
    );
  });
});
