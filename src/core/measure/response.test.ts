import { describe, expect, it } from 'vitest';
import { BiquadCascade, cascadeGainDb } from '../dsp/biquad';
import { butterworthHighPass } from '../dsp/butterworth';
import { highPass, lowPass, peaking } from '../dsp/eq-biquads';
import { exponentialSweep, findSweepShape } from '../dsp/exponential-sweep';
import { fractionalOctaveBands } from '../dsp/fractional-octave';
import { lcgNoise, mixed, sine } from '../testing/signals';
import { convolve } from '../dsp/convolve';
import { measureResponse } from './response-report';
import { frequencyResponse, substituted, type FrequencyResponse } from './frequency-response';
import { harmonicDistortion } from './harmonic-distortion';
import { impulseResponse } from './impulse-response';
import { responseMeasurements, summariseResponse } from './response-summary';
import { toneDistortion } from './tone-distortion';
import { blackmanHarris7 } from './tone-spectrum';

const RATE = 48_000;
const SHAPE = { lowHz: 15, highHz: 22_000, seconds: 4 };
const SWEEP = exponentialSweep(SHAPE, RATE);

/** The sweep through filters, later by some samples, with room behind it. */
function through(sections: Parameters<typeof cascadeGainDb>[0], delay = 777, tail = 24_000): Float64Array {
  const out = new Float64Array(SWEEP.length + delay + tail);
  out.set(SWEEP, delay);
  new BiquadCascade(sections).process(out);
  return out;
}

describe('the exponential sweep', () => {
  it('is found again from its samples alone', () => {
    const found = findSweepShape(SWEEP, RATE);
    expect(found?.lowHz).toBeCloseTo(15, 2);
    expect(Math.abs((found?.highHz ?? 0) / 22_000 - 1)).toBeLessThan(0.01);
    expect(found?.seconds).toBeCloseTo(4, 3);
  });
  it('spends the same time in every octave (Farina 2000, eq. 5)', () => {
    const crossings = (from: number, to: number): number => {
      let n = 0;
      for (let i = Math.round(from * RATE) + 1; i < to * RATE; i++) if (SWEEP[i - 1] < 0 && SWEEP[i] >= 0) n++;
      return n / (to - from);
    };
    expect(crossings(3, 3.1) / crossings(2, 2.1)).toBeCloseTo((22_000 / 15) ** 0.25, 1);
  });
  it('other signals are no sweeps', () => {
    expect(findSweepShape(lcgNoise(RATE, 0.5), RATE)).toBeNull();
    expect(findSweepShape(sine(1000, -6, 1), RATE)).toBeNull();
    expect(() => impulseResponse(lcgNoise(RATE, 0.5), SWEEP, RATE)).toThrow(/not an exponential sweep/);
    expect(() => impulseResponse(SWEEP, lcgNoise(4 * RATE, 0.5), RATE)).toThrow(/no answer/);
    expect(() => impulseResponse(SWEEP, new Float64Array(RATE), RATE)).toThrow(/digital silence/);
    expect(() => exponentialSweep({ lowHz: 20, highHz: 30_000, seconds: 5 }, RATE)).toThrow(RangeError);
  });
});

