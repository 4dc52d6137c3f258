import { expect, it } from 'vitest';
import { useWords } from './use-words';

const use = (change: Partial<Parameters<typeof useWords>[0]> = {}) => ({ use: 'Desk', how: 'met' as const, asked: [], tested: 5, meeting: 3, unknown: 0, better: 1, bestNames: [], ...change }); // prettier-ignore

it('says how a unit stands for a use by what was counted', () => {
  expect(useWords(use())).toBe('For it. 1 unit of 5 others tested is better for it.');
  expect(useWords(use({ better: 0 }))).toBe('For it. None of 5 others tested is better for it.');
  expect(useWords(use({ better: 2, unknown: 1 }))).toBe('For it. 2 units of 5 others tested are better for it; of 1 not all is known.'); // prettier-ignore
  expect(useWords(use({ how: 'missed', better: 3 }))).toBe('Not for it. 3 units of 5 others tested do it.');
  expect(useWords(use({ how: 'missed', meeting: 1, tested: 1 }))).toBe('Not for it. 1 unit of 1 other tested does it.');
  expect(useWords(use({ how: 'missed', meeting: 0, unknown: 1 }))).toBe('Not for it. None of 5 others tested does it; of 1 not all is known.'); // prettier-ignore
  expect(useWords(use({ how: 'open', better: null }))).toBe(
    'Not known. 3 units of 5 others tested meet what is asked.',
  );
  expect(useWords(use({ tested: 0, meeting: 0 }))).toBe('For it. No other of its kind is tested.');
});
