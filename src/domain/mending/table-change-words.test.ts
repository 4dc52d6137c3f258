import { describe, expect, it } from 'vitest';
import { tableChangeWords } from './table-change-words';

const cell = (row: string, value: number, source: 'typed' | 'measured' = 'typed') => ({
  ...{ row, column: '64', value, source },
  clip: null,
});
const words = (before: ReturnType<typeof cell>[], after: ReturnType<typeof cell>[]): string | null =>
  tableChangeWords('Table “Latency” of 2026-05-02', { unit: 'ms' }, before, after);

describe('the words of a changed table', () => {
  it('name a few cells, with what stood there and what stands there', () => {
    expect(words([cell('48 kHz', 7), cell('96 kHz', 4)], [cell('96 kHz', 4.5), cell('192 kHz', -1)])).toBe(
      'Table “Latency” of 2026-05-02: 48 kHz / 64 7 ms → not noted, 96 kHz / 64 4 ms → 4.5 ms, 192 kHz / 64 not noted → −1 ms',
    );
  });

  it('count many', () => {
    const many = Array.from({ length: 7 }, (_, i) => cell(`${i}`, i));
    expect(words([], many)).toBe('Table “Latency” of 2026-05-02: filled in, 7 cells');
    expect(words(many, many.map((c) => ({ ...c, value: c.value + 1 })))).toBe('Table “Latency” of 2026-05-02: 7 cells changed'); // prettier-ignore
    const oneOfMany = [...many.slice(0, 6), cell('6', 60)];
    expect(words(many, oneOfMany)).toBe('Table “Latency” of 2026-05-02: 6 / 64 6 ms → 60 ms');
    expect(words([], many.slice(1))).toContain('6 / 64 not noted → 6 ms');
  });

  it('are none where nothing differs; the same number from another source is another', () => {
    expect(words([cell('a', 1)], [cell('a', 1)])).toBeNull();
    expect(words([cell('a', 1, 'measured')], [cell('a', 1)])).toContain('1 ms (of a recording) → 1 ms');
  });
});
