import { describe, expect, it } from 'vitest';
import { SILENT_STEP, SPOKEN_STEP, checkedClip, checkedTake, otherTake, silentClip, tiltedSpectrum } from '../../testing/checked-takes'; // prettier-ignore
import { event, hum, interference, pauses, silence } from './room-checks';
import type { CheckedClip, CheckedTake, OtherTake } from './take-check';

const silent = (change: Partial<CheckedClip>, others: readonly Partial<OtherTake>[] = [], more: Partial<CheckedTake> = {}): CheckedTake => // prettier-ignore
  checkedTake({ ...SILENT_STEP, clip: silentClip(change), others: others.map((o) => otherTake({ role: 'silence', step: 'silence', ...o })), ...more }); // prettier-ignore
const quiet = (pauseDbfsA: number | null) => ({ clip: silentClip({ pauseDbfsA }) });

describe('a silence', () => {
  it('is louder than the quietest of the unit by more than 6 dB at equal gain, or it is one', () => {
    expect(silence(silent({ pauseDbfsA: -69 }, [quiet(-75)]))).toBeNull();
    expect(silence(silent({ pauseDbfsA: -68.9 }, [quiet(-75)]))?.what).toBe('6.1 dB louder than the quietest silence of this unit at the same gain.'); // prettier-ignore
    expect(silence(silent({ pauseDbfsA: -68 }, [quiet(-60), quiet(-75), quiet(-50)]))?.what).toContain('7.0 dB');
    expect(silence(silent({ pauseDbfsA: -68 }, [{ ...quiet(-75), gainDb: 46 }]))?.what).toContain('17.0 dB');
    expect(silence(silent({ pauseDbfsA: -68 }, [{ ...quiet(-75), gainDb: 26 }]))).toBeNull();
  });

  it('is held against silences of the unit that may serve as a norm, where both have a level and a gain', () => {
    const loud = { pauseDbfsA: -40 };
    for (const change of [{ isNorm: false }, { isSameUnit: false }, { role: 'speech' }, { gainDb: null }, quiet(null)])
      expect(silence(silent(loud, [{ ...quiet(-75), ...change }])), JSON.stringify(change)).toBeNull();
    expect(silence(silent(loud, [quiet(null), quiet(-75)]))).not.toBeNull();
    expect(silence(silent(loud, []))).toBeNull();
    expect(silence(silent({ pauseDbfsA: null }, [quiet(-75)]))).toBeNull();
    expect(silence(silent(loud, [quiet(-75)], { gainDb: null }))).toBeNull();
    expect(
      silence(checkedTake({ clip: checkedClip({ pauseDbfsA: -40 }), others: [otherTake(quiet(-75))] })),
    ).toBeNull();
  });

  it('is none where somebody speaks', () => {
    expect(silence(silent({ speech: [{ startS: 2, endS: 3 }] }))?.what).toBe(
      'Somebody or something is heard at 2.0 s.',
    );
  });
});

