import { describe, expect, it } from 'vitest';
import type { SpecimenRow } from '#contracts/specimen';
import { figureColumns, filterRows } from './gear';

describe('gear', () => {
  it('finds rows that hold every word, of the kind that is chosen', () => {
    const rows = [
      { name: 'Oarlock Purser · A', category: 'microphone' },
      { name: 'Oarlock Winch · B', category: 'booster' },
    ] as const;
    expect(filterRows(rows, 'oar purs', null)).toEqual([rows[0]]);
    expect(filterRows(rows, 'oarlock', 'booster')).toEqual([rows[1]]);
    expect(filterRows(rows, '', null)).toHaveLength(2);
  });

  const columns = (...kinds: SpecimenRow['category'][]) => figureColumns(kinds.map((category) => ({ category })));
  const names = (...kinds: SpecimenRow['category'][]) => columns(...kinds).map((c) => c.name);

  it('has a column for each key figure of the kind that is listed, and of microphones where none is', () => {
    expect(names('microphone', 'field-microphone')).toEqual(['Noise re speech', 'Rear rejection']);
    expect(names('interface')).toEqual(['Input noise', 'Noise figure']);
    expect(columns('interface')[0].field).toBe('byQuantity.einA.value');
    expect(names()).toEqual(names('microphone'));
  });

  it('of several kinds shows each row by its own figures, which no order compares', () => {
    const [first, second] = columns('interface', 'microphone');
    expect([first.name, first.field, second.name, second.field]).toEqual(['First figure', null, 'Second figure', null]);
    expect([first.of('microphone'), first.of('interface')]).toEqual(['noiseReSpeechA', 'einA']);
    expect([second.of('microphone'), second.of('interface')]).toEqual(['rearRejection', 'noiseFigure']);
  });
});
