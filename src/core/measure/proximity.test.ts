import { describe, expect, it } from 'vitest';
import { proximityEffect, sphericalWaveGainDb, type ProximityTake } from './proximity';

/** Third octaves around 100 Hz at one level, around 1 kHz at another; others that must not count. */
const bands = (low: number, middle: number) =>
  [63, 80, 100, 125, 160, 630, 800, 1000, 1250, 1600].map((centreHz) => ({
    centreHz,
    levelDbfs: [80, 100, 125].includes(centreHz) ? low : [800, 1000, 1250].includes(centreHz) ? middle : -10,
  }));
const take = (low: number, middle: number, rest: Partial<ProximityTake> = {}): ProximityTake => ({
  distanceM: 0.2,
  thirdOctave: bands(low, middle),
  speechS: 10,
  noise: [],
  ...rest,
});

describe('proximity effect', () => {
  it('is the rise at 100 Hz re 1 kHz, close against normal; level and voice cancel', () => {
    const found = proximityEffect(take(-30, -40, { distanceM: 0.05 }), take(-57, -60));
    expect(found.value).toBeCloseTo(10 - 3, 9);
    expect(found.condition).toContain('5 cm re 20 cm');
    expect(found.settings).toEqual({ closeM: 0.05, normalM: 0.2 });
    expect(proximityEffect(take(-30, -40, { distanceM: 0.025 }), take(-57, -60)).condition).toContain(
      '2.5 cm re 20 cm',
    );
  });

  it('takes the power of the noise off both bands', () => {
    // As strong as the speech alone would be: half of the power.
    const half = 10 * Math.log10(2);
    const noisy = take(-30 + half, -40, { noise: bands(-30, -90) });
    expect(proximityEffect(noisy, take(-60, -60)).value).toBeCloseTo(10, 3);
  });

  it('has no figure where the speech does not stand 3 dB out of the noise at either', () => {
    const reason = 'The speech does not stand out of the noise at 100 Hz or at 1 kHz.';
    const plain = take(-60, -60);
    expect(proximityEffect(take(-30, -40, { noise: bands(-32.9, -90) }), plain).notMeasured).toBe(reason);
    expect(proximityEffect(take(-30, -40, { noise: bands(-33.1, -90) }), plain).notMeasured).toBeNull();
    expect(proximityEffect(plain, take(-30, -40, { noise: bands(-90, -42.9) })).notMeasured).toBe(reason);
    expect(proximityEffect(take(-30, -40, { thirdOctave: [] }), plain).notMeasured).toBe(reason);
  });

  it('is as unsure as low bands of speech of that length are', () => {
    // 69 Hz wide: 69 readings a second, twice as scattered as steady noise.
    const scatter = (s: number): number => ((10 / Math.LN10) * 2) / Math.sqrt(69 * s);
    const found = proximityEffect(take(-30, -40, { speechS: 4 }), take(-60, -60, { speechS: 9 }));
    expect(found.uncertainty).toBeCloseTo(Math.hypot(scatter(4), scatter(9)), 9);
    const none = proximityEffect(take(-30, -40, { speechS: 0 }), take(-60, -60, { speechS: 9 }));
    expect(none.uncertainty).toBeCloseTo(Math.hypot((10 / Math.LN10) * 2, scatter(9)), 9);
  });

  it('of a pressure receiver there is none; of a cardioid it is that of its gradient half', () => {
    expect(sphericalWaveGainDb(1, 0.05, 100)).toBe(0);
    // Figure of eight where k·r is one: twice the power.
    expect(sphericalWaveGainDb(0, 343 / (2 * Math.PI * 100), 100)).toBeCloseTo(10 * Math.log10(2), 9);
    expect(sphericalWaveGainDb(0.5, 343 / (2 * Math.PI * 100), 100)).toBeCloseTo(10 * Math.log10(1.25), 9);
    expect(sphericalWaveGainDb(0, 0.5, 100, 2 * Math.PI * 100)).toBeCloseTo(10 * Math.log10(1 + 4), 9);
  });
});
