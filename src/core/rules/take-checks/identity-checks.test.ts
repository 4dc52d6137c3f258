import { describe, expect, it } from 'vitest';
import { spectrumDistance } from '../../measure/spectrum-distance';
import { SPOKEN_STEP, checkedClip, checkedTake, otherTake, tiltedSpectrum } from '../../testing/checked-takes';
import { channels, placement, side, unit } from './identity-checks';
import type { CheckedTake, OtherTake } from './take-check';

const tilted = (tilt: number) => checkedClip({ thirdOctave: tiltedSpectrum(tilt) });
/** Decibels between the shapes of a tilted spectrum and a flat one. */
const apart = (tilt: number): number => spectrumDistance(tiltedSpectrum(tilt), tiltedSpectrum(0)) ?? NaN;
const loud = (integratedLufs: number | null) => checkedClip({ integratedLufs });

describe('the right unit', () => {
  /** A take whose shape is so far from the unit's own take, beside takes of others. */
  const found = (tilt: number, others: readonly Partial<OtherTake>[] = [], change: Partial<CheckedTake> = {}) =>
    unit(checkedTake({ clip: tilted(tilt), others: [otherTake(), ...others.map((o) => otherTake(o))], ...change }));
  const rival = { isSameUnit: false, unit: 'Marlfen Reed · A' };

  it('is doubted from 3 dB on', () => {
    expect(apart(1.2)).toBeLessThan(3);
    expect(found(1.2)).toBeNull();
    expect(apart(2)).toBeGreaterThan(3);
    expect(found(2)?.what).toBe(`The spectrum is ${apart(2).toFixed(1)} dB (RMS, 100 Hz–12.5 kHz) from this unit's other takes of the step.`); // prettier-ignore
    expect(found(2)?.weight).toBe('look');
  });

  it('is held against the nearest of its own takes of the step that may serve as a norm', () => {
    expect(found(2, [{ clip: tilted(1.8) }])).toBeNull();
    expect(found(2, [{ clip: tilted(5) }, { clip: tilted(1.8) }])).toBeNull();
    expect(found(2, [{ clip: tilted(1.8) }, { clip: tilted(5) }])).toBeNull();
    expect(found(2, [{ clip: tilted(1.8), isNorm: false }])).not.toBeNull();
    expect(found(2, [{ clip: tilted(1.8), step: 'rear' }])).not.toBeNull();
    // Takes whose spectra cannot be compared say nothing.
    const few = checkedClip({ thirdOctave: tiltedSpectrum(2).slice(0, 5) });
    expect(found(2, [{ clip: few }])).not.toBeNull();
    expect(unit(checkedTake({ clip: tilted(2), others: [otherTake({ clip: few })] }))).toBeNull();
  });

  it('is another one where that is nearer by more than 1.5 dB, and is named', () => {
    expect(found(2, [{ ...rival, clip: tilted(2) }])).toMatchObject({
      weight: 'redo',
      what: `The spectrum is ${apart(2).toFixed(1)} dB from this unit's other takes, and only 0.0 dB from Marlfen Reed · A.`,
    });
    // Also where it is within its own limit, but no nearer than own takes hardly come.
    expect(found(1.2, [{ ...rival, clip: tilted(1.2) }])?.weight).toBe('redo');
    expect(apart(0.6)).toBeLessThan(1.5);
    expect(found(0.6, [{ ...rival, clip: tilted(0.6) }])).toBeNull();
    // Nearer, but by less than 1.5 dB: no reason to name it.
    expect(found(2, [{ ...rival, clip: tilted(0.5) }])?.weight).toBe('look');
    expect(found(2, [{ ...rival, clip: tilted(2), isNorm: false }])?.weight).toBe('look');
    expect(found(2, [{ ...rival, clip: tilted(2), step: 'rear' }])?.weight).toBe('look');
  });

  it('is looked for where something is said or swept', () => {
    expect(found(2, [], { playKind: 'sweep' })).not.toBeNull();
    expect(found(2, [], { playKind: 'tone' })).toBeNull();
  });
});

