import { expect, it } from 'vitest';
import { dbtp, lufs } from '../units';
import { levelMatch } from './level-match';

const clip = (integratedLufs: number, truePeakDbtp: number) => ({
  integratedLufs: lufs(integratedLufs),
  truePeakDbtp: dbtp(truePeakDbtp),
});

it('brings all clips to the target where none comes too near to full scale', () => {
  expect(levelMatch([clip(-30, -15), clip(-20, -5)], -23)).toEqual({ targetLufs: -23, gainsDb: [7, -3], heldBackBy: null }); // prettier-ignore
  // Exactly at the ceiling is not beyond it.
  expect(levelMatch([clip(-30, -8)], -23)).toEqual({ targetLufs: -23, gainsDb: [7], heldBackBy: null });
});

it('lowers the target for all alike until none exceeds −1 dBTP, and says which one held it back', () => {
  // The second one's peak stands 20 dB above its loudness, the third one's 25 dB.
  const clips = [clip(-30, -15), clip(-25, -5), clip(-28, -3), clip(-26, -4)];
  const { targetLufs, gainsDb, heldBackBy } = levelMatch(clips, -16);
  expect([targetLufs, heldBackBy]).toEqual([-26, 2]);
  expect(gainsDb).toEqual([4, -1, 2, 0]);
  const peaks = clips.map((c, i) => c.truePeakDbtp + gainsDb[i]);
  expect(Math.max(...peaks)).toBe(-1);
});

it('cannot match silence, and names it', () => {
  expect(() => levelMatch([clip(-20, -5), clip(-Infinity, -90)], -23)).toThrow(/clip 2 has no loudness/);
});
