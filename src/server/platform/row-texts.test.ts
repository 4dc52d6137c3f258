import { describe, expect, it } from 'vitest';
import { RowTexts } from './row-texts';

const text = (texts: RowTexts, rows: readonly object[]) => texts.of(rows).body.toString();

describe('JSON of long lists', () => {
  it('is that of the whole list', () => {
    const rows = [{ a: 1, b: ['“x”', null] }, {}, { c: undefined, d: 0.1 + 0.2 }];
    const texts = new RowTexts();
    expect(text(texts, [])).toBe('[]');
    expect(text(texts, rows)).toBe(JSON.stringify(rows));
    const others = [rows[2], { new: true }, rows[0]];
    expect(text(texts, others)).toBe(JSON.stringify(others));
  });

  it('writes a row once', () => {
    let written = 0;
    const row = { toJSON: () => ++written };
    const texts = new RowTexts();
    expect([text(texts, [row]), text(texts, [row, row])]).toEqual(['[1]', '[1,1]']);
  });

  it('tags a list: the same list keeps its tag, any other one and any other process has another', () => {
    const [texts, after] = [new RowTexts(), new RowTexts()];
    const rows = [{ a: 1 }];
    const first = texts.of(rows);
    expect(texts.of(rows)).toBe(first);
    const tags = [first.tag, texts.of([...rows]).tag, texts.of(rows).tag, after.of(rows).tag];
    expect(new Set(tags).size).toBe(4);
    for (const tag of tags) expect(tag).toMatch(/^W\/"[!-~]+"$/);
  });
});
