import { describe, expect, it } from 'vitest';
import { responseMeasurements, summariseResponse } from './response-summary';

const U = 0.2;
/** By so much the noise of neighbours adds up beyond that of independent points (docs/coverage.md). */
const NEIGHBOURS = 1.3;

/** A response of 1/24 octave from 20 Hz to 20 kHz that follows a curve. */
function response(db: (hz: number) => number, { from = 20, to = 20_000, lowestValidHz = 0, u = U } = {}) {
  const points = Array.from({ length: 24 * 10 + 1 }, (_, i) => 1000 * 2 ** ((i - 136) / 24))
    .filter((hz) => hz >= from * 0.999 && hz <= to * 1.001)
    .map((hz) => ({ hz, db: db(hz), u }));
  return summariseResponse({ points, lowestValidHz });
}
const octaves = (hz: number, re: number): number => Math.log2(hz / re);
/** Corners on the grid, four octaves below 1 kHz and three above it; 12 dB an octave beyond. */
const [LOW, HIGH] = [1000 / 16, 8000];
const corners = (hz: number): number => -12 * Math.max(0, -octaves(hz, LOW), octaves(hz, HIGH));

describe('limits of a response', () => {
  it('stand where a fall of 12 dB an octave has come by 3 and by 6 dB under the middle', () => {
    const found = response((hz) => 5 + corners(hz));
    expect(found.referenceDb).toBeCloseTo(5, 9);
    expect(found.minus3LowHz?.value).toBeCloseTo(LOW * 2 ** (-3 / 12), 6);
    expect(found.minus6LowHz?.value).toBeCloseTo(LOW * 2 ** (-6 / 12), 6);
    expect(found.minus3HighHz?.value).toBeCloseTo(HIGH * 2 ** (3 / 12), 6);
    expect(found.minus6HighHz?.value).toBeCloseTo(HIGH * 2 ** (6 / 12), 6);
  });

  it('are as unsure as the level is, over the steepness of the fall', () => {
    const found = response(corners);
    // 12 dB an octave are 12/ln 2 dB for a change of frequency by its own size.
    for (const figure of [found.minus3LowHz, found.minus6HighHz])
      expect(figure?.u).toBeCloseTo(((figure?.value ?? NaN) * U * Math.LN2) / 12, 6);
  });

  it('are the outermost: a hole within is none, a response that holds to its end has none', () => {
    const hole = (hz: number): number => corners(hz) - (Math.abs(octaves(hz, 250)) < 0.2 ? 10 : 0);
    expect(response(hole).minus6LowHz?.value).toBeCloseTo(LOW * 2 ** -0.5, 6);
    const rising = (hz: number): number => corners(hz) + (hz < 21 ? 40 : 0) + (hz > 19_000 ? 40 : 0);
    expect(response(rising)).toMatchObject({ minus3LowHz: null, minus6LowHz: null, minus3HighHz: null });
    expect(response(() => 0)).toMatchObject({ minus3LowHz: null, minus3HighHz: null });
    // Only as far as the response is valid.
    expect(response(corners, { lowestValidHz: 60 }).minus3LowHz).toBeNull();
    expect(response(corners, { lowestValidHz: 50 })).toMatchObject({ minus6LowHz: null });
    expect(response(corners, { lowestValidHz: 50 }).minus3LowHz).not.toBeNull();
  });
});

