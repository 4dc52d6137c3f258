import { expect, it } from 'vitest';
import { levelBelow, windNoise, type WindTake } from './wind';

const BANDS = [
  { centreHz: 20, levelDbfs: -40 },
  { centreHz: 160, levelDbfs: null },
  { centreHz: 200, levelDbfs: -40 },
  { centreHz: 250, levelDbfs: -20 },
];
const take: WindTake = { thirdOctave: BANDS, aDbfs: -45, gainDb: 30, windSpeedMs: 4 };

it('adds up the bands below a frequency, that one included', () => {
  expect(levelBelow(BANDS, 200)).toBeCloseTo(-40 + 10 * Math.log10(2), 9);
  expect(levelBelow(BANDS, 199)).toBeCloseTo(-40, 9);
  expect(levelBelow(BANDS, Infinity)).toBeCloseTo(10 * Math.log10(2e-4 + 1e-2), 9);
  expect(levelBelow([{ centreHz: 20, levelDbfs: null }], 200)).toBe(-Infinity);
});

it('is told re the speech at one gain, below 200 Hz and A-weighted', () => {
  const [low, a] = windNoise(take, -20, 40);
  // The wind at 30 dB of gain, the speech at 40 dB: at one gain the wind would stand 10 dB higher.
  expect(low.value).toBeCloseTo(-40 + 10 * Math.log10(2) - 30 - (-20 - 40), 9);
  expect(a.value).toBeCloseTo(-45 - 30 + 60, 9);
  expect([low.quantity, a.quantity, a.bound]).toEqual(['windLow', 'windA', 'exact']);
  expect(a).toMatchObject({ settings: { windSpeedMs: 4 }, condition: expect.stringContaining('wind of 4 m/s') as string }); // prettier-ignore
});

it('says what is not known of the wind, and what it was read from', () => {
  const [low] = windNoise({ ...take, windSpeedMs: null, from: 'loudest ten seconds', bound: 'at-most' }, -20, 40);
  expect(low.condition).toContain('wind speed not noted');
  expect(low.condition).toContain('loudest ten seconds');
  expect([low.bound, low.settings]).toEqual(['at-most', {}]);
  expect(windNoise(take, -20, 40)[0].condition).toContain('whole take');
});

it('has no figure without speech, nor of digital silence', () => {
  expect(windNoise(take, -Infinity, 40).map((m) => m.notMeasured)).toEqual(new Array(2).fill('The speech take is silent.')); // prettier-ignore
  const [low, a] = windNoise({ ...take, thirdOctave: [] }, -20, 40);
  expect([low.notMeasured, a.notMeasured]).toEqual(['The wind take is digital silence.', null]);
});
