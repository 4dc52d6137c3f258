import { describe, expect, it } from 'vitest';
import {
  SILENT_STEP,
  SPOKEN_STEP,
  checkedClip,
  checkedTake,
  otherTake,
  silentClip,
  tiltedSpectrum,
} from '../../testing/checked-takes';
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

const find = (t: CheckedTake, check: TakeCheck): Finding | undefined =>
  checkTake(t).findings.find((f) => f.check === check);

describe('a sound take', () => {
  it('is kept, with and without a past', () => {
    expect(checkTake(checkedTake())).toEqual({ verdict: 'keep', findings: [] });
    expect(
      checkTake(
        checkedTake({
          others: [
            otherTake(),
            otherTake({ isSameUnit: false, clip: checkedClip({ thirdOctave: tiltedSpectrum(3) }) }),
          ],
        }),
      ),
    ).toEqual({
      verdict: 'keep',
      findings: [],
    });
    expect(checkTake(checkedTake({ ...SILENT_STEP, clip: silentClip() })).verdict).toBe('keep');
  });
});

describe('the recording', () => {
  it('of digital silence is asked nothing further', () => {
    const { verdict, findings } = checkTake(
      checkedTake({ clip: checkedClip({ peakDbfs: null, truePeakDbtp: null, integratedLufs: null, durationS: 1 }) }),
    );
    expect([verdict, findings.map((f) => f.check)]).toEqual(['redo', ['digital-silence']]);
  });

  it('with one dead channel is worth a look', () => {
    expect(find(checkedTake({ clip: checkedClip({ channelsDbfs: [-24, null] }) }), 'digital-silence')).toMatchObject({
      weight: 'look',
      what: expect.stringContaining('Channel 2') as string,
    });
  });

  it('clips at the end of the scale, or between the samples', () => {
    expect(find(checkedTake({ clip: checkedClip({ clippedRuns: 3, peakDbfs: 0 }) }), 'clipped')?.what).toBe(
      'Clipped 3 times.',
    );
    expect(find(checkedTake({ clip: checkedClip({ truePeakDbtp: 0.4 }) }), 'clipped')?.what).toContain('0.4 dBTP');
    // What clipped is not also called too loud.
    expect(find(checkedTake({ clip: checkedClip({ clippedRuns: 3, peakDbfs: 0 }) }), 'level')).toBeUndefined();
  });

  it.each([
    [-12, undefined],
    [-13, 'look'],
    [-19, 'redo'],
    [-7, 'look'],
    [-2, 'redo'],
  ])('with peaks of %d dBFS and a window of −12 to −9: %s', (peakDbfs, weight) => {
    expect(find(checkedTake({ clip: checkedClip({ peakDbfs }) }), 'level')?.weight).toBe(weight);
  });

  it('may have a tolerance of its own, and without a window only needs room', () => {
    const step = { ...SPOKEN_STEP, checks: [{ check: 'level', limit: 2 }] };
    expect(find(checkedTake({ step, clip: checkedClip({ peakDbfs: -13.5 }) }), 'level')).toBeUndefined();
    const free = { ...SPOKEN_STEP, gain: null };
    expect(find(checkedTake({ step: free, clip: checkedClip({ peakDbfs: -25 }) }), 'level')).toBeUndefined();
    expect(find(checkedTake({ step: free, clip: checkedClip({ peakDbfs: -0.5 }) }), 'level')?.weight).toBe('look');
  });

  it('has the sample rate of the session, the length of the step, and no holes', () => {
    expect(find(checkedTake({ clip: checkedClip({ sampleRateHz: 44_100 }) }), 'sample-rate')?.what).toContain(
      '44.1 kHz',
    );
    expect(
      find(checkedTake({ expectedRateHz: null, clip: checkedClip({ sampleRateHz: 44_100 }) }), 'sample-rate'),
    ).toBeUndefined();
    expect(find(checkedTake({ clip: checkedClip({ durationS: 9 }) }), 'length')?.weight).toBe('redo');
    expect(find(checkedTake({ clip: checkedClip({ durationS: 90 }) }), 'length')?.weight).toBe('look');
    expect(find(checkedTake({ clip: checkedClip({ dropOuts: 1 }) }), 'drop-outs')?.weight).toBe('redo');
    expect(
      find(checkedTake({ role: 'calibration', playKind: 'tone', clip: checkedClip({ dropOuts: 5 }) }), 'drop-outs'),
    ).toBeUndefined();
  });
});

