import { describe, expect, it } from 'vitest';
import { joinDropOuts, type DropOutReading, type Repeat } from './drop-out-reading';

const RATE = 1000;
const reading = (change: Partial<DropOutReading>): DropOutReading => ({
  holes: { found: [], count: 0 },
  isHeld: false,
  firstRunEnd: null,
  openRun: null,
  repeats: [],
  ...change,
});
const repeat = (start: number, end: number, lag = 50): Repeat => ({ start, end, lag });
const found = (...stretches: Partial<DropOutReading>[]) =>
  joinDropOuts(stretches.map(reading), RATE).found.map(({ kind, startS, lengthS }) => [kind, Math.round(startS * RATE), Math.round(lengthS * RATE)]); // prettier-ignore

describe('repeats at a seam', () => {
  it('are one where the second goes on with the first, at one lag', () => {
    expect(found({ repeats: [repeat(900, 1000)] }, { repeats: [repeat(990, 1080)] })).toEqual([['repeat', 900, 180]]);
    expect(found({ repeats: [repeat(900, 1000)] }, { repeats: [repeat(1000, 1080)] })).toEqual([['repeat', 900, 180]]);
    // One of them may reach as far as both.
    expect(found({ repeats: [repeat(900, 1000)] }, { repeats: [repeat(950, 990)] })).toEqual([['repeat', 900, 100]]);
  });

  it('are two at two lags, or with something between them', () => {
    const two = [
      ['repeat', 900, 100],
      ['repeat', 1001, 79],
    ];
    expect(found({ repeats: [repeat(900, 1000)] }, { repeats: [repeat(1001, 1080)] })).toEqual(two);
    expect(found({ repeats: [repeat(900, 1000)] }, { repeats: [repeat(990, 1080, 51)] })).toEqual([two[0], ['repeat', 990, 90]]); // prettier-ignore
  });

  it('are none where they are longer than a buffer lasts together, or shorter than a hole', () => {
    expect(found({ repeats: [repeat(800, 1000)] }, { repeats: [repeat(1000, 1101)] })).toEqual([]);
    expect(found({ repeats: [repeat(800, 1000)] }, { repeats: [repeat(1000, 1100)] })).toEqual([['repeat', 800, 300]]);
    expect(found({ repeats: [repeat(998, 1000)] }, { repeats: [repeat(1000, 1002)] })).toEqual([]);
    expect(found({ repeats: [repeat(998, 1000)] }, { repeats: [repeat(1000, 1003)] })).toEqual([['repeat', 998, 5]]);
  });

  it('stand beside others of their stretches, in their order', () => {
    const within = { found: [{ kind: 'gap', startS: 1.4, lengthS: 0.02 }], count: 3 } as const;
    const stretches = [
      { repeats: [repeat(900, 1000)] },
      { repeats: [repeat(980, 1050), repeat(1900, 2000)], holes: within },
      { repeats: [repeat(2000, 2060)] },
    ];
    expect(found(...stretches)).toEqual([
      ['repeat', 900, 150],
      ['gap', 1400, 20],
      ['repeat', 1900, 160],
    ]);
    // Of some only the number is known.
    expect(joinDropOuts(stretches.map(reading), RATE).count).toBe(5);
  });
});

describe('runs at a seam', () => {
  const after = (start: number, isAfterSound = true) => ({ openRun: { start, isAfterSound } });

  it('are gaps from where they began to where they end, over whole stretches as well', () => {
    expect(found(after(990), { firstRunEnd: 1004 })).toEqual([['gap', 990, 14]]);
    expect(found(after(990), { isHeld: true }, { isHeld: true }, { firstRunEnd: 9000 })).toEqual([['gap', 990, 8010]]);
    expect(found(after(990), { firstRunEnd: 1004, ...after(1990) }, { firstRunEnd: 2010 })).toEqual([
      ['gap', 990, 14],
      ['gap', 1990, 20],
    ]);
  });

  it('are none without sound before them, too short, to the end, or from the beginning', () => {
    expect(found(after(990, false), { firstRunEnd: 1004 })).toEqual([]);
    expect(found(after(997), { firstRunEnd: 1001 })).toEqual([]);
    expect(found(after(990), { isHeld: true })).toEqual([]);
    expect(found({ firstRunEnd: 1004 })).toEqual([]);
    // It ended with its stretch: what ends later is another one.
    expect(found(after(990), {}, { firstRunEnd: 2004 })).toEqual([]);
  });
});

it('lists the first five hundred, and counts all', () => {
  const many = (from: number) => ({ found: Array.from({ length: 300 }, (_, i) => ({ kind: 'gap', startS: from + i, lengthS: 1 }) as const), count: 300 }); // prettier-ignore
  const joined = joinDropOuts([reading({ holes: many(0) }), reading({ holes: many(1000) })], RATE);
  expect([joined.count, joined.found.length, joined.found.at(-1)?.startS]).toEqual([600, 500, 1199]);
});