describe('the body of a response', () => {
  it('has the slope of the straight line through it, in dB an octave', () => {
    const found = response((hz) => 3 - 1.5 * octaves(hz, 1000));
    expect(found.slopeDbPerOctave?.value).toBeCloseTo(-1.5, 9);
    // Of 100 Hz to 10 kHz: points of 1/24 octave, each with U.
    const x = Array.from({ length: 170 }, (_, i) => (i - 85) / 24).filter((o) => 1000 * 2 ** o >= 98 && 1000 * 2 ** o <= 10_200); // prettier-ignore
    const middle = x.reduce((s, v) => s + v, 0) / x.length;
    const squares = x.reduce((s, v) => s + (v - middle) ** 2, 0);
    expect(found.slopeDbPerOctave?.u).toBeCloseTo((NEIGHBOURS * U) / Math.sqrt(squares), 9);
    expect([found.peak?.db, found.dip?.db].map((v) => Math.abs(v ?? NaN) < 1e-9)).toEqual([true, true]);
  });

  it('deviates by half of what its highest third octave stands above its lowest', () => {
    const bump = (centre: number, db: number) => (hz: number) => (Math.abs(octaves(hz, centre)) < 1 / 4 ? db : 0);
    const found = response((hz) => bump(4000, 4)(hz) + bump(250, -2)(hz));
    expect(found.deviationDb?.value).toBeCloseTo(3, 9);
    // Eight points to a third octave.
    expect(found.deviationDb?.u).toBeCloseTo((Math.SQRT2 * ((NEIGHBOURS * U) / Math.sqrt(8))) / 2, 9);
    // What lies outside of 100 Hz to 10 kHz does not count.
    expect(response((hz) => bump(50, 9)(hz) + bump(16_000, 9)(hz)).deviationDb?.value).toBe(0);
  });

  it('has a hill and a hole against the line, with their width at half their height', () => {
    // Triangles of ±6 dB, one octave wide at their feet: half an octave at half their height.
    const hill = (centre: number, db: number) => (hz: number) =>
      db * Math.max(0, 1 - 2 * Math.abs(octaves(hz, centre)));
    const up = response(hill(1000, 6));
    const down = response(hill(1000, -6));
    // In the middle of the body it leans to neither side; the line lies above by its area of 3 dB · octave over all octaves.
    const raised = 3 / Math.log2(100);
    for (const [found, sign] of [
      [up.peak, 1],
      [down.dip, -1],
    ] as const) {
      expect(found?.hz).toBeCloseTo(1000, 6);
      expect(Math.abs(sign * (found?.db ?? NaN) - (6 - raised))).toBeLessThan(0.02);
      expect(found?.u).toBe(U);
      // What stands out by more than half of that: twelve steps of 1/24 octave at the utmost, ten at least.
      expect(found?.widthOctaves).toBeGreaterThan(9.5 / 24);
      expect(found?.widthOctaves).toBeLessThan(12.5 / 24);
    }
  });

  it('has presence: 5–9 kHz re 1–3 kHz', () => {
    const found = response((hz) => (hz > 4500 ? 4 : hz > 900 ? 1 : -20));
    expect(found.presenceDb?.value).toBeCloseTo(3, 9);
    const count = (low: number, high: number): number => Array.from({ length: 241 }, (_, i) => 1000 * 2 ** ((i - 136) / 24)).filter((hz) => hz >= low && hz <= high).length; // prettier-ignore
    const u = (n: number): number => (NEIGHBOURS * U) / Math.sqrt(n);
    expect(found.presenceDb?.u).toBeCloseTo(Math.hypot(u(count(5000, 9000)), u(count(1000, 3000))), 9);
  });

  it('says nothing where it is not covered', () => {
    expect(response(() => 0, { from: 112 })).toMatchObject({ slopeDbPerOctave: null, deviationDb: null, peak: null, dip: null }); // prettier-ignore
    expect(response(() => 0, { to: 9000 })).toMatchObject({ slopeDbPerOctave: null, deviationDb: null });
    expect(response(() => 0, { from: 105, to: 9515 }).deviationDb).not.toBeNull();
    expect(response(() => 0, { to: 8000 }).presenceDb).toBeNull();
    expect(response(() => 0, { from: 1100 }).presenceDb).toBeNull();
    expect(response(() => 0, { from: 700 }).referenceDb).toBeNaN();
    const [low3, , , , , , peak, , presence] = responseMeasurements(
      response(() => 0, { from: 1100 }),
      'how',
    );
    expect(low3.notMeasured).toBe('The response does not fall that far within its valid range.');
    expect(peak.notMeasured).toBe('The response does not cover 100 Hz–10 kHz.');
    expect(presence.notMeasured).toBe('The response does not cover 1–9 kHz.');
  });

  it('tells figures by their names, each with its ±', () => {
    const found = response(corners);
    const told = responseMeasurements(found, 'how');
    expect(told.map((m) => [m.quantity, m.value, m.uncertainty])).toEqual([
      ['responseLow3', found.minus3LowHz?.value, found.minus3LowHz?.u],
      ['responseHigh3', found.minus3HighHz?.value, found.minus3HighHz?.u],
      ['responseLow6', found.minus6LowHz?.value, found.minus6LowHz?.u],
      ['responseHigh6', found.minus6HighHz?.value, found.minus6HighHz?.u],
      ['responseDeviation', found.deviationDb?.value, found.deviationDb?.u],
      ['responseSlope', found.slopeDbPerOctave?.value, found.slopeDbPerOctave?.u],
      ['responsePeak', found.peak?.db, found.peak?.u],
      ['responseDip', found.dip?.db, found.dip?.u],
      ['presence', found.presenceDb?.value, found.presenceDb?.u],
    ]);
    expect(told[7].settings.hz).toBe(Math.round(found.dip?.hz ?? NaN));
    expect(new Set(told.map((m) => m.condition))).toEqual(new Set(['how']));
  });
});
