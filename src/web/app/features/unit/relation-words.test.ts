import { describe, expect, it } from 'vitest';
import { RELATION_KINDS } from '#contracts/relation';
import { RELATION_CHOICES, relationWords, usesWords } from './relation-words';

describe('a relation in words', () => {
  it('reads from both sides', () => {
    expect(relationWords({ kind: 'needs', isOwn: true })).toBe('needs');
    expect(relationWords({ kind: 'needs', isOwn: false })).toBe('is needed by');
    expect(relationWords({ kind: 'replaces', isOwn: false })).toBe('is replaced by');
    expect(relationWords({ kind: 'same-capsule', isOwn: false })).toBe(relationWords({ kind: 'same-capsule', isOwn: true })); // prettier-ignore
  });
  it('of every kind can be chosen', () => {
    expect(RELATION_CHOICES.map((c) => c.value).sort()).toEqual([...RELATION_KINDS].sort());
  });
  it('says what a part is for, and nothing of the others', () => {
    expect(usesWords({ kind: 'needs', uses: [] })).toBe('for every use');
    expect(usesWords({ kind: 'needs', uses: ['Desk', 'Street'] })).toBe('for: Desk, Street');
    expect(usesWords({ kind: 'replaces', uses: [] })).toBe('');
  });
});
