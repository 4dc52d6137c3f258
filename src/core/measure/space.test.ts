import { describe, expect, it } from 'vitest';
import { seededBits } from '../stats/random';
import { standardNormal } from '../stats/normal';
import { distanceMeasurements, distanceForRatio, fitDistanceLadder, ladderDb } from './distance-ladder';
import {
  directivityIndexDb,
  firstOrderGain,
  nearestPattern,
  patternName,
  polarLevels,
  polarMeasurements,
  randomEnergyEfficiency,
} from './polar-pattern';
import { fractionalOctaveBands } from '../dsp/fractional-octave';
import { proximityEffect, sphericalWaveGainDb } from './proximity';
import {
  amplitudeRemoved,
  amplitudeShareDb,
  energyRemoved,
  energyShareDb,
  removalWords,
  removedByBand,
} from './removed-by-band';
import { roomMeasurements, roomReport } from './room-acoustics';

it('the level of an octave is that of the mean power of its points, not the mean of its decibels', () => {
  // 24 points per octave, every other one 20 dB down: half the power and a hundredth of it, −2.97 dB; −10 by decibels.
  const points = (downDb: number) =>
    Array.from({ length: 24 * 7 }, (_, i) => ({
      hz: 125 * 2 ** ((i + 0.5) / 24),
      db: i % 2 === 0 ? 0 : -downDb,
      u: 0.1,
    }));
  const [front, side] = polarLevels(points(0), [{ angleDeg: 90, points: points(20) }]);
  expect(front.broadbandDb).toBe(0);
  const halfAndAHundredth = 10 * Math.log10((1 + 0.01) / 2);
  for (const octave of side.octavesDb) if (octave !== null) expect(octave).toBeCloseTo(halfAndAHundredth, 6);
  expect(side.octavesDb.filter((o) => o !== null).length).toBeGreaterThan(4);
  expect(side.broadbandDb).toBeCloseTo(halfAndAHundredth, 6);
});

describe('first-order patterns: textbook values (standard microphone texts)', () => {
  it.each([
    ['omnidirectional', 1, 1, 0],
    ['cardioid', 0.5, 1 / 3, 4.77],
    ['supercardioid', 0.366, 0.268, 5.72],
    ['hypercardioid', 0.25, 0.25, 6.02],
    ['figure-of-eight', 0, 1 / 3, 4.77],
  ])('%s: α %d has random energy efficiency %d and directivity index %d dB', (name, alpha, ree, di) => {
    expect(randomEnergyEfficiency(alpha)).toBeCloseTo(ree, 3);
    expect(directivityIndexDb(alpha)).toBeCloseTo(di, 1);
    expect(patternName(alpha)).toBe(name);
  });
  it('a cardioid is 6.0 dB down at 90°', () => {
    expect(20 * Math.log10(firstOrderGain(0.5, 90))).toBeCloseTo(-6.02, 2);
  });
  it.each([1, 0.7, 0.5, 0.37, 0.25, 0])('α = %d is found from its levels', (alpha) => {
    const levels = [0, 45, 90, 135, 180].map((angleDeg) => ({
      angleDeg,
      db: 20 * Math.log10(Math.abs(firstOrderGain(alpha, angleDeg)) + 1e-6),
    }));
    const found = nearestPattern(levels);
    expect(found?.alpha).toBeCloseTo(alpha, 3);
    expect(found?.residual).toBeLessThan(1e-4);
  });
  it('one angle is not enough', () => {
    expect(
      nearestPattern([
        { angleDeg: 0, db: 0 },
        { angleDeg: 180, db: -20 },
      ]),
    ).toBeNull();
  });
});

describe('polar levels', () => {
  const flat = (db: (hz: number) => number) =>
    fractionalOctaveBands(24, 100, 16_000).map((b) => ({ hz: b.nominalHz, db: db(b.nominalHz), u: 0.5 }));
  const levels = polarLevels(
    flat(() => -20),
    [
      { angleDeg: 180, points: flat((hz) => (hz < 1400 ? -45 : -35)) },
      { angleDeg: 90, points: flat(() => -26) },
    ],
  );
  it('are by octave and broadband, re 0°, in the order of the angles', () => {
    expect(levels.map((l) => l.angleDeg)).toEqual([0, 90, 180]);
    expect(levels[1].broadbandDb).toBeCloseTo(-6, 9);
    expect(levels[2].octavesDb.map((d) => Math.round(d ?? 0))).toEqual([-25, -25, -25, -15, -15, -15]);
    expect(levels[2].broadbandDb).toBeCloseTo(-20, 9);
  });
  it('become figures, and say which angle is missing', () => {
    const figures = new Map(polarMeasurements(levels).map((m) => [m.quantity, m]));
    expect(figures.get('rejection90')?.value).toBeCloseTo(6, 9);
    expect(figures.get('patternAlpha')?.settings.nearest).toBe('cardioid');
    const few = new Map(polarMeasurements(levels.slice(0, 2)).map((m) => [m.quantity, m]));
    expect(few.get('rejection180')?.notMeasured).toMatch(/180°/);
    expect(few.get('directivityIndex')?.value).toBeNull();
  });
});