describe('an event', () => {
  const at = (startS: number, endS: number) => ({ startS, endS });

  it('in a silence counts from 40 ms on, away from both ends', () => {
    const found = (...events: { startS: number; endS: number }[]) => event(silent({ durationS: 8, events }))?.what ?? null; // prettier-ignore
    expect(found(at(2, 2.1), at(5, 5.5))).toBe('Something is heard at 2.0 s, 5.0 s.');
    expect(found(at(2, 2.039))).toBeNull();
    expect(found(at(2, 2.0400001))).not.toBeNull();
    expect(found(at(0.3, 1))).toBeNull();
    expect(found(at(0.31, 1))).not.toBeNull();
    expect(found(at(7, 7.7))).toBeNull();
    expect(found(at(7, 7.69))).not.toBeNull();
    expect(found()).toBeNull();
    // Words have events of their own.
    expect(event(checkedTake({ clip: checkedClip({ events: [at(2, 3)] }) }))).toBeNull();
  });

  /** A take with so much more below 90 Hz. */
  const rolling = (more: number, change: Partial<CheckedClip> = {}) =>
    checkedClip({ thirdOctave: tiltedSpectrum().map((b) => (b.centreHz < 90 ? { ...b, levelDbfs: b.levelDbfs + more } : b)), ...change }); // prettier-ignore
  const passed = (more: number, others: readonly Partial<OtherTake>[], change: Partial<CheckedTake> = {}) =>
    event(checkedTake({ clip: rolling(more), others: others.map((o) => otherTake(o)), ...change }))?.what ?? null;

  it('that rolls past is told by the low end, re loudness, against the middle one of the other takes', () => {
    expect(passed(7.9, [{}])).toBeNull();
    expect(passed(9, [{}])).toBe(
      '9.0 dB more below 90 Hz than in the other takes of this step: a car, a lorry, a door?',
    );
    expect(passed(9, [{ clip: rolling(20) }, {}, { clip: rolling(-20) }])).toContain('9.0 dB');
    // Of two the lower one.
    expect(passed(9, [{ clip: rolling(5) }, {}])).toContain('9.0 dB');
    expect(passed(9, [{}, { clip: rolling(5) }])).toContain('9.0 dB');
    expect(passed(9, [{ clip: rolling(0, { integratedLufs: -33 }) }])).toBeNull();
    // What is summed are powers of 25 to 80 Hz and of nothing else.
    const mids = checkedClip({ thirdOctave: tiltedSpectrum().map((b) => (b.centreHz > 90 ? { ...b, levelDbfs: 0 } : b)) }); // prettier-ignore
    expect(event(checkedTake({ clip: mids, others: [otherTake()] }))).toBeNull();
  });

  it('needs something to be held against', () => {
    for (const change of [
      { isNorm: false },
      { isSameUnit: false },
      { step: 'rear' },
      { clip: rolling(0, { integratedLufs: null }) },
      { clip: checkedClip({ thirdOctave: [] }) },
    ])
      // prettier-ignore
      expect(passed(30, [change]), JSON.stringify(change).slice(0, 80)).toBeNull();
    expect(passed(30, [{ clip: rolling(0, { integratedLufs: null }) }, {}])).not.toBeNull();
    expect(passed(30, [])).toBeNull();
    expect(passed(30, [{}], { playKind: 'tone' })).toBeNull();
    expect(passed(30, [{}], { clip: rolling(30, { integratedLufs: null }) })).toBeNull();
    expect(passed(30, [{}], { clip: checkedClip({ thirdOctave: [] }) })).toBeNull();
  });
});

describe('hum', () => {
  const humming = (totalDbfs: number | null, change: Partial<CheckedClip> = {}) =>
    checkedClip({ hum: { mainsHz: 50, totalDbfs }, pauseDbfsA: -75, ...change });
  const found = (totalDbfs: number, others: readonly Partial<OtherTake>[], change: Partial<CheckedTake> = {}) =>
    hum(checkedTake({ clip: humming(totalDbfs), others: others.map((o) => otherTake(o)), ...change }));

  it('is news from 6 dB more on than the unit ever had, at equal gain', () => {
    expect(found(-60, [{ clip: humming(-66) }])).toBeNull();
    expect(found(-59.9, [{ clip: humming(-66) }])).toMatchObject({ weight: 'redo', what: 'Hum of 50 Hz and its multiples, −59.9 dBFS: 6.1 dB more than ever with this unit.' }); // prettier-ignore
    expect(found(-59, [{ clip: humming(-80) }, { clip: humming(-66) }, { clip: humming(-70) }])?.what).toContain('7.0 dB more'); // prettier-ignore
    expect(found(-60, [{ clip: humming(-66), gainDb: 46 }])?.what).toContain('16.0 dB more');
    expect(found(-60, [{ clip: checkedClip() }])).toMatchObject({ weight: 'look', what: "Hum of 50 Hz and its multiples, −60.0 dBFS; the unit's earlier takes had none." }); // prettier-ignore
  });

  it('of a unit without a past is held against its speech', () => {
    // Speech at −24 LUFS: −79 is 55 dB below.
    const soft = { pauseDbfsA: -90 };
    expect(hum(checkedTake({ clip: humming(-79, soft) }))).toBeNull();
    expect(hum(checkedTake({ clip: humming(-78.9, soft) }))).toMatchObject({ weight: 'look', what: 'Hum of 50 Hz and its multiples, −78.9 dBFS, −54.9 dB re speech.' }); // prettier-ignore
    const past = { clip: humming(-90), isToday: true };
    for (const change of [{ isNorm: false }, { isSameUnit: false }, { role: 'rear' }, { gainDb: null }])
      expect(found(-60, [{ ...past, ...change }])?.what, JSON.stringify(change)).toContain('re speech');
    expect(found(-60, [], { gainDb: null })).toBeNull();
    expect(hum(checkedTake({ clip: humming(-60, { integratedLufs: null }) }))).toBeNull();
  });

  it('of a silence is held against today’s speech of the unit', () => {
    const lone = (others: readonly Partial<OtherTake>[]) =>
      hum(silent({ hum: { mainsHz: 50, totalDbfs: -60 } }, others, { gainDb: 36 }))?.what ?? null;
    const speech = { role: 'speech', step: 'speech', isToday: true, clip: checkedClip({ integratedLufs: -30 }) };
    expect(lone([speech])).toBe('Hum of 50 Hz and its multiples, −60.0 dBFS, −30.0 dB re speech.');
    for (const change of [{ isToday: false }, { isSameUnit: false }, { role: 'rear', step: 'rear' }])
      expect(lone([{ ...speech, ...change }]), JSON.stringify(change)).toBeNull();
    expect(lone([])).toBeNull();
  });

  it('counts where noise is shown, with a frequency and a level, and strong enough to matter', () => {
    const past = [{ clip: humming(-90) }];
    expect(found(-60, past)).not.toBeNull();
    expect(found(-60, past, { playKind: 'tone' })).toBeNull();
    expect(found(-96, [{ clip: humming(-120) }])).toBeNull();
    for (const odd of [null, { mainsHz: null, totalDbfs: -60 }, { mainsHz: 50, totalDbfs: null }])
      expect(found(-60, past, { clip: checkedClip({ hum: odd }) })).toBeNull();
  });
});

