import { expect, it } from 'vitest';
import { sheetField } from '#core/gear/kinds';
import type { SheetField, SheetValue } from '#core/gear/sheet/sheet-field';
import type { UnitMeasurement } from '#contracts/measurement';
import type { SheetEntry } from '#contracts/sheet';
import { changedEntries, earlierEntries, fromSibling, sheetParts, sheetRow } from './sheet-rows';

const number = (value: number, unit: string, condition = ''): SheetValue => ({
  type: 'number',
  value,
  unit,
  condition,
});
const words = (...list: string[]): SheetValue => ({ type: 'words', words: list });
const entry = (field: string, value: SheetValue | null, reason = ''): SheetEntry => ({
  field,
  value,
  date: '2026-05-02',
  reason,
});
const figure = (quantity: 'einA' | 'sensitivity', value: number | null) =>
  ({ quantity, value, uncertainty: 0.3, bound: 'exact', condition: '', notMeasured: null, settings: {}, spread: null, anotherReading: null }) as UnitMeasurement; // prettier-ignore
const EIN = sheetField('interface', 'einA') as SheetField;

it('a field says what it comes to, how far it is from what was measured, and that nothing can be as good', () => {
  expect(sheetRow(EIN, number(-130, 'dBV', 'A-weighted, 150 Ω'), [figure('einA', -126.3)])).toMatchObject({
    text: '−130 dBV, A-weighted, 150 Ω',
    converted: '−127.8 dBu',
    beside: 'measured −126.3 dBu(A); difference +1.5 dBu(A)',
    impossible: '',
  });
  expect(sheetRow(EIN, number(-135, 'dBu', 'A-weighted'), []).impossible).toMatch(/^impossible: 150 Ω/);
  expect(sheetRow(EIN, number(-128, 'dBu', 'A-weighted, 200 Ω'), [figure('einA', -126)]).beside).toBe(
    'claimed with 200 Ω, measured with 150 Ω',
  );
  // Nothing measured, nothing beside it; nothing claimed, nothing said.
  expect(sheetRow(EIN, number(-128, 'dBu', 'A-weighted'), [figure('einA', null)]).beside).toBe('');
  expect(sheetRow(EIN, null, [figure('einA', -126)])).toMatchObject({
    text: '',
    converted: '',
    beside: '',
    impossible: '',
  });
  const loop = sheetField('interface', 'loopback') as SheetField;
  expect(sheetRow(loop, { type: 'yes-no', yes: false }, [])).toMatchObject({ text: 'no', beside: '' });
});

it('the sheet has every field of its kind, part by part, and none of another', () => {
  const parts = sheetParts('headphones', new Map([['impedance', number(32, 'Ω')]]), []);
  expect(parts.map((p) => p.group)).toEqual(['What it is', 'Electrical', 'Sound', 'Body', 'Box and maker']);
  expect(parts.flatMap((p) => p.rows).find((r) => r.field.id === 'impedance')?.text).toBe('32 Ω');
  expect(parts.flatMap((p) => p.rows).some((r) => r.field.id === 'einA')).toBe(false);
});

it('saves what a draft changes, and nothing else; what was emptied is taken back', () => {
  const stands = [entry('weight', number(300, 'g')), entry('weight', number(290, 'g')), entry('form', words('box'))];
  const draft = new Map<string, SheetValue | null>([
    ['weight', number(300, 'g')],
    ['form', null],
    ['lowCut', words('80 Hz')],
    ['length', null],
  ]);
  expect(changedEntries(draft, stands)).toEqual([
    { field: 'form', value: null },
    { field: 'lowCut', value: words('80 Hz') },
  ]);
});

it('copies from a sibling what is empty here, and overwrites nothing', () => {
  const own = [entry('weight', number(300, 'g'))];
  const theirs = [entry('weight', number(900, 'g')), entry('form', words('box')), entry('lowCut', null), entry('lowCut', words('80 Hz')), entry('channels', number(2, ''))]; // prettier-ignore
  const filled = fromSibling('booster', new Map([['channels', number(1, '')]]), own, theirs);
  expect([...filled]).toEqual([
    ['channels', number(1, '')],
    ['form', words('box')],
  ]);
});

it('what stood before is told with its name and its reason, and what was taken back', () => {
  const entries = [entry('einA', null, 'older model'), entry('einA', number(-128, 'dBu')), entry('phantom', { type: 'yes-no', yes: true })]; // prettier-ignore
  expect(earlierEntries('interface', entries).map((e) => [e.name, e.text, e.reason])).toEqual([
    ['EIN, A-weighted', 'taken back', 'older model'],
    ['EIN, A-weighted', '−128 dBu', ''],
  ]);
});
