import { describe, expect, it } from 'vitest';
import type { SheetField } from '#core/gear/sheet/sheet-field';
import { fieldId, kindId, newKind, withColumn, withType } from './kind-draft';

describe('names for files', () => {
  it('of kinds are words with hyphens, and free', () => {
    expect(kindId('Portable recorder', [])).toBe('portable-recorder');
    expect(kindId('Portable recorder', ['portable-recorder'])).toBe('portable-recorder2');
    expect(kindId('Éclair 2', [])).toBe('eclair-2');
    expect(kindId('3 × 4', [])).toBe('kind');
  });
  it('of fields begin with a small letter, and are free', () => {
    expect(fieldId('Mute button', [])).toBe('muteButton');
    expect(fieldId('Mute button', ['muteButton', 'muteButton2'])).toBe('muteButton3');
    expect(fieldId('…', [])).toBe('field');
  });
});

describe('a kind that is begun', () => {
  it('has a hatch that no other has', () => {
    const first = newKind('Recorder', 'interface', []);
    const second = newKind('Recorder', 'interface', [first]);
    expect(second.id).toBe('recorder2');
    expect(second.hatch).not.toBe(first.hatch);
  });
});

describe('a field of another type', () => {
  const choice: SheetField = { id: 'a', name: 'A', group: 'Body', type: 'choice', options: ['x'], isClass: true };
  it('keeps what fits, and nothing that does not', () => {
    expect(withType(choice, 'several')).toEqual({ ...choice, type: 'several' });
    expect(withType(choice, 'yes-no')).toEqual({ id: 'a', name: 'A', group: 'Body', type: 'yes-no', isClass: true });
    expect(withType(choice, 'number')).toEqual({ id: 'a', name: 'A', group: 'Body', type: 'number', unit: '' });
    expect(withType(withType(choice, 'text'), 'choice')).toEqual({ ...choice, options: [], isClass: false });
  });
});

describe('columns', () => {
  it('are chosen from the usual ones, and a new one is the last', () => {
    expect(withColumn(null, ['a', 'b'], 'c', true)).toEqual(['a', 'b', 'c']);
    expect(withColumn(null, ['a', 'b'], 'a', false)).toEqual(['b']);
    expect(withColumn(['c', 'a'], ['a', 'b'], 'c', true)).toEqual(['a', 'c']);
    expect(withColumn(['c'], ['a', 'b'], 'c', false)).toEqual([]);
  });
});
