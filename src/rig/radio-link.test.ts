import { expect, it } from 'vitest';
import { rangeWalk } from '#core/gear/microphone/range-walk';
import { ChannelBlock } from '#core/dsp/channel-block';
import { DropOutDetector, dropOutPast } from '#core/dsp/drop-out-detector';
import { joinDropOuts } from '#core/dsp/drop-out-reading';
import { inBlocks } from '#core/testing/blocks';
import { lcgNoise } from '#core/testing/signals';
import { PACE_MS, addLinkHoles, type LinkModel } from './radio-link';

const RATE = 16_000;
const marks = [10, 20, 30, 40, 50].map((m) => ({ row: `${m} m`, column: 'passed at', value: m / PACE_MS, source: 'typed' as const, clip: null })); // prettier-ignore

function walked(link: LinkModel, seconds = 44) {
  const samples = lcgNoise(seconds * RATE, 0.1, 7);
  addLinkHoles(samples, RATE, link, 'walk');
  const block = new ChannelBlock(0, dropOutPast(RATE));
  const detector = new DropOutDetector(RATE, block);
  inBlocks(samples, block, () => detector.push());
  const { found } = joinDropOuts([detector.read()], RATE);
  return { samples, found, walk: rangeWalk(found, { cells: marks }) };
}
/** Rounded to a metre: a walk is noted to about a second, and lost is told by the second of long holes. */
const value = (link: LinkModel) => walked(link).walk.measurements.map((m) => [m.quantity, m.bound, m.value === null ? null : Math.round(m.value)]); // prettier-ignore

it('breaks where it is told to: what the walk measures is what the link is', () => {
  expect(value({ firstM: 22, lostM: 41 })).toEqual([
    ['linkFirst', 'exact', 22],
    ['linkLost', 'exact', 42],
  ]);
  expect(value({ firstM: 22, lostM: 80 })).toEqual([
    ['linkFirst', 'exact', 22],
    ['linkLost', 'at-least', 50],
  ]);
  expect(value({ firstM: 70, lostM: 80 })).toEqual([
    ['linkFirst', 'at-least', 50],
    ['linkLost', 'at-least', 50],
  ]);
});

it('loses nothing before, more the farther it is, and the same again with the same seed', () => {
  const { samples, found, walk } = walked({ firstM: 15, lostM: 35 });
  expect(found[0].startS).toBeCloseTo(15 / PACE_MS, 2);
  const share = walk.holes?.map((h) => h.count) ?? [];
  expect(share[0]).toBe(0);
  expect(share[4]).toBeGreaterThan(share[2]);
  expect(walked({ firstM: 15, lostM: 35 }).samples).toEqual(samples);
});