describe('the right side', () => {
  const facing = (level: number | null, role: string, others: readonly Partial<OtherTake>[]) =>
    side(checkedTake({ clip: loud(level), role, step: { ...SPOKEN_STEP, role }, others: others.map((o) => otherTake(o)) })); // prettier-ignore
  const front = { role: 'speech', clip: loud(-24) };
  const back = { role: 'rear', step: 'rear', clip: loud(-36) };

  it('is the one whose level it has, where both differ by 4 dB or more', () => {
    expect(facing(-25, 'speech', [front, back])).toBeNull();
    expect(facing(-35, 'rear', [front, back])).toBeNull();
    expect(facing(-34, 'speech', [front, back])?.what).toBe(
      "At this gain the unit's back is as loud as this, not its front (−10.0 dB re its other takes of this step).",
    );
    expect(facing(-25, 'rear', [front, back])).toMatchObject({
      weight: 'redo',
      what: "At this gain the unit's front is as loud as this, not its back (11.0 dB re its other takes of this step).",
    });
    // Half way between both is no side's.
    expect(facing(-30, 'speech', [front, back])).toBeNull();
    const near = { ...back, clip: loud(-28) };
    expect(facing(-28, 'speech', [front, near])?.check).toBe('side');
    expect(facing(-27.9, 'speech', [front, { ...back, clip: loud(-27.9) }])).toBeNull();
  });

  it('is told by the mean of the takes that may serve as a norm', () => {
    const further = { ...front, clip: loud(-20) };
    // The mean of the front is −22, that of the back −36: −29 lies between.
    expect(facing(-28.9, 'speech', [front, further, back])).toBeNull();
    expect(facing(-29.1, 'speech', [front, further, back])).not.toBeNull();
    expect(facing(-29.1, 'speech', [front, { ...front, clip: loud(-60), isNorm: false }, { ...front, clip: loud(-60), isSameUnit: false }, { ...front, clip: loud(null) }, back])).toBeNull(); // prettier-ignore
  });

  it('without a history of its own: the back is at least not the louder one', () => {
    expect(facing(-22, 'rear', [front])).toBeNull();
    expect(facing(-21.5, 'rear', [front])).toMatchObject({ weight: 'look', what: 'From behind it is 2.5 dB louder than from the front.' }); // prettier-ignore
    expect(facing(-21.5, 'speech', [{ ...back, clip: loud(-24) }])).toBeNull();
    expect(facing(-21.5, 'rear', [])).toBeNull();
    expect(facing(null, 'rear', [front])).toBeNull();
    expect(facing(-21.5, 'distance', [front])).toBeNull();
  });
});