describe('response from a sweep: known biquads recovered to 0.1 dB in band', () => {
  it.each([
    ['nothing', []],
    ['a bell', [peaking(RATE, 3000, 6, 1.2)]],
    ['a low-cut and a hole', [highPass(RATE, 90), peaking(RATE, 800, -9, 4)]],
    ['a dull top', [lowPass(RATE, 9000)]],
  ])('%s', (_, sections) => {
    const { points, lowestValidHz } = frequencyResponse(impulseResponse(SWEEP, through(sections), RATE));
    expect(lowestValidHz).toBeCloseTo(15, 2);
    const inBand = points.filter((p) => p.hz >= 25 && p.hz <= 18_000);
    expect(inBand.length).toBeGreaterThan(200);
    for (const { hz, db } of inBand) {
      const expected = cascadeGainDb(sections, hz, RATE);
      if (expected > -30) expect(Math.abs(db - expected), `${hz} Hz`).toBeLessThan(0.1);
    }
  });

  it('finds the delay', () => {
    expect(impulseResponse(SWEEP, through([], 4321), RATE).peak).toBe(4321);
  });

  it('at 96 kHz, and from a recording longer than the transform', () => {
    const played = exponentialSweep({ lowHz: 20, highHz: 40_000, seconds: 2.6 }, 96_000);
    const recorded = new Float64Array(played.length + 200_000);
    recorded.set(played, 90_000);
    const bell = [peaking(96_000, 5000, -5, 1)];
    new BiquadCascade(bell).process(recorded);
    const { points } = frequencyResponse(impulseResponse(played, recorded, 96_000));
    for (const { hz, db } of points.filter((p) => p.hz > 40 && p.hz < 19_000)) {
      expect(Math.abs(db - cascadeGainDb(bell, hz, 96_000)), `${hz} Hz`).toBeLessThan(0.1);
    }
  });

  it('a gate takes a reflection out, and says how low it is valid', () => {
    const recorded = through([]);
    const echo = recorded.map((x, i) => x + 0.4 * (recorded[i - Math.round(0.006 * RATE)] ?? 0));
    const response = impulseResponse(SWEEP, echo, RATE);
    const open = frequencyResponse(response);
    const gate = frequencyResponse(response, 5);
    const ripple = ({ points }: FrequencyResponse): number => {
      const levels = points.filter((p) => p.hz > 400 && p.hz < 2000).map((p) => p.db);
      return Math.max(...levels) - Math.min(...levels);
    };
    expect(ripple(open)).toBeGreaterThan(4);
    expect(ripple(gate)).toBeLessThan(0.1);
    expect(gate.lowestValidHz).toBeCloseTo(200, 6);
  });

  it('substitution takes loudspeaker and room out', () => {
    const loudspeaker = [highPass(RATE, 60), peaking(RATE, 1500, 4, 2)];
    const unit = [peaking(RATE, 6000, 3, 1)];
    const response = (sections: typeof unit) => frequencyResponse(impulseResponse(SWEEP, through(sections), RATE));
    const { points } = substituted(response([...loudspeaker, ...unit]), response(loudspeaker));
    for (const { hz, db } of points.filter((p) => p.hz > 40 && p.hz < 18_000)) {
      expect(Math.abs(db - cascadeGainDb(unit, hz, RATE))).toBeLessThan(0.1);
    }
  });
});

it('a room in the response tells its reverberation time', () => {
  const tail = Float64Array.from({ length: 0.6 * RATE }, (_, i) =>
    i % 7 === 0 ? 0.05 * (i % 2 ? -1 : 1) * 10 ** ((-3 * i) / RATE / 0.4) : 0,
  );
  tail[0] = 1;
  const { room } = measureResponse(SWEEP, convolve(through([], 500, RATE), tail), RATE, { withRoom: true });
  expect(Math.abs((room?.t20?.value ?? 0) / 0.4 - 1)).toBeLessThan(0.03);
  expect(room?.c50?.value).toBeGreaterThan(0);
});