describe('the room', () => {
  it('is not silent where somebody speaks, or where it is louder than before at equal gain', () => {
    expect(find(checkedTake({ ...SILENT_STEP, clip: checkedClip() }), 'silence')?.weight).toBe('redo');
    const before = otherTake({ step: 'silence', role: 'silence', gainDb: 30, clip: silentClip({ pauseDbfsA: -81 }) });
    // The same noise: 6 dB more gain, 6 dB more level.
    expect(find(checkedTake({ ...SILENT_STEP, clip: silentClip(), others: [before] }), 'silence')).toBeUndefined();
    expect(
      find(checkedTake({ ...SILENT_STEP, clip: silentClip({ pauseDbfsA: -67 }), others: [before] }), 'silence')?.what,
    ).toContain('8.0 dB louder');
  });

  it('hears knocks in a silent take, but not those of starting and stopping', () => {
    const at = (startS: number) => silentClip({ durationS: 10, events: [{ startS, endS: startS + 0.1 }] });
    expect(find(checkedTake({ ...SILENT_STEP, clip: at(4) }), 'event')?.weight).toBe('redo');
    expect(find(checkedTake({ ...SILENT_STEP, clip: at(0.1) }), 'event')).toBeUndefined();
    expect(find(checkedTake({ ...SILENT_STEP, clip: at(9.8) }), 'event')).toBeUndefined();
  });

  it('notices what rolls past under a voice', () => {
    const rumbling = checkedClip({
      thirdOctave: tiltedSpectrum().map((b) => (b.centreHz < 90 ? { ...b, levelDbfs: -20 } : b)),
    });
    expect(find(checkedTake({ clip: rumbling, others: [otherTake()] }), 'event')?.what).toMatch(
      /15\.0 dB more below 90 Hz/,
    );
    expect(find(checkedTake({ clip: rumbling }), 'event')).toBeUndefined();
  });

  it('holds hum against what the unit had, and without a past against speech', () => {
    const hum = (totalDbfs: number | null) => ({ mainsHz: totalDbfs === null ? null : 50, totalDbfs });
    const before = (totalDbfs: number | null) =>
      otherTake({ step: 'silence', role: 'silence', clip: silentClip({ hum: hum(totalDbfs) }) });
    const silent = (totalDbfs: number, others: OtherTake[]) =>
      checkedTake({ ...SILENT_STEP, clip: silentClip({ hum: hum(totalDbfs) }), others });
    expect(find(silent(-70, [before(-72)]), 'hum')).toBeUndefined();
    expect(find(silent(-60, [before(-72)]), 'hum')?.weight).toBe('redo');
    expect(find(silent(-70, [before(null)]), 'hum')?.weight).toBe('look');
    const voice = otherTake({ isToday: true });
    expect(find(silent(-70, [voice]), 'hum')?.what).toMatch(/−46\.0 dB re speech/);
    expect(find(silent(-95, [voice]), 'hum')).toBeUndefined();
  });

  it('knows telephones, and tells other tones by how loud they are', () => {
    const found = (totalDbfs: number, kind: 'radio' | 'bus') => ({
      totalDbfs,
      isRadio: kind === 'radio',
      isBus: kind === 'bus',
    });
    expect(
      find(checkedTake({ clip: checkedClip({ interference: found(-90, 'radio') }) }), 'interference')?.weight,
    ).toBe('redo');
    expect(
      find(checkedTake({ clip: checkedClip({ interference: found(-70, 'bus') }) }), 'interference')?.what,
    ).toContain('computer');
    expect(
      find(checkedTake({ clip: checkedClip({ interference: found(-95, 'bus') }) }), 'interference'),
    ).toBeUndefined();
  });
});

