import { expect, it } from 'vitest';
import { sameQuery } from './kept-lists';

it('knows an address again, whatever the order of its parts', () => {
  expect(sameQuery({ kind: 'microphone', upTo: '50' }, { upTo: '50', kind: 'microphone' })).toBe(true);
  expect(sameQuery({ kind: 'microphone' }, { kind: 'microphone', upTo: '50' })).toBe(false);
  expect(sameQuery({}, {})).toBe(true);
});
