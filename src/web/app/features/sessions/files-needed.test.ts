import { expect, it } from 'vitest';
import { neededOfFiles } from './files-needed';

const file = (name: string, step: string | null, gainDb: number | null = 36, taken: unknown = null) => ({ name, step, gainDb, dial: '', taken }); // prettier-ignore
const needed = (...files: ReturnType<typeof file>[]) => neededOfFiles(files, (step) => step.toUpperCase());

it('asks for nothing where every file that is used has its step and its gain, whatever steps have no file', () => {
  expect(needed(file('a.wav', 'speech'), file('b.wav', null, null))).toEqual([]);
});

it('names what is missing, and only that', () => {
  expect(needed(file('a.wav', null))).toEqual(['a step for at least one file']);
  expect(needed(file('a.wav', 'speech', null), file('b.wav', 'rear', null))).toEqual(['the gain of every take']);
  expect(needed(file('a.wav', 'speech', null), file('b.wav', 'rear'))).toEqual(['the gain of a.wav']);
  expect(needed({ ...file('a.wav', 'speech', null), dial: 'auto' })).toEqual([]);
  expect(needed(file('a.wav', 'rear'), file('b.wav', 'rear', null))).toEqual([
    'one file only for "REAR"',
    'the gain of b.wav',
  ]);
});

it('lets another attempt stand beside what was taken over', () => {
  expect(needed(file('a.wav', 'rear', 36, {}), file('b.wav', 'rear'))).toEqual([]);
  expect(needed(file('a.wav', 'rear', 36, {}))).toEqual(['a step for at least one file']);
});