describe('summary of a response', () => {
  const response = (at: (hz: number) => number): FrequencyResponse => ({
    lowestValidHz: 20,
    points: fractionalOctaveBands(24).map((b) => {
      const hz = Math.sqrt(b.lowHz * b.highHz);
      return { hz, db: at(hz), u: 0.1 };
    }),
  });
  it('a flat one has no limits, no slope, no deviation', () => {
    const s = summariseResponse(response(() => -12));
    expect(s).toMatchObject({ minus3LowHz: null, minus3HighHz: null, minus6LowHz: null, minus6HighHz: null });
    expect(s.referenceDb).toBeCloseTo(-12, 9);
    expect(s.deviationDb?.value).toBeCloseTo(0, 9);
    expect(s.slopeDbPerOctave?.value).toBeCloseTo(0, 9);
    expect(s.presenceDb?.value).toBeCloseTo(0, 9);
  });
  // Butterworth: −3.01 dB at the corner; −6 dB of second order where (fc/f)⁴ = 2.98.
  it('finds the corners of Butterworth flanks', () => {
    const s = summariseResponse(
      response((hz) => -10 * Math.log10(1 + (80 / hz) ** 4) - 10 * Math.log10(1 + (hz / 12_000) ** 8)),
    );
    // −3.01 dB at the corner, and a straight line between points of 1/24 octave: 0.4 % at most.
    expect(Math.abs((s.minus3LowHz?.value ?? NaN) / 80 - 1)).toBeLessThan(0.004);
    expect(Math.abs((s.minus6LowHz?.value ?? NaN) / (80 / 2.981 ** 0.25) - 1)).toBeLessThan(0.004);
    expect(Math.abs((s.minus3HighHz?.value ?? 0) / 12_000 - 1)).toBeLessThan(0.01);
  });
  it('finds a tilt, a hill with its width, and a hole', () => {
    const bump = (hz: number, centre: number, db: number, octaves: number): number =>
      db * Math.exp(-4 * Math.LN2 * (Math.log2(hz / centre) / octaves) ** 2);
    const s = summariseResponse(
      response((hz) => 0.5 * Math.log2(hz / 1000) + bump(hz, 4000, 6, 0.5) + bump(hz, 400, -5, 0.5)),
    );
    expect(s.peak?.hz).toBeCloseTo(4000, -2.5);
    expect(s.peak?.db).toBeGreaterThan(4.5);
    // Between the outermost points above half the height, after the line is taken off: up to 0.15 octaves less.
    expect(s.peak?.widthOctaves).toBeLessThanOrEqual(0.5);
    expect(s.peak?.widthOctaves).toBeGreaterThan(0.35);
    expect(s.dip?.hz).toBeCloseTo(400, -1.7);
    expect(s.slopeDbPerOctave?.value).toBeGreaterThan(0.4);
    expect(summariseResponse(response((hz) => -1.5 * Math.log2(hz))).slopeDbPerOctave?.value).toBeCloseTo(-1.5, 6);
  });
  it('compares 5–9 kHz with 1–3 kHz', () => {
    expect(summariseResponse(response((hz) => (hz >= 4500 ? 4 : 0))).presenceDb?.value).toBeCloseTo(4, 6);
  });
  it('tells what a gated response cannot', () => {
    const gatedAt300 = { ...response(() => 0), lowestValidHz: 300 };
    const s = summariseResponse(gatedAt300);
    expect(s.deviationDb).toBeNull();
    expect(s.peak).toBeNull();
    const figures = responseMeasurements(s, 'test');
    expect(figures.find((m) => m.quantity === 'responseDeviation')?.notMeasured).toMatch(/100 Hz/);
    expect(figures.every((m) => m.value === null || Number.isFinite(m.value))).toBe(true);
  });
});