describe('gain and distance as noted', () => {
  const placed = (change: Partial<CheckedTake>, others: readonly Partial<OtherTake>[] = [{}]) =>
    placement(checkedTake({ ...change, others: others.map((o) => otherTake(o)) }))?.what ?? null;

  it('are doubted where the level is more than 6 dB off, with the distance that would explain it', () => {
    expect(placed({ clip: loud(-18) })).toBeNull();
    expect(placed({ clip: loud(-30) })).toBeNull();
    expect(placed({ clip: loud(-12) })).toBe('12.0 dB louder than this unit at this step at the noted gain: as if 4 cm rather than 15 cm, or another gain.'); // prettier-ignore
    expect(placed({ clip: loud(-36) })).toBe('12.0 dB softer than this unit at this step at the noted gain: as if 60 cm rather than 15 cm, or another gain.'); // prettier-ignore
    expect(placed({ clip: loud(-12), distanceM: null, step: { ...SPOKEN_STEP, distanceM: 0.3 } })).toContain('rather than 30 cm'); // prettier-ignore
    expect(placed({ clip: loud(-12), distanceM: null, step: { ...SPOKEN_STEP, distanceM: null } })).toBe('12.0 dB louder than this unit at this step at the noted gain.'); // prettier-ignore
  });

  it('are held against the mean of its own takes, at equal gain', () => {
    expect(placed({ clip: loud(-12) }, [{ clip: loud(-24) }, { clip: loud(-14) }])).toContain('7.0 dB louder');
    expect(placed({ clip: loud(-12) }, [{ clip: loud(-24), gainDb: 24 }])).toBeNull();
    expect(placed({ clip: loud(-12) }, [{ clip: loud(null) }, { clip: loud(-24) }])).toContain('12.0 dB louder');
    expect(placed({ clip: loud(-12), gainDb: null })).toBeNull();
    expect(placed({ clip: loud(null) })).toBeNull();
    expect(placed({ clip: loud(-12), playKind: 'sweep' })).toBeNull();
  });

  it('are what the rule gives, within half a decibel', () => {
    const by = (
      gainDb: number | null,
      gain: NonNullable<CheckedTake['step']['gain']> | null,
      referenceGainDb: number | null = null,
    ) =>
      // prettier-ignore
      placed({ gainDb, referenceGainDb, step: { ...SPOKEN_STEP, gain } }, []);
    const less = { rule: 'as-step', step: 'speech', byDb: -12 } as const;
    expect(by(40, { rule: 'fixed', gainDb: 40 })).toBeNull();
    expect(by(40.4, { rule: 'fixed', gainDb: 40 })).toBeNull();
    expect(by(40.5, { rule: 'fixed', gainDb: 40 })).toBe('The noted gain is 40.5 dB; the rule gives 40.0 dB.');
    expect(by(24, less, 36)).toBeNull();
    // Below 0 dB the least that a device has is right, wherever its dial ends.
    expect([by(0, less, 6), by(-3, less, 6), by(-15, less, -3)]).toEqual([null, null, null]);
    expect(by(2, less, 6)).toBe('The noted gain is 2.0 dB; the rule gives 0 dB or less.');
    expect(by(36, less, 36)).toBe('The noted gain is 36.0 dB; the rule gives 24.0 dB.');
    expect(by(0, less, 6)).toBeNull();
    expect(by(36, less)).toBeNull();
    expect(by(12, { rule: 'peaks', lowDbfs: -12, highDbfs: -9 }, 36)).toBeNull();
    expect(by(null, { rule: 'fixed', gainDb: 40 })).toBeNull();
    expect(by(36, null)).toBeNull();
  });

  describe('on a ladder of distances', () => {
    const ladder = (level: number, distanceM: number | null, rungs: readonly Partial<OtherTake>[]) =>
      placed(
        { clip: loud(level), role: 'distance', distanceM, step: { ...SPOKEN_STEP, id: `at ${distanceM}`, role: 'distance', distanceM: null, gain: null } }, // prettier-ignore
        rungs.map((r) => ({ role: 'distance', step: 'another rung', isToday: true, ...r })),
      );
    const first = { distanceM: 0.15, clip: loud(-24) };

    it('lose what the inverse-square law gives, or less in a room', () => {
      // Four times as far: 12.04 dB in the open; between 2 and 16 dB pass.
      expect(ladder(-36, 0.6, [first])).toBeNull();
      expect(ladder(-27, 0.6, [first])).toBeNull();
      expect(ladder(-39.9, 0.6, [first])).toBeNull();
      expect(ladder(-40.5, 0.6, [first])).toBe('16.5 dB softer than at 15 cm; 60 cm should lose up to 12.0 dB.');
      expect(ladder(-25.5, 0.6, [first])).toBe('1.5 dB softer than at 15 cm; 60 cm should lose up to 12.0 dB.');
      // Far away the room decides: no more is asked than 2 dB.
      expect(ladder(-26.1, 2.4, [first])).toBeNull();
      expect(ladder(-25.9, 2.4, [first])).not.toBeNull();
    });

    it('are held against the nearest rung of today', () => {
      const far = { distanceM: 0.3, clip: loud(-50) };
      expect(ladder(-36, 0.6, [far, first])).toBeNull();
      expect(ladder(-36, 0.6, [far])).not.toBeNull();
      for (const change of [{ isToday: false }, { isSameUnit: false }, { role: 'speech' }, { distanceM: null }])
        expect(ladder(-60, 0.6, [{ ...first, ...change }]), JSON.stringify(change)).toBeNull();
      expect(ladder(-60, 0.15, [first])).toBeNull();
      expect(ladder(-60, 0.6, [{ ...first, clip: loud(null) }])).toBeNull();
      expect(ladder(-60, null, [first])).toBeNull();
      expect(ladder(-60, 0.6, [])).toBeNull();
    });
  });
});

describe('left and right', () => {
  const found = (own: readonly (number | null)[], ...before: readonly (readonly (number | null)[])[]) =>
    channels(checkedTake({ clip: checkedClip({ channelsDbfs: own }), others: before.map((channelsDbfs) => otherTake({ clip: checkedClip({ channelsDbfs }) })) })); // prettier-ignore

  it('are exchanged where they lie the other way round in every other take', () => {
    expect(found([-20, -30], [-30, -20])?.what).toBe('The left channel is 10.0 dB louder; in the other takes of this step it is the other one.'); // prettier-ignore
    expect(found([-30, -20], [-20, -30])?.what).toContain('The right channel is 10.0 dB louder');
    expect(found([-20, -30], [-20, -30])).toBeNull();
    expect(found([-20, -30], [-30, -20], [-20, -30])).toBeNull();
    expect(found([-20, -30], [-30, -20], [-30, -22])).not.toBeNull();
  });

  it('have an order from 3 dB on, and none where one of them is silent or alone', () => {
    expect(found([-20, -23], [-23, -20])).not.toBeNull();
    expect(found([-20, -22.9], [-30, -20])).toBeNull();
    expect(found([-20, -30], [-22.9, -20])).toBeNull();
    expect(found([-20, -30], [-20, -21], [-30, -20])).not.toBeNull();
    for (const odd of [[-20], [null, -20], [-20, null], [-20, -30, -40]]) {
      expect(found(odd, [-30, -20])).toBeNull();
      expect(found([-20, -30], odd)).toBeNull();
    }
    expect(found([-20, -30])).toBeNull();
  });
});
