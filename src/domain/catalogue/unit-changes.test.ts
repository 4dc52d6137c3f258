import { expect, it } from 'vitest';
import { UnitChanges } from './unit-changes';

const changes = (...noted: Parameters<UnitChanges['note']>[]) => {
  const made = new UnitChanges();
  for (const [unit, only] of noted) made.note(unit, only);
  return made;
};
const all = () => true;

it('of a unit whose facts are named only those are read', () => {
  const some = changes(['1', 'prices'], ['1', 'points'], ['2', 'sheet']);
  expect(some.isEmpty).toBe(false);
  expect(some.whole(all)).toEqual([]);
  expect([some.of('prices', all), some.of('points', all), some.of('sheet', all)]).toEqual([['1'], ['1'], ['2']]);
});

it('whatever may have changed makes all of it to be read, whether it came before or after', () => {
  const some = changes(['1', 'prices'], ['1', null], ['2', null], ['2', 'points'], ['3', 'points']);
  expect(some.whole(all)).toEqual(['1', '2']);
  expect([some.of('prices', all), some.of('points', all)]).toEqual([[], ['3']]);
});

it('a unit that nobody has read yet is read whole, once', () => {
  const some = changes(['1', 'prices'], ['2', 'prices']);
  const isKnown = (unit: string) => unit === '2';
  expect(some.whole(isKnown)).toEqual(['1']);
  expect(some.of('prices', isKnown)).toEqual(['2']);
});

it('nothing noted is nothing to read', () => {
  expect(changes().isEmpty).toBe(true);
});
