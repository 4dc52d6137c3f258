import { expect, it } from 'vitest';
import type { ArchiveState } from '#contracts/archive';
import { bytesWords } from '../../ui/format';
import { besideWords, checkedWords, isLittleSpace, notedWords } from './archive-words';

const state = (change: Partial<ArchiveState>): ArchiveState => ({
  folder: '/archive',
  freeBytes: 5e9,
  clips: 3,
  bytes: 1e6,
  checked: 3,
  oldestCheck: '2026-05-02T10:00:00.000Z',
  ...{ files: 0, filesChecked: 0 },
  isChecking: false,
  setAside: [],
  ...change,
});
const damaged = { kind: 'clip', name: 'a.wav', problem: 'Its bytes have changed.', next: 'Upload it.' } as const;

it('says of the clips what was read, and no more', () => {
  expect(checkedWords(state({ clips: 0, checked: 0 }))).toBe('There are no clips yet.');
  expect(checkedWords(state({}))).toBe(
    'All 3 clips were read and held against their names, the oldest reading on 2026-05-02; nothing was wrong with them.',
  );
  expect(checkedWords(state({ checked: 1 }))).toMatch(/^1 of 3 clips were read .*; nothing was wrong with them\.$/);
  expect(checkedWords(state({ checked: 0, oldestCheck: null }))).toMatch(
    /^No clip has been read again yet; that goes on/,
  );
  expect(checkedWords(state({ setAside: [damaged] }))).toMatch(/; 1 of all clips cannot be used as they are\.$/);
  expect(checkedWords(state({ checked: 0, oldestCheck: null, setAside: [damaged] }))).toMatch(/1 of all clips cannot/);
  expect(checkedWords(state({ setAside: [{ ...damaged, kind: 'file' }] }))).toMatch(/nothing was wrong with them/);
});

it('names sizes and warns of little space', () => {
  expect([12_345, 1.25e6, 3.49e9].map(bytesWords)).toEqual(['12 kB', '1.3 MB', '3.5 GB']);
  expect([1.9e9, 2e9].map((freeBytes) => isLittleSpace(state({ freeBytes })))).toEqual([true, false]);
});

it('says what was noted from a device, and when the last of it', () => {
  const device = (noted: { what: string; count: number; last: string }[]) => ({
    ...{ id: '1', device: 'tablet', address: '192.168.1.20', since: '2026-05-01T08:00:00.000Z', isLetIn: true },
    noted,
  });
  expect(notedWords(device([]))).toBe('nothing');
  const at = (day: string) => `2026-05-${day}T12:00:00.000Z`;
  expect(notedWords(device([{ what: 'price', count: 1, last: at('03') }, { what: 'entry of a sheet', count: 2, last: at('07') }, { what: 'points', count: 4, last: at('05') }]))).toBe('1 price, 2 entries of sheets, 4 points; the last on 2026-05-07'); // prettier-ignore
  expect(notedWords(device([{ what: 'run', count: 3, last: at('02') }]))).toBe('3 runs; the last on 2026-05-02');
});

it('says of what lies beside the clips no more than was read', () => {
  const beside = (change: Partial<ArchiveState>): string =>
    besideWords(state({ files: 3, filesChecked: 3, ...change }));
  expect(beside({ files: 0, filesChecked: 0 })).toBe('');
  expect(beside({})).toBe('3 of 3 photographs and originals of decoded clips were read as well; nothing was wrong with them.'); // prettier-ignore
  expect(beside({ files: 1, filesChecked: 0 })).toBe('1 photograph or original: not read again yet.');
  const bad = (kind: 'photograph' | 'original' | 'clip') => ({ kind, name: 'x', problem: '', next: '' });
  expect(beside({ setAside: [bad('photograph'), bad('original'), bad('clip')] })).toMatch(/; 2 of them cannot be used/);
  expect(beside({ filesChecked: 0, setAside: [bad('original')] })).toMatch(/not read again yet; 1 of them cannot/);
});
