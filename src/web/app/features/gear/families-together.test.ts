import { expect, it } from 'vitest';
import { row } from '../../testing/rows';
import { belowTheirUnit, sortFamilies } from './families-together';

const unit = (id: string, change: object = {}) => ({ ...row({ id, ...change }), name: `unit ${id}` });
const of = (main: string, configuration: string) => ({
  family: {
    main,
    configuration,
    varies: configuration === '' ? null : ('pattern' as const),
    counts: configuration === '',
  },
});
const PURSER = unit('3', { composite: 2, ...of('3', '') });
const EIGHT = unit('4', { composite: 5, ...of('3', 'figure of eight') });
const OMNI = unit('5', { composite: 1, ...of('3', 'omni') });
const BOSUN = unit('1', { composite: 3, price: null });
const COX = unit('2', { composite: null });
const sorted = (field: string, order: number, rows = [OMNI, BOSUN, EIGHT, COX, PURSER]): string[] => {
  const list = [...rows];
  sortFamilies(list, field, order);
  return list.map((r) => r.id);
};

it('configurations stand below their unit, which is sorted by its own value', () => {
  // By points: 3, 2 with its configurations of 5 and 1, and the one that has none.
  expect(sorted('composite', -1)).toEqual(['1', '3', '4', '5', '2']);
  expect(sorted('composite', 1)).toEqual(['2', '3', '4', '5', '1']);
  expect(sorted('name', 1)).toEqual(['1', '2', '3', '4', '5']);
  // The order of configurations is the same either way.
  expect(sorted('name', -1)).toEqual(['3', '4', '5', '2', '1']);
});

it('one whose unit is not listed is sorted by itself', () => {
  expect(sorted('composite', -1, [OMNI, BOSUN, EIGHT])).toEqual(['4', '1', '5']);
  expect([...belowTheirUnit([OMNI, BOSUN, EIGHT])]).toEqual([]);
  expect([...belowTheirUnit([OMNI, PURSER, BOSUN])]).toEqual(['5']);
});

it('sorts by a field of a part; nothing comes first when rising, and last when falling', () => {
  const [dear, cheap] = [unit('1', { price: { amount: 900 } }), unit('2', { price: { amount: 40 } })];
  const free = unit('3', { price: null });
  expect(sorted('price.amount', 1, [dear, free, cheap])).toEqual(['3', '2', '1']);
  expect(sorted('price.amount', -1, [dear, free, cheap])).toEqual(['1', '2', '3']);
});

it('units of one value stand by their names', () => {
  const alike = [unit('9', { place: 4 }), unit('7', { place: 4 }), unit('8', { place: 4 })];
  expect(sorted('place', -1, alike)).toEqual(['7', '8', '9']);
});