describe('proximity effect', () => {
  const spectrum = (at100: number, at1000: number) =>
    [80, 100, 125, 800, 1000, 1250].map((centreHz) => ({ centreHz, levelDbfs: centreHz < 200 ? at100 : at1000 }));
  it('is the rise at 100 Hz re 1 kHz, whatever the levels', () => {
    const figure = proximityEffect(
      { distanceM: 0.03, speechS: 3, thirdOctave: spectrum(-20, -25), noise: [] },
      { distanceM: 0.15, speechS: 3, thirdOctave: spectrum(-45, -40), noise: [] },
    );
    expect(figure.value).toBeCloseTo(10, 9);
    expect(figure.condition).toMatch(/3 cm re 15 cm/);
  });
  it('takes noise off, and says where speech drowns', () => {
    const normal = { distanceM: 0.15, speechS: 3, thirdOctave: spectrum(-40, -40), noise: spectrum(-42.9, -90) };
    expect(
      proximityEffect({ distanceM: 0.03, speechS: 3, thirdOctave: spectrum(-40, -40), noise: [] }, normal).value,
    ).toBeNull();
    const clear = { ...normal, noise: spectrum(-46.0206, -90) };
    expect(
      proximityEffect({ distanceM: 0.03, speechS: 3, thirdOctave: spectrum(-40, -40), noise: [] }, clear).value,
    ).toBeCloseTo(-10 * Math.log10(0.75), 2);
  });
  // A cardioid at 10 cm: kr = 0.183 at 100 Hz, |1 + 0.5/(jkr)|² = 1 + (0.5/0.183)²: 9.3 dB.
  it('of a gradient in a spherical wave', () => {
    expect(sphericalWaveGainDb(0.5, 0.1, 100)).toBeCloseTo(9.27, 1);
    expect(sphericalWaveGainDb(1, 0.1, 100)).toBe(0);
    expect(sphericalWaveGainDb(0, 1, 2000)).toBeCloseTo(0, 1);
  });
});

describe('distance ladder', () => {
  const rungs = (criticalM: number, jitter = 0) =>
    [0.15, 0.3, 0.6, 0.9, 1.5].map((distanceM, i) => ({
      distanceM,
      db: 10 * Math.log10(1 / distanceM ** 2 + 1 / criticalM ** 2) - 30 + jitter * (i % 2 === 0 ? 1 : -1),
    }));
  it.each([0.4, 0.8, 1.2])('gives a critical distance of %d m back', (critical) => {
    const fit = fitDistanceLadder(rungs(critical));
    expect(Math.abs((fit?.criticalM ?? 0) / critical - 1)).toBeLessThan(0.01);
    expect(fit && ladderDb(fit, 0.6)).toBeCloseTo(rungs(critical)[2].db, 2);
  });
  it('a ladder that only follows the inverse-square law has none within reach: a lower limit is told', () => {
    const free = rungs(1e9);
    expect(free[1].db - free[0].db).toBeCloseTo(-6.02, 2);
    const [critical, usable] = distanceMeasurements(free);
    // The lower end of what a ladder to 1.5 m leaves open, lines read twice differing by 0.7 dB.
    expect(critical.bound).toBe('at-least');
    expect(critical.value).toBeGreaterThan(0.9);
    expect(critical.value).toBeLessThan(4);
    expect(usable.bound).toBe('at-least');
  });
  it('stands a reader who is not always equally loud', () => {
    expect(Math.abs((fitDistanceLadder(rungs(0.6, 0.3))?.criticalM ?? 0) / 0.6 - 1)).toBeLessThan(0.15);
  });
  it('usable distance: 6 dB of direct over reverberant is half the critical distance', () => {
    expect(distanceForRatio(1, 6.0206)).toBeCloseTo(0.5, 4);
    expect(distanceMeasurements(rungs(0.8).slice(0, 2))[0].notMeasured).toMatch(/three/);
  });
});

