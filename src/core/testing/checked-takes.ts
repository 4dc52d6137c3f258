import type { CheckedClip, CheckedTake, OtherTake } from '../rules/take-checks/take-check';
import { plainStep } from './steps';

// Takes as the checks see them: a sound one, and what it is held against.

const CENTRES = [
  25, 31.5, 40, 50, 63, 80, 100, 125, 160, 200, 250, 315, 400, 500, 630, 800, 1000, 1250, 1600, 2000, 2500, 3150, 4000,
  5000, 6300, 8000, 10_000, 12_500,
];
export const tiltedSpectrum = (tilt = 0) =>
  CENTRES.map((centreHz) => ({ centreHz, levelDbfs: -35 + tilt * Math.log2(centreHz / 1000) }));

export const checkedClip = (change: Partial<CheckedClip> = {}): CheckedClip => ({
  durationS: 16,
  sampleRateHz: 48_000,
  peakDbfs: -10,
  truePeakDbtp: -9.8,
  clippedRuns: 0,
  channelsDbfs: [-24],
  integratedLufs: -24,
  speech: [{ startS: 1, endS: 15 }],
  silence: [],
  events: [],
  pauseDbfsA: -75,
  pauseFindings: [],
  hum: null,
  interference: null,
  dropOuts: 0,
  thirdOctave: tiltedSpectrum(),
  stepPowers: new Float64Array(160).map((_, i) => (i > 10 && i < 150 ? 1e-3 * (1 + Math.sin(i / 3)) : 1e-9)),
  ...change,
});
export const SPOKEN_STEP = plainStep({
  play: { kind: 'text', text: null },
  gain: { rule: 'peaks', lowDbfs: -12, highDbfs: -9 },
  lengthS: { least: 12, most: 60 },
});
export const checkedTake = (change: Partial<CheckedTake> = {}): CheckedTake => ({
  clip: checkedClip(),
  step: SPOKEN_STEP,
  role: 'speech',
  playKind: 'text',
  gainDb: 36,
  distanceM: 0.15,
  voice: null,
  expectedRateHz: 48_000,
  referenceGainDb: null,
  others: [],
  ...change,
});
export const SILENT_STEP: Partial<CheckedTake> = {
  role: 'silence',
  playKind: 'silence',
  step: { ...SPOKEN_STEP, id: 'silence', role: 'silence', gain: null, lengthS: null },
};
export const silentClip = (change: Partial<CheckedClip> = {}): CheckedClip =>
  checkedClip({
    speech: [],
    integratedLufs: null,
    peakDbfs: -60,
    truePeakDbtp: -59,
    silence: [{ startS: 0, endS: 8 }],
    ...change,
  });
export const otherTake = (change: Partial<OtherTake> = {}): OtherTake => ({
  step: 'speech',
  role: 'speech',
  unit: 'Oarlock Purser · A',
  isSameUnit: true,
  isToday: false,
  isNorm: true,
  voice: null,
  gainDb: 36,
  distanceM: 0.15,
  clip: checkedClip(),
  ...change,
});
