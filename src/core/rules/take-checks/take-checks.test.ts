import { describe, expect, it } from 'vitest';
import { plainStep } from '../../testing/steps';
import { checkTake } from './check-take';
import { doLinesMatter } from '../lines-that-matter';
import {
  usualRate,
  type CheckedClip,
  type CheckedTake,
  type Finding,
  type OtherTake,
  type TakeCheck,
} from './take-check';

const CENTRES = [
  25, 31.5, 40, 50, 63, 80, 100, 125, 160, 200, 250, 315, 400, 500, 630, 800, 1000, 1250, 1600, 2000, 2500, 3150, 4000,
  5000, 6300, 8000, 10_000, 12_500,
];
const spectrum = (tilt = 0) =>
  CENTRES.map((centreHz) => ({ centreHz, levelDbfs: -35 + tilt * Math.log2(centreHz / 1000) }));

const clip = (change: Partial<CheckedClip> = {}): CheckedClip => ({
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
  thirdOctave: spectrum(),
  stepPowers: new Float64Array(160).map((_, i) => (i > 10 && i < 150 ? 1e-3 * (1 + Math.sin(i / 3)) : 1e-9)),
  ...change,
});
const STEP = plainStep({
  play: { kind: 'text', text: null },
  gain: { rule: 'peaks', lowDbfs: -12, highDbfs: -9 },
  lengthS: { least: 12, most: 60 },
});
const take = (change: Partial<CheckedTake> = {}): CheckedTake => ({
  clip: clip(),
  step: STEP,
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
const SILENT: Partial<CheckedTake> = {
  role: 'silence',
  playKind: 'silence',
  step: { ...STEP, id: 'silence', role: 'silence', gain: null, lengthS: null },
};
const silentClip = (change: Partial<CheckedClip> = {}): CheckedClip =>
  clip({
    speech: [],
    integratedLufs: null,
    peakDbfs: -60,
    truePeakDbtp: -59,
    silence: [{ startS: 0, endS: 8 }],
    ...change,
  });
const other = (change: Partial<OtherTake> = {}): OtherTake => ({
  step: 'speech',
  role: 'speech',
  unit: 'Oarlock Purser · A',
  isSameUnit: true,
  isToday: false,
  isNorm: true,
  voice: null,
  gainDb: 36,
  distanceM: 0.15,
  clip: clip(),
  ...change,
});
const find = (t: CheckedTake, check: TakeCheck): Finding | undefined =>
  checkTake(t).findings.find((f) => f.check === check);

describe('a sound take', () => {
  it('is kept, with and without a past', () => {
    expect(checkTake(take())).toEqual({ verdict: 'keep', findings: [] });
    expect(
      checkTake(take({ others: [other(), other({ isSameUnit: false, clip: clip({ thirdOctave: spectrum(3) }) })] })),
    ).toEqual({
      verdict: 'keep',
      findings: [],
    });
    expect(checkTake(take({ ...SILENT, clip: silentClip() })).verdict).toBe('keep');
  });
});

describe('the recording', () => {
  it('of digital silence is asked nothing further', () => {
    const { verdict, findings } = checkTake(
      take({ clip: clip({ peakDbfs: null, truePeakDbtp: null, integratedLufs: null, durationS: 1 }) }),
    );
    expect([verdict, findings.map((f) => f.check)]).toEqual(['redo', ['digital-silence']]);
  });

  it('with one dead channel is worth a look', () => {
    expect(find(take({ clip: clip({ channelsDbfs: [-24, null] }) }), 'digital-silence')).toMatchObject({
      weight: 'look',
      what: expect.stringContaining('Channel 2') as string,
    });
  });

  it('clips at the end of the scale, or between the samples', () => {
    expect(find(take({ clip: clip({ clippedRuns: 3, peakDbfs: 0 }) }), 'clipped')?.what).toBe('Clipped 3 times.');
    expect(find(take({ clip: clip({ truePeakDbtp: 0.4 }) }), 'clipped')?.what).toContain('0.4 dBTP');
    // What clipped is not also called too loud.
    expect(find(take({ clip: clip({ clippedRuns: 3, peakDbfs: 0 }) }), 'level')).toBeUndefined();
  });

  it.each([
    [-12, undefined],
    [-13, 'look'],
    [-19, 'redo'],
    [-7, 'look'],
    [-2, 'redo'],
  ])('with peaks of %d dBFS and a window of −12 to −9: %s', (peakDbfs, weight) => {
    expect(find(take({ clip: clip({ peakDbfs }) }), 'level')?.weight).toBe(weight);
  });

  it('may have a tolerance of its own, and without a window only needs room', () => {
    const step = { ...STEP, checks: [{ check: 'level', limit: 2 }] };
    expect(find(take({ step, clip: clip({ peakDbfs: -13.5 }) }), 'level')).toBeUndefined();
    const free = { ...STEP, gain: null };
    expect(find(take({ step: free, clip: clip({ peakDbfs: -25 }) }), 'level')).toBeUndefined();
    expect(find(take({ step: free, clip: clip({ peakDbfs: -0.5 }) }), 'level')?.weight).toBe('look');
  });

  it('has the sample rate of the session, the length of the step, and no holes', () => {
    expect(find(take({ clip: clip({ sampleRateHz: 44_100 }) }), 'sample-rate')?.what).toContain('44.1 kHz');
    expect(find(take({ expectedRateHz: null, clip: clip({ sampleRateHz: 44_100 }) }), 'sample-rate')).toBeUndefined();
    expect(find(take({ clip: clip({ durationS: 9 }) }), 'length')?.weight).toBe('redo');
    expect(find(take({ clip: clip({ durationS: 90 }) }), 'length')?.weight).toBe('look');
    expect(find(take({ clip: clip({ dropOuts: 1 }) }), 'drop-outs')?.weight).toBe('redo');
    expect(
      find(take({ role: 'calibration', playKind: 'tone', clip: clip({ dropOuts: 5 }) }), 'drop-outs'),
    ).toBeUndefined();
  });
});

describe('the room', () => {
  it('is not silent where somebody speaks, or where it is louder than before at equal gain', () => {
    expect(find(take({ ...SILENT, clip: clip() }), 'silence')?.weight).toBe('redo');
    const before = other({ step: 'silence', role: 'silence', gainDb: 30, clip: silentClip({ pauseDbfsA: -81 }) });
    // The same noise: 6 dB more gain, 6 dB more level.
    expect(find(take({ ...SILENT, clip: silentClip(), others: [before] }), 'silence')).toBeUndefined();
    expect(
      find(take({ ...SILENT, clip: silentClip({ pauseDbfsA: -67 }), others: [before] }), 'silence')?.what,
    ).toContain('8.0 dB louder');
  });

  it('hears knocks in a silent take, but not those of starting and stopping', () => {
    const at = (startS: number) => silentClip({ durationS: 10, events: [{ startS, endS: startS + 0.1 }] });
    expect(find(take({ ...SILENT, clip: at(4) }), 'event')?.weight).toBe('redo');
    expect(find(take({ ...SILENT, clip: at(0.1) }), 'event')).toBeUndefined();
    expect(find(take({ ...SILENT, clip: at(9.8) }), 'event')).toBeUndefined();
  });

  it('notices what rolls past under a voice', () => {
    const rumbling = clip({ thirdOctave: spectrum().map((b) => (b.centreHz < 90 ? { ...b, levelDbfs: -20 } : b)) });
    expect(find(take({ clip: rumbling, others: [other()] }), 'event')?.what).toMatch(/15\.0 dB more below 90 Hz/);
    expect(find(take({ clip: rumbling }), 'event')).toBeUndefined();
  });

  it('holds hum against what the unit had, and without a past against speech', () => {
    const hum = (totalDbfs: number | null) => ({ mainsHz: totalDbfs === null ? null : 50, totalDbfs });
    const before = (totalDbfs: number | null) =>
      other({ step: 'silence', role: 'silence', clip: silentClip({ hum: hum(totalDbfs) }) });
    const silent = (totalDbfs: number, others: OtherTake[]) =>
      take({ ...SILENT, clip: silentClip({ hum: hum(totalDbfs) }), others });
    expect(find(silent(-70, [before(-72)]), 'hum')).toBeUndefined();
    expect(find(silent(-60, [before(-72)]), 'hum')?.weight).toBe('redo');
    expect(find(silent(-70, [before(null)]), 'hum')?.weight).toBe('look');
    const voice = other({ isToday: true });
    expect(find(silent(-70, [voice]), 'hum')?.what).toMatch(/−46\.0 dB re speech/);
    expect(find(silent(-95, [voice]), 'hum')).toBeUndefined();
  });

  it('knows telephones, and tells other tones by how loud they are', () => {
    const found = (totalDbfs: number, kind: 'radio' | 'bus') => ({
      totalDbfs,
      isRadio: kind === 'radio',
      isBus: kind === 'bus',
    });
    expect(find(take({ clip: clip({ interference: found(-90, 'radio') }) }), 'interference')?.weight).toBe('redo');
    expect(find(take({ clip: clip({ interference: found(-70, 'bus') }) }), 'interference')?.what).toContain('computer');
    expect(find(take({ clip: clip({ interference: found(-95, 'bus') }) }), 'interference')).toBeUndefined();
  });
});

describe('findings that do not fit the step', () => {
  it('are not made of a played signal: it may stand where it is wanted, and its lines are the signal', () => {
    const tone = (change: Partial<CheckedClip>): CheckedTake =>
      take({
        playKind: 'tone',
        role: 'other',
        step: { ...STEP, gain: null, play: { kind: 'tone', text: null }, lengthS: null },
        clip: clip({ peakDbfs: -0.9, truePeakDbtp: -0.9, speech: [], ...change }),
      });
    expect(checkTake(tone({})).findings.map((f) => f.check)).not.toContain('level');
    const lines = {
      hum: { mainsHz: 50, totalDbfs: -30 },
      interference: { totalDbfs: -20, isRadio: false, isBus: true },
    };
    const found = checkTake(tone(lines)).findings.map((f) => f.check);
    expect(found).not.toContain('interference');
    expect(found).not.toContain('hum');
    expect(checkTake(tone({ clippedRuns: 2 })).findings.map((f) => f.check)).toContain('clipped');
    // Speech at that level leaves no room for the next loud word.
    const speech = take({ step: { ...STEP, gain: null }, clip: clip({ peakDbfs: -0.9, truePeakDbtp: -0.9 }) });
    expect(find(speech, 'level')?.what).toContain('no room');
  });

  it('are silent about lines far below the noise beside them', () => {
    const found = (totalDbfs: number) =>
      clip({ pauseDbfsA: -75, interference: { totalDbfs, isRadio: true, isBus: false } });
    expect(find(take({ clip: found(-96) }), 'interference')).toBeUndefined();
    expect(find(take({ clip: found(-94) }), 'interference')).toBeDefined();
    expect(doLinesMatter(-166.8, -75)).toBe(false);
    expect(doLinesMatter(-80, null)).toBe(false);
  });

  it('are not made of a rate that only one odd take has', () => {
    const at = (sampleRateHz: number) => ({ clip: { sampleRateHz } });
    expect(usualRate([at(96_000), at(48_000), at(48_000)])).toBe(48_000);
    expect(usualRate([at(96_000), at(48_000)])).toBeNull();
    expect(usualRate([at(44_100)])).toBe(44_100);
    expect(usualRate([])).toBeNull();
  });
});

describe('the reader', () => {
  it('read the whole text, without a stumble', () => {
    const others = [other(), other({ isSameUnit: false }), other()];
    expect(find(take({ others, clip: clip({ speech: [{ startS: 1, endS: 9 }] }) }), 'passage')?.what).toContain(
      'missing',
    );
    expect(find(take({ others, clip: clip({ speech: [{ startS: 1, endS: 20 }] }) }), 'passage')?.what).toContain(
      'stumble',
    );
    expect(find(take({ others, clip: clip({ speech: [] }) }), 'passage')?.what).toContain('Nothing like speech');
    // Another voice reads at another pace.
    const slow = other({ voice: 'low', clip: clip({ speech: [{ startS: 1, endS: 25 }] }) });
    expect(find(take({ voice: 'high', others: [slow, slow, slow] }), 'passage')).toBeUndefined();
    expect(find(take({ voice: 'low', others: [slow, slow, slow] }), 'passage')).toBeDefined();
  });

  it('know what is usual from several readings that nobody had to excuse', () => {
    const long = clip({ speech: [{ startS: 1, endS: 20 }] });
    expect(find(take({ others: [other(), other()], clip: long }), 'passage')).toBeUndefined();
    const excused = other({ isNorm: false });
    expect(find(take({ others: [other(), other(), excused], clip: long }), 'passage')).toBeUndefined();
    expect(find(take({ others: [other(), other(), other(), excused], clip: long }), 'passage')?.what).toContain(
      '3 readings',
    );
  });
});

describe('the unit', () => {
  const bright = clip({ thirdOctave: spectrum(2.5) });

  it('is told by its spectrum, and the likelier one is named', () => {
    expect(find(take({ clip: bright, others: [other()] }), 'unit')).toMatchObject({ weight: 'look' });
    const rival = other({ isSameUnit: false, unit: 'Marlfen Fen · A', clip: bright });
    expect(find(take({ clip: bright, others: [other(), rival] }), 'unit')).toMatchObject({
      weight: 'redo',
      what: expect.stringContaining('Marlfen Fen · A') as string,
    });
    expect(find(take({ clip: bright }), 'unit')).toBeUndefined();
  });

  it('is addressed from the side that the step says', () => {
    const rear = other({ step: 'rear', role: 'rear', clip: clip({ integratedLufs: -36 }) });
    expect(find(take({ others: [other(), rear], clip: clip({ integratedLufs: -35 }) }), 'side')?.weight).toBe('redo');
    expect(find(take({ others: [other(), rear] }), 'side')).toBeUndefined();
    const behind = { role: 'rear', step: { ...STEP, id: 'rear', role: 'rear', gain: null } };
    expect(
      find(take({ ...behind, others: [other({ isToday: true })], clip: clip({ integratedLufs: -20 }) }), 'side')?.what,
    ).toContain('louder than from the front');
  });

  it('stands where the step says, at the gain that its rule gives', () => {
    expect(find(take({ others: [other()], clip: clip({ integratedLufs: -32 }) }), 'placement')?.what).toMatch(
      /8\.0 dB softer.*as if 38 cm rather than 15 cm/,
    );
    expect(find(take({ others: [other()], clip: clip({ integratedLufs: -29 }) }), 'placement')).toBeUndefined();
    const ruled = { ...STEP, gain: { rule: 'as-step', step: 'speech', byDb: -12 } as const };
    expect(find(take({ step: ruled, referenceGainDb: 36 }), 'placement')?.what).toBe(
      'The noted gain is 36.0 dB; the rule gives 24.0 dB.',
    );
    expect(find(take({ step: ruled, referenceGainDb: 36, gainDb: 24 }), 'placement')).toBeUndefined();
    expect(find(take({ step: ruled, referenceGainDb: 8, gainDb: 0 }), 'placement')).toBeUndefined();
  });

  it('cannot lose more on the ladder than the distance takes', () => {
    const rung = (distanceM: number) => ({
      role: 'distance',
      playKind: 'phrase',
      distanceM,
      step: { ...STEP, id: `distance-${distanceM}`, role: 'distance', gain: null, lengthS: null },
    });
    const near = other({ step: 'distance-0.15', role: 'distance', isToday: true });
    const at = (integratedLufs: number): Finding | undefined =>
      find(take({ ...rung(0.6), others: [near], clip: clip({ integratedLufs }) }), 'placement');
    // 15 to 60 cm: up to 12 dB.
    expect(at(-33)).toBeUndefined();
    expect(at(-42)?.what).toContain('18.0 dB softer than at 15 cm');
    expect(at(-23)?.what).toBeDefined();
  });

  it('keeps left on the left', () => {
    const before = other({ clip: clip({ channelsDbfs: [-20, -30] }) });
    expect(find(take({ others: [before], clip: clip({ channelsDbfs: [-30, -20] }) }), 'channels')?.what).toContain(
      'right channel is 10.0 dB louder',
    );
    expect(find(take({ others: [before], clip: clip({ channelsDbfs: [-21, -30] }) }), 'channels')).toBeUndefined();
    expect(find(take({ others: [before], clip: clip({ channelsDbfs: [-25, -24] }) }), 'channels')).toBeUndefined();
  });
});

describe('the verdict', () => {
  it('is that of the worst finding, which comes first', () => {
    const { verdict, findings } = checkTake(take({ clip: clip({ peakDbfs: -13, dropOuts: 2 }) }));
    expect(verdict).toBe('redo');
    expect(findings.map((f) => f.check)).toEqual(['drop-outs', 'level']);
    expect(checkTake(take({ clip: clip({ peakDbfs: -13 }) })).verdict).toBe('look');
  });
});
