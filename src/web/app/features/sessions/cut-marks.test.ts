import { describe, expect, it } from 'vitest';
import { pulled, withStretch, withoutStretch } from './cut-marks';

describe('marks of cuts', () => {
  const marks = [
    { startS: 1, endS: 4 },
    { startS: 10, endS: 12 },
  ];

  it('are pulled within the recording, and never turn round', () => {
    expect(pulled(marks, 0, 'startS', -3, 20)[0]).toEqual({ startS: 0, endS: 4 });
    expect(pulled(marks, 0, 'startS', 9, 20)[0]).toEqual({ startS: 3.9, endS: 4 });
    expect(pulled(marks, 1, 'endS', 99, 20)).toEqual([marks[0], { startS: 10, endS: 20 }]);
  });

  it('get one more in the widest gap, and lose one', () => {
    expect(withStretch(marks, 20)).toEqual([...marks, { startS: 12, endS: 20 }]);
    expect(withStretch(marks, 13)?.[1]).toEqual({ startS: 4, endS: 10 });
    expect(withStretch([{ startS: 0, endS: 20 }], 20)).toBeNull();
    expect(withoutStretch(marks, 0)).toEqual([marks[1]]);
  });
});
