import { describe, expect, it } from 'vitest';
import { matchEntries } from './palette';

describe('palette', () => {
  const entry = (label: string) => ({ label, hint: '', run: () => undefined });
  it('finds entries that hold every word, those that begin with it first', () => {
    const entries = ['New run', 'Quillstone Nib · A', 'Nib holder', 'Gear'].map(entry);
    expect(matchEntries(entries, 'nib').map((e) => e.label)).toEqual(['Nib holder', 'Quillstone Nib · A']);
    expect(matchEntries(entries, 'a nib quill').map((e) => e.label)).toEqual(['Quillstone Nib · A']);
    expect(matchEntries(entries, 'zither')).toEqual([]);
    expect(
      matchEntries(
        Array.from({ length: 50 }, (_, i) => entry(`u${i}`)),
        '',
      ),
    ).toHaveLength(12);
  });
});