describe('findings that do not fit the step', () => {
  it('are not made of a played signal: it may stand where it is wanted, and its lines are the signal', () => {
    const tone = (change: Partial<CheckedClip>): CheckedTake =>
      checkedTake({
        playKind: 'tone',
        role: 'other',
        step: { ...SPOKEN_STEP, gain: null, play: { kind: 'tone', text: null }, lengthS: null },
        clip: checkedClip({ peakDbfs: -0.9, truePeakDbtp: -0.9, speech: [], ...change }),
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
    const speech = checkedTake({
      step: { ...SPOKEN_STEP, gain: null },
      clip: checkedClip({ peakDbfs: -0.9, truePeakDbtp: -0.9 }),
    });
    expect(find(speech, 'level')?.what).toContain('no room');
  });

  it('are silent about lines far below the noise beside them', () => {
    const found = (totalDbfs: number) =>
      checkedClip({ pauseDbfsA: -75, interference: { totalDbfs, isRadio: true, isBus: false } });
    expect(find(checkedTake({ clip: found(-96) }), 'interference')).toBeUndefined();
    expect(find(checkedTake({ clip: found(-94) }), 'interference')).toBeDefined();
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
    const others = [otherTake(), otherTake({ isSameUnit: false }), otherTake()];
    expect(
      find(checkedTake({ others, clip: checkedClip({ speech: [{ startS: 1, endS: 9 }] }) }), 'passage')?.what,
    ).toContain('missing');
    expect(
      find(checkedTake({ others, clip: checkedClip({ speech: [{ startS: 1, endS: 20 }] }) }), 'passage')?.what,
    ).toContain('stumble');
    expect(find(checkedTake({ others, clip: checkedClip({ speech: [] }) }), 'passage')?.what).toContain(
      'Nothing like speech',
    );
    // Another voice reads at another pace.
    const slow = otherTake({ voice: 'low', clip: checkedClip({ speech: [{ startS: 1, endS: 25 }] }) });
    expect(find(checkedTake({ voice: 'high', others: [slow, slow, slow] }), 'passage')).toBeUndefined();
    expect(find(checkedTake({ voice: 'low', others: [slow, slow, slow] }), 'passage')).toBeDefined();
  });

  it('know what is usual from several readings that nobody had to excuse', () => {
    const long = checkedClip({ speech: [{ startS: 1, endS: 20 }] });
    expect(find(checkedTake({ others: [otherTake(), otherTake()], clip: long }), 'passage')).toBeUndefined();
    const excused = otherTake({ isNorm: false });
    expect(find(checkedTake({ others: [otherTake(), otherTake(), excused], clip: long }), 'passage')).toBeUndefined();
    expect(
      find(checkedTake({ others: [otherTake(), otherTake(), otherTake(), excused], clip: long }), 'passage')?.what,
    ).toContain('3 readings');
  });
});

describe('the unit', () => {
  const bright = checkedClip({ thirdOctave: tiltedSpectrum(2.5) });

  it('is told by its spectrum, and the likelier one is named', () => {
    expect(find(checkedTake({ clip: bright, others: [otherTake()] }), 'unit')).toMatchObject({ weight: 'look' });
    const rival = otherTake({ isSameUnit: false, unit: 'Marlfen Fen · A', clip: bright });
    expect(find(checkedTake({ clip: bright, others: [otherTake(), rival] }), 'unit')).toMatchObject({
      weight: 'redo',
      what: expect.stringContaining('Marlfen Fen · A') as string,
    });
    expect(find(checkedTake({ clip: bright }), 'unit')).toBeUndefined();
  });

  it('is addressed from the side that the step says', () => {
    const rear = otherTake({ step: 'rear', role: 'rear', clip: checkedClip({ integratedLufs: -36 }) });
    expect(
      find(checkedTake({ others: [otherTake(), rear], clip: checkedClip({ integratedLufs: -35 }) }), 'side')?.weight,
    ).toBe('redo');
    expect(find(checkedTake({ others: [otherTake(), rear] }), 'side')).toBeUndefined();
    const behind = { role: 'rear', step: { ...SPOKEN_STEP, id: 'rear', role: 'rear', gain: null } };
    expect(
      find(
        checkedTake({ ...behind, others: [otherTake({ isToday: true })], clip: checkedClip({ integratedLufs: -20 }) }),
        'side',
      )?.what,
    ).toContain('louder than from the front');
  });

  it('stands where the step says, at the gain that its rule gives', () => {
    expect(
      find(checkedTake({ others: [otherTake()], clip: checkedClip({ integratedLufs: -32 }) }), 'placement')?.what,
    ).toMatch(/8\.0 dB softer.*as if 38 cm rather than 15 cm/);
    expect(
      find(checkedTake({ others: [otherTake()], clip: checkedClip({ integratedLufs: -29 }) }), 'placement'),
    ).toBeUndefined();
    const ruled = { ...SPOKEN_STEP, gain: { rule: 'as-step', step: 'speech', byDb: -12 } as const };
    expect(find(checkedTake({ step: ruled, referenceGainDb: 36 }), 'placement')?.what).toBe(
      'The noted gain is 36.0 dB; the rule gives 24.0 dB.',
    );
    expect(find(checkedTake({ step: ruled, referenceGainDb: 36, gainDb: 24 }), 'placement')).toBeUndefined();
    expect(find(checkedTake({ step: ruled, referenceGainDb: 8, gainDb: 0 }), 'placement')).toBeUndefined();
  });

  it('cannot lose more on the ladder than the distance takes', () => {
    const rung = (distanceM: number) => ({
      role: 'distance',
      playKind: 'phrase',
      distanceM,
      step: { ...SPOKEN_STEP, id: `distance-${distanceM}`, role: 'distance', gain: null, lengthS: null },
    });
    const near = otherTake({ step: 'distance-0.15', role: 'distance', isToday: true });
    const at = (integratedLufs: number): Finding | undefined =>
      find(checkedTake({ ...rung(0.6), others: [near], clip: checkedClip({ integratedLufs }) }), 'placement');
    // 15 to 60 cm: up to 12 dB.
    expect(at(-33)).toBeUndefined();
    expect(at(-42)?.what).toContain('18.0 dB softer than at 15 cm');
    expect(at(-23)?.what).toBeDefined();
  });

  it('keeps left on the left', () => {
    const before = otherTake({ clip: checkedClip({ channelsDbfs: [-20, -30] }) });
    expect(
      find(checkedTake({ others: [before], clip: checkedClip({ channelsDbfs: [-30, -20] }) }), 'channels')?.what,
    ).toContain('right channel is 10.0 dB louder');
    expect(
      find(checkedTake({ others: [before], clip: checkedClip({ channelsDbfs: [-21, -30] }) }), 'channels'),
    ).toBeUndefined();
    expect(
      find(checkedTake({ others: [before], clip: checkedClip({ channelsDbfs: [-25, -24] }) }), 'channels'),
    ).toBeUndefined();
  });
});

describe('the verdict', () => {
  it('is that of the worst finding, which comes first', () => {
    const { verdict, findings } = checkTake(checkedTake({ clip: checkedClip({ peakDbfs: -13, dropOuts: 2 }) }));
    expect(verdict).toBe('redo');
    expect(findings.map((f) => f.check)).toEqual(['drop-outs', 'level']);
    expect(checkTake(checkedTake({ clip: checkedClip({ peakDbfs: -13 }) })).verdict).toBe('look');
  });
});
