import { expect, it } from 'vitest';
import type { CompareCandidate } from '#contracts/compare';
import { stepGrid } from './step-grid';

const take = (takeId: string, unit: string, words: string, isProcessed = false): CompareCandidate => ({ takeId, specimenId: unit, unit, words, isProcessed }) as CompareCandidate; // prettier-ignore

it('has a row for each unit and a column for each condition, the newest take in each cell', () => {
  const grid = stepGrid([
    take('9', 'Winch', 'voice Bo'),
    take('8', 'Purser', 'voice Ada'),
    take('7', 'Purser', 'voice Bo'),
    take('6', 'Purser', 'voice Ada'),
    take('5', 'Purser', 'voice Ada, processed: low-cut', true),
  ]);
  expect(grid?.columns).toEqual(['voice Ada', 'voice Bo']);
  expect(grid?.units.map((u) => [u.unit, u.takes])).toEqual([
    ['Purser', ['8', '7']],
    ['Winch', [null, '9']],
  ]);
});

it('is none where there is one condition, or none', () => {
  expect(stepGrid([])).toBeNull();
  expect(stepGrid([take('1', 'a', ''), take('2', 'b', '')])).toBeNull();
});
