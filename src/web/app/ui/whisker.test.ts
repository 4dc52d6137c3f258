import { describe, expect, it } from 'vitest';
import { percentOn, scaleAround, ticksOf } from './whisker';

describe('whiskers', () => {
  it('share a scale opened to half marks that holds every interval', () => {
    expect(
      scaleAround([
        [2.7, 3.2],
        [3.1, 4.01],
      ]),
    ).toEqual({ low: 2.5, high: 4.5 });
    expect(scaleAround([])).toEqual({ low: 0, high: 5 });
    expect(scaleAround([[3, 3]])).toEqual({ low: 3, high: 4 });
    expect(ticksOf({ low: 2.5, high: 4 })).toEqual([2.5, 3, 3.5, 4]);
    expect(ticksOf({ low: 0, high: 5 })).toEqual([0, 1, 2, 3, 4, 5]);
    expect([percentOn({ low: 2, high: 4 }, 3), percentOn({ low: 2, high: 4 }, 9)]).toEqual([50, 100]);
  });
});
