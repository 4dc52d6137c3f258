// AssemblyScript, compiled by `npm run kernels` into src/core/stats/place-moves-kernel.ts.
//
// Places of units over many draws, where one unit moves past the others: eight draws at a time (SIMD). JavaScript takes
// ten times as long over it, and it is all that is left to count in a ranking where one fact has changed.
//
// Memory from 1024 on: NEXT (steps that a unit moves to, u16), then for each unit a row of steps (u16), then for each
// unit a row of twice its places (i32), then COUNTS (13 i32), then a byte per unit: whether its places moved. Rows are as
// many draws long, a multiple of eight; what pads them is 0 in every row.
let row: usize = 0;
export let NEXT: usize = 0,
  STEPS: usize = 0,
  PLACES: usize = 0,
  COUNTS: usize = 0,
  MOVED: usize = 0;

/** Lays out memory for so many units and draws (a multiple of eight). */
export function plan(units: i32, draws: i32): void {
  row = (<usize>draws) << 1;
  NEXT = 1024;
  STEPS = NEXT + row;
  PLACES = STEPS + row * <usize>units;
  COUNTS = PLACES + 2 * row * <usize>units;
  MOVED = COUNTS + 13 * 4;
  const end: usize = MOVED + <usize>units;
  const pages: i32 = <i32>((end + 65535) >> 16);
  if (memory.size() < pages) memory.grow(pages - memory.size());
}

/** Minus what a unit at a step loses by another one: 2 where that is better, 1 where it is level, 0 where it is worse. */
function pushed(other: v128, mine: v128): v128 {
  return i16x8.add(i16x8.lt_s(other, mine), i16x8.le_s(other, mine));
}

/**
 * A unit goes from the steps in its row to those in NEXT, and its row follows. The places of the others gain or lose by
 * that, and its own lose or gain as much; units beyond `units` are not there.
 */
export function move(unit: i32, units: i32): void {
  const before: usize = STEPS + row * <usize>unit;
  const own: usize = PLACES + 2 * row * <usize>unit;
  let steps = STEPS,
    places = PLACES;
  for (let u = 0; u < units; u++, steps += row, places += 2 * row) {
    let moved: u8 = 0;
    if (u != unit) {
      for (let d: usize = 0; d < row; d += 16) {
        const mine = v128.load(steps + d);
        const by = i16x8.sub(pushed(v128.load(before + d), mine), pushed(v128.load(NEXT + d), mine));
        if (!v128.any_true(by)) continue;
        moved = 1;
        const low = i32x4.extend_low_i16x8_s(by),
          high = i32x4.extend_high_i16x8_s(by);
        const at = places + 2 * d,
          mineAt = own + 2 * d;
        v128.store(at, i32x4.add(v128.load(at), low));
        v128.store(at, i32x4.add(v128.load(at, 16), high), 16);
        v128.store(mineAt, i32x4.sub(v128.load(mineAt), low));
        v128.store(mineAt, i32x4.sub(v128.load(mineAt, 16), high), 16);
      }
    }
    store<u8>(MOVED + <usize>u, moved);
  }
  memory.copy(before, NEXT, row);
}

function total(lanes: v128): i32 {
  return (
    i32x4.extract_lane(lanes, 0) +
    i32x4.extract_lane(lanes, 1) +
    i32x4.extract_lane(lanes, 2) +
    i32x4.extract_lane(lanes, 3)
  );
}

/** One more for each lane that is below. */
function counted(soFar: v128, values: v128, below: i32): v128 {
  return i32x4.sub(soFar, i32x4.lt_s(values, i32x4.splat(below)));
}

/** Counts of a row's values below six neighbouring whole numbers from `first` on. */
function countBelow(places: usize, first: i32, counts: usize): void {
  let c0 = i32x4.splat(0),
    c1 = c0,
    c2 = c0,
    c3 = c0,
    c4 = c0,
    c5 = c0;
  for (let d: usize = 0; d < 2 * row; d += 16) {
    const values = v128.load(places + d);
    c0 = counted(c0, values, first);
    c1 = counted(c1, values, first + 1);
    c2 = counted(c2, values, first + 2);
    c3 = counted(c3, values, first + 3);
    c4 = counted(c4, values, first + 4);
    c5 = counted(c5, values, first + 5);
  }
  store<i32>(counts, total(c0));
  store<i32>(counts, total(c1), 4);
  store<i32>(counts, total(c2), 8);
  store<i32>(counts, total(c3), 12);
  store<i32>(counts, total(c4), 16);
  store<i32>(counts, total(c5), 20);
}

/**
 * What a unit's doubled places are, near two guesses. COUNTS then holds how many are below low, low + 1 … low + 5, the
 * same of high, and the sum of all.
 */
export function survey(unit: i32, low: i32, high: i32): void {
  const places = PLACES + 2 * row * <usize>unit;
  countBelow(places, low, COUNTS);
  countBelow(places, high, COUNTS + 24);
  let sum = i32x4.splat(0);
  for (let d: usize = 0; d < 2 * row; d += 16) sum = i32x4.add(sum, v128.load(places + d));
  store<i32>(COUNTS, total(sum), 48);
}