describe('room from an impulse response, ISO 3382-2', () => {
  const rate = 48_000;
  // Exponential decay of known T60: e^(−6.9078·t/T60) in amplitude for 60 dB; the sign flips so that its mean is zero.
  const decay = (t60: number, seconds: number, noise = 0): Float64Array => {
    const bits = seededBits('room');
    return Float64Array.from({ length: Math.round(seconds * rate) }, (_, i) => {
      const sign = i % 2 === 0 ? 1 : -1;
      return sign * 10 ** ((-3 * i) / rate / t60) + noise * standardNormal(bits);
    });
  };
  it.each([0.2, 0.35, 1.2])('an exponential decay of T60 %d s comes back within 1 %%', (t60) => {
    const room = roomReport(decay(t60, 1.5 * t60), rate);
    for (const figure of [room.edt, room.t20, room.t30]) {
      expect(Math.abs((figure?.value ?? 0) / t60 - 1)).toBeLessThan(0.01);
    }
    // C50 of an exponential decay: 10·lg(e^(13.8·0.05/T) − 1).
    expect(room.c50?.value).toBeCloseTo(10 * Math.log10(Math.exp((13.8155 * 0.05) / t60) - 1), 1);
  });
  it('noise 50 dB down changes it by no more than 2 %', () => {
    const room = roomReport(decay(0.4, 0.9, 10 ** (-50 / 20)), rate);
    expect(Math.abs((room.t20?.value ?? 0) / 0.4 - 1)).toBeLessThan(0.02);
    expect(room.headroomDb).toBeGreaterThan(35);
  });
  it('says what noise hides', () => {
    const room = roomReport(decay(0.4, 0.9, 10 ** (-25 / 20)), rate);
    expect(room.t30).toBeNull();
    expect(roomMeasurements(room).find((m) => m.quantity === 't30')?.notMeasured).toMatch(/noise/);
  });
  it('octaves are those that the sample rate holds whole', () => {
    const octaves = (sampleRate: number) =>
      roomReport(new Float64Array(sampleRate).fill(1e-3, 0, 9), sampleRate).octaves.map((o) => o.centreHz);
    expect(octaves(rate)).toEqual([125, 250, 500, 1000, 2000, 4000]);
    // The upper edge of 2 kHz is 2,828 Hz, that of 4 kHz 5,657 Hz.
    expect(octaves(8000)).toEqual([125, 250, 500, 1000, 2000]);
    expect(octaves(5600)).toEqual([125, 250, 500, 1000]);
  });
  it('a free field has no decay, and says so', () => {
    const click = new Float64Array(rate);
    click[100] = 1;
    const room = roomReport(click, rate);
    expect(room).toMatchObject({ edt: null, t20: null, t30: null });
    expect(roomMeasurements(room).every((m) => m.value === null)).toBe(true);
  });
  it('direct sound above a weak tail', () => {
    const response = decay(0.3, 0.5).map((x) => 0.01 * x);
    response[0] = 1;
    expect(roomReport(response, rate).directToReverberant?.value).toBeGreaterThan(5);
  });
});

describe('what an accessory removes', () => {
  it('percentages need their quantity: 70 % of energy is 5.2 dB, 70 % of amplitude 10.5 dB', () => {
    expect(energyShareDb(0.7)).toBeCloseTo(5.23, 2);
    expect(amplitudeShareDb(0.7)).toBeCloseTo(10.46, 2);
    expect(energyRemoved(energyShareDb(0.7))).toBeCloseTo(0.7, 12);
    expect(amplitudeRemoved(amplitudeShareDb(0.7))).toBeCloseTo(0.7, 12);
  });
  it('in words', () => {
    expect(removalWords(5.2)).toBe('5.2 dB less: 70 % of the energy or 45 % of the amplitude is gone');
    expect(removalWords(-3)).toMatch(/3.0 dB more: 100 % more energy or 41 % more amplitude/);
  });
  it('by band, unknown where one spectrum is', () => {
    expect(
      removedByBand(
        [
          { centreHz: 100, levelDbfs: -40 },
          { centreHz: 20_000, levelDbfs: null },
        ],
        [
          { centreHz: 100, levelDbfs: -43 },
          { centreHz: 20_000, levelDbfs: -80 },
        ],
      ),
    ).toEqual([
      { centreHz: 100, removedDb: 3 },
      { centreHz: 20_000, removedDb: null },
    ]);
  });
});
