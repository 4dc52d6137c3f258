import { describe, expect, it } from 'vitest';
import { RowTexts } from './row-texts';

describe('JSON of long lists', () => {
  it('is that of the whole list', () => {
    const rows = [{ a: 1, b: ['“x”', null] }, {}, { c: undefined, d: 0.1 + 0.2 }];
    const texts = new RowTexts();
    expect(texts.of([])).toBe('[]');
    expect(texts.of(rows)).toBe(JSON.stringify(rows));
    expect(texts.of([rows[2], { new: true }, rows[0]])).toBe(JSON.stringify([rows[2], { new: true }, rows[0]]));
  });

  it('writes a row once', () => {
    let written = 0;
    const row = { toJSON: () => ++written };
    const texts = new RowTexts();
    expect([texts.of([row]), texts.of([row, row])]).toEqual(['[1]', '[1,1]']);
  });
});