describe('harmonic distortion', () => {
  // x + a2·x² + a3·x³ with amplitude A: second harmonic a2·A²/2, third a3·A³/4, fundamental A + 3·a3·A³/4.
  it('of a polynomial, order by order from the sweep, to 0.2 dB', () => {
    const [a2, a3] = [0.02, 0.03];
    const bent = new Float64Array(SWEEP.length + RATE);
    SWEEP.forEach((x, i) => (bent[i + 500] = x + a2 * x * x + a3 * x ** 3));
    const { orders, thdDb } = harmonicDistortion(impulseResponse(SWEEP, bent, RATE), 1000);
    const a = 10 ** (-6 / 20);
    const fundamental = a + (3 * a3 * a ** 3) / 4;
    const second = 20 * Math.log10((a2 * a * a) / 2 / fundamental);
    const third = 20 * Math.log10((a3 * a ** 3) / 4 / fundamental);
    expect(Math.abs((orders[0].db ?? 0) - second)).toBeLessThan(0.2);
    expect(Math.abs((orders[1].db ?? 0) - third)).toBeLessThan(0.2);
    expect(orders[2].db ?? 0).toBeLessThan(-90);
    expect(Math.abs((thdDb ?? 0) - 10 * Math.log10(10 ** (second / 10) + 10 ** (third / 10)))).toBeLessThan(0.2);
  });
  it('leaves out orders that the sweep does not reach', () => {
    const { orders } = harmonicDistortion(impulseResponse(SWEEP, through([]), RATE), 6000);
    expect(orders.map((o) => o.db === null)).toEqual([false, false, true, true]);
  });

  it('of a tone: THD and THD+N', () => {
    const tone = mixed(mixed(sine(997, -1, 2), sine(2 * 997, -81, 2)), sine(3 * 997, -91, 2));
    const noise = lcgNoise(tone.length, 10 ** (-70 / 20), 4);
    const clean = toneDistortion(tone, RATE);
    expect(clean.hz).toBeCloseTo(997, 1);
    expect(clean.thdDb).toBeCloseTo(10 * Math.log10(1e-8 + 1e-9), 1);
    expect(clean.thdPlusNoiseDb).toBeCloseTo(clean.thdDb, 1);
    // White noise of mean square A²/3, 20 kHz of 24 kHz of it in band.
    const noisy = toneDistortion(mixed(tone, noise), RATE);
    const share = (1e-7 / 3) * (19_980 / 24_000);
    const tonePower = 10 ** (-1 / 10) / 2;
    expect(Math.abs(noisy.thdPlusNoiseDb - 10 * Math.log10(share / tonePower + 1.1e-8))).toBeLessThan(0.3);
  });
  it('a pure tone shows less than −150 dB (side lobes of the window)', () => {
    expect(toneDistortion(sine(1003.7, 0, 2), RATE).thdDb).toBeLessThan(-150);
    expect(blackmanHarris7(64)[32]).toBeCloseTo(1, 6);
    expect(() => toneDistortion(new Float64Array(1000), RATE)).toThrow(RangeError);
  });
});

describe('fractional-octave bands, IEC 61260-1:2014', () => {
  it('third octaves are those of the table, octaves and halves around 1 kHz', () => {
    expect(fractionalOctaveBands(3).map((b) => b.nominalHz)).toHaveLength(31);
    const octave = fractionalOctaveBands(1, 900, 1100)[0];
    // Annex E: edges of the 1 kHz octave 707.95 Hz and 1412.5 Hz (base ten).
    expect(octave.lowHz).toBeCloseTo(707.95, 2);
    expect(octave.highHz).toBeCloseTo(1412.54, 2);
    expect(fractionalOctaveBands(24, 900, 1100).map((b) => b.nominalHz)).toContain(1014);
  });
  it('follow each other without gap', () => {
    for (const fraction of [1, 3, 6, 12, 24] as const) {
      const bands = fractionalOctaveBands(fraction);
      bands.slice(1).forEach((b, i) => expect(b.lowHz / bands[i].highHz).toBeCloseTo(1, 9));
    }
  });
  it('an even fraction puts an edge at 1 kHz', () => {
    expect(fractionalOctaveBands(6, 900, 1200).some((b) => Math.abs(b.lowHz - 1000) < 1e-6)).toBe(true);
  });
});

it('Butterworth sections fall by 3.01 dB at the corner, whatever the order', () => {
  for (const order of [1, 2, 3, 4, 7]) {
    expect(cascadeGainDb(butterworthHighPass(order, 100, RATE), 100, RATE)).toBeCloseTo(-3.0103, 3);
    expect(cascadeGainDb(butterworthHighPass(order, 100, RATE), 10, RATE)).toBeCloseTo(-20 * order, 1);
  }
});