describe('interference', () => {
  const found = (what: Partial<NonNullable<CheckedClip['interference']>>, clip: Partial<CheckedClip> = {}, change: Partial<CheckedTake> = {}) => // prettier-ignore
    interference(checkedTake({ clip: checkedClip({ interference: { totalDbfs: -60, isRadio: false, isBus: false, ...what }, ...clip }), ...change })); // prettier-ignore

  it('is a telephone, a bus, or a steady tone', () => {
    expect(found({ isRadio: true })).toMatchObject({ weight: 'redo', what: 'Bursts 217 times a second, −60.0 dBFS: a telephone.' }); // prettier-ignore
    expect(found({ isBus: true })?.what).toBe('Lines 1 kHz apart, as a computer’s bus makes them, −36.0 dB re speech.');
    expect(found({})).toMatchObject({ weight: 'look', what: 'Steady tones, −36.0 dB re speech.' });
  });

  it('is heard from −55 dB re speech on, where noise is shown', () => {
    const soft = { pauseDbfsA: -90 };
    expect(found({ totalDbfs: -79 }, soft)).toBeNull();
    expect(found({ totalDbfs: -78.9 }, soft)).not.toBeNull();
    expect(found({ totalDbfs: null })).toBeNull();
    expect(found({ totalDbfs: -95.1, isRadio: true })).toBeNull();
    expect(found({}, { integratedLufs: null })).toBeNull();
    expect(found({}, {}, { gainDb: null })).toBeNull();
    expect(found({ isRadio: true }, {}, { playKind: 'sweep' })).toBeNull();
    const limit = { ...SPOKEN_STEP, checks: [{ check: 'interference', limit: -30 }] };
    expect(found({}, {}, { step: limit })).toBeNull();
  });
});

describe('pauses', () => {
  const of = (kind: 'gate' | 'digital-silence' | 'automatic-gain', text: string) =>
    checkedClip({ pauseFindings: [{ kind, text }] });

  it('that hide the noise are told with what to do, where something is said or nothing', () => {
    expect(pauses(checkedTake({ clip: of('gate', 'the pauses fall to nothing.') }))).toEqual({ check: 'pauses', weight: 'look', what: 'The pauses fall to nothing.', next: 'Switch gates, expanders and noise reduction off; redo.' }); // prettier-ignore
    expect(pauses(silent({ pauseFindings: [{ kind: 'automatic-gain', text: 'it pumps' }] }))?.next).toBe('Switch automatic gain off; redo.'); // prettier-ignore
    expect(pauses(checkedTake({ clip: of('digital-silence', 'zeros') }))?.next).toContain('noise reduction off');
    expect(pauses(checkedTake({ clip: of('gate', 'x'), playKind: 'tone' }))).toBeNull();
    expect(pauses(checkedTake())).toBeNull();
  });
});
