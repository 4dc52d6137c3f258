import { describe, expect, it } from 'vitest';
import { rearRejection, type RejectionTake } from './rear-rejection';

/** A take whose K-weighted power is the same all along, by steps of 100 ms. */
const take = (powerDb: number, gainDb = 40, seconds = 10): RejectionTake => ({
  stepPowers: new Float64Array(10 * seconds).fill(10 ** (powerDb / 10)),
  gainDb,
});
const sum = (...levels: number[]): number => 10 * Math.log10(levels.reduce((s, l) => s + 10 ** (l / 10), 0));

describe('how much weaker speech from behind arrives', () => {
  it('is a difference of levels at one gain, the noise taken off both', () => {
    const noise = take(-60);
    expect(rearRejection(take(-20), take(-35), noise).value).toBeCloseTo(
      -10 * Math.log10((10 ** -3.5 - 1e-6) / (1e-2 - 1e-6)),
      9,
    );
    // Speech of −50 dB in noise of −55 dB.
    expect(rearRejection(take(sum(-20, -55)), take(sum(-50, -55)), take(-55)).value).toBeCloseTo(30, 6);
  });

  it('brings gains of all three takes to one', () => {
    // Noise read at 40 dB stands 10 dB higher in a take at 50 dB.
    const rear = take(sum(-40, -50), 50);
    const found = rearRejection(take(sum(-20, -70), 30), rear, take(-60, 40));
    expect(found.value).toBeCloseTo(-20 - 30 - (-40 - 50), 6);
    expect(found).toMatchObject({ bound: 'exact', settings: { gainFrontDb: 30, gainRearDb: 50, leastSignalToNoiseDb: 3 } }); // prettier-ignore
  });

  it('is a lower limit where the rear take does not stand 3 dB out of the noise', () => {
    const noise = take(-50);
    expect(rearRejection(take(-20), take(sum(-46.9, -50)), noise).bound).toBe('exact');
    const buried = rearRejection(take(sum(-20, -50)), take(sum(-47.1, -50), 40), noise);
    expect(buried.bound).toBe('at-least');
    // As if it stood 3 dB above the noise.
    expect(buried.value).toBeCloseTo(-20 - (-50 + 3), 6);
    expect(buried.settings).toMatchObject({ leastSignalToNoiseDb: 3 });
    // At another gain the limit is the same: noise and speech rise together.
    const louder = rearRejection(take(sum(-20, -50)), take(-40, 50), noise);
    expect([louder.bound, louder.value?.toFixed(6)]).toEqual(['at-least', (27).toFixed(6)]);
  });

  it('says why there is none', () => {
    const reason = (front: RejectionTake, rear: RejectionTake, silence: RejectionTake) =>
      rearRejection(front, rear, silence).notMeasured;
    expect(reason(take(-49), take(-60), take(-50))).toBe('The speech at the front does not stand out of the noise.');
    expect(reason(take(-Infinity), take(-30), take(-90))).toBe('The speech at the front does not stand out of the noise.'); // prettier-ignore
    expect(reason(take(-20), take(-Infinity), take(-Infinity))).toBe('The rear take is silent.');
    expect(reason(take(-20), take(-30), { stepPowers: new Float64Array(), gainDb: 0 })).toBeNull();
  });

  it('is as unsure as the blocks of both takes together', () => {
    // Two levels for five seconds each.
    const wandering = (powerDb: number): RejectionTake => ({
      gainDb: 40,
      stepPowers: Float64Array.from({ length: 100 }, (_, i) => 10 ** ((powerDb + (i < 50 ? 2 : -2)) / 10)),
    });
    const silence = take(-Infinity);
    const [front, rear] = [take(-20), take(-30)];
    const alone = rearRejection(wandering(-20), rear, silence).uncertainty ?? NaN;
    expect(alone).toBeGreaterThan(1);
    expect(rearRejection(front, rear, silence).uncertainty).toBeCloseTo(0, 9);
    const both = rearRejection(wandering(-20), wandering(-30), silence);
    expect(both.uncertainty).toBeCloseTo(alone * Math.SQRT2, 6);
    expect(both.spread?.of).toContain('400 ms');
    // One block has no scatter.
    expect(rearRejection({ ...front, stepPowers: front.stepPowers.subarray(0, 4) }, rear, silence).uncertainty).toBeNull(); // prettier-ignore
    expect(rearRejection(front, { ...rear, stepPowers: rear.stepPowers.subarray(0, 4) }, silence).uncertainty).toBeNull(); // prettier-ignore
  });
});
