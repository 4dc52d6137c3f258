import { describe, expect, it } from 'vitest';
import { seededBits, uniform } from '../stats/random';
import { roomMeasurements, roomReport } from './room-acoustics';

const RATE = 16_000;

/** An even decay of random signs, so that it sounds at all frequencies, over noise as strong in every sample. */
function response(reverberationS: number, { noiseDb = -Infinity, seconds = 2, beforeS = 0.01, direct = 0 } = {}) {
  const bits = seededBits('room');
  const noise = 10 ** (noiseDb / 10);
  const before = Math.round(beforeS * RATE);
  return Float64Array.from({ length: Math.round(seconds * RATE) + before }, (_, i) => {
    const sign = uniform(bits) < 0.5 ? -1 : 1;
    if (i < before) return sign * Math.sqrt(noise);
    const at = i - before;
    // The first sample is the largest: there the direct sound is looked for.
    return sign * Math.sqrt(10 ** ((-6 * at) / RATE / reverberationS) * (at === 0 ? 1.21 + direct : 1) + noise);
  });
}
/** Energy before a moment re that after it, dB, of a decay without end. */
const ratioDb = (reverberationS: number, seconds: number): number =>
  10 * Math.log10(10 ** ((6 * seconds) / reverberationS) - 1);

describe('figures of a room from an even decay', () => {
  it.each([0.4, 0.8])('read its reverberation time of %f s in every range, and its early energy', (seconds) => {
    const found = roomReport(response(seconds, { noiseDb: -70 }), RATE);
    for (const figure of [found.edt, found.t20, found.t30]) expect((figure?.value ?? 0) / seconds).toBeCloseTo(1, 2);
    expect(Math.abs((found.c50?.value ?? NaN) - ratioDb(seconds, 0.05))).toBeLessThan(0.05);
    expect(Math.abs((found.directToReverberant?.value ?? NaN) - ratioDb(seconds, 0.0025))).toBeLessThan(0.1);
    expect(Math.abs(found.headroomDb - 70)).toBeLessThan(0.5);
  });

  it('ask for 10 dB of headroom below the end of each range', () => {
    const given = (noiseDb: number) => {
      const { edt, t20, t30, c50, directToReverberant } = roomReport(response(0.5, { noiseDb }), RATE);
      return [edt, t20, t30, c50, directToReverberant].map((figure) => figure !== null);
    };
    expect(given(-50)).toEqual([true, true, true, true, true]);
    expect(given(-40)).toEqual([true, true, false, true, true]);
    expect(given(-30)).toEqual([true, false, false, true, true]);
    expect(given(-17)).toEqual([false, false, false, false, false]);
  });

  it('scatter as the bandwidth and the time say (ISO 3382-2, n = 10)', () => {
    const { t20, t30, edt, c50, directToReverberant } = roomReport(response(0.8, { noiseDb: -70 }), RATE);
    // Random signs are white: half the sample rate, but for what of the lowest bins is left out.
    const bandTime = 8000 * 0.8;
    const near = (u: number | undefined, expected: number): void => {
      expect(Math.abs((u ?? 0) / expected - 1)).toBeLessThan(0.08);
    };
    near(t20?.uncertainty, 0.8 * 0.88 * Math.sqrt(1.19 / bandTime));
    near(t30?.uncertainty, 0.8 * 0.55 * Math.sqrt(1.152 / bandTime));
    near(edt?.uncertainty, 0.8 * 0.8 * 0.88 * 2 ** 1.16 * Math.sqrt(1.19 / bandTime));
    // Energy of decaying noise: readings as bandwidth times twice its time constant, T/(6 ln 10).
    const constant = 0.8 / (6 * Math.LN10);
    const late = 1 / (8000 * 2 * constant);
    near(directToReverberant?.uncertainty, (10 / Math.LN10) * Math.sqrt(late));
    near(c50?.uncertainty, (10 / Math.LN10) * Math.sqrt(late + 1 / (8000 * 0.05)));
  });

  it('of a click in a free field are none', () => {
    const click = new Float64Array(RATE).fill(1e-6);
    click[100] = 1;
    expect(roomReport(click, RATE)).toMatchObject({ edt: null, t20: null, t30: null, c50: null });
    expect(roomReport(response(0.025, { noiseDb: -60 }), RATE)).toMatchObject({ t20: null, t30: null });
  });

  it('go no further than was recorded, at each frequency', () => {
    const long = response(0.8, { noiseDb: -70 });
    expect(roomReport(long, RATE).reachS).toBeCloseTo(2, 3);
    expect(roomReport(long, RATE, () => 0.3).reachS).toBeCloseTo(0.3, 9);
    // What comes behind is not looked at: there the noise is read from the decay itself.
    expect(roomReport(long, RATE, () => 0.3).headroomDb).toBeLessThan(25);
    const low = roomReport(long, RATE, (hz) => (hz <= 250 ? 1.5 : 0.05));
    expect(low.octaves.map((o) => o.t20 !== null)).toEqual([true, false, false, false, false, false]);
    expect(roomReport(long, 10_000).octaves.map((o) => o.centreHz)).toEqual([125, 250, 500, 1000, 2000]);
  });

  it('by octaves read the same decay, and are less sure the narrower the octave', () => {
    const { octaves } = roomReport(response(0.8, { noiseDb: -70 }), RATE);
    expect(octaves.map((o) => o.centreHz)).toEqual([125, 250, 500, 1000, 2000, 4000]);
    for (const { t20 } of octaves) {
      expect(Math.abs((t20?.value ?? NaN) - 0.8)).toBeLessThan(4 * (t20?.uncertainty ?? 0));
    }
    const [low, , , , , high] = octaves.map((o) => (o.t20?.uncertainty ?? NaN) / Math.sqrt(o.t20?.value ?? NaN));
    // Bandwidth grows by 32: the scatter re √T falls by its root.
    expect(low / high).toBeCloseTo(Math.sqrt(32), 6);
  });

  it('are told with the headroom, or with what was missing', () => {
    const room = roomReport(response(0.5, { noiseDb: -40 }), RATE);
    const told = roomMeasurements(room);
    expect(told.map((m) => m.quantity)).toEqual(['edt', 't20', 't30', 'c50', 'directToReverberant']);
    expect(told[1]).toMatchObject({ value: room.t20?.value, uncertainty: room.t20?.uncertainty });
    expect(told[1].condition).toContain('40 dB above the noise');
    expect(told[2].notMeasured).toBe(
      'The decay meets the noise too early: it needs 45 dB above the noise, and has 40.',
    );
    const none = { ...room, edt: null, t20: null, c50: null, directToReverberant: null };
    expect(roomMeasurements(none).map((m) => /needs (\d+) dB/.exec(m.notMeasured ?? '')?.[1])).toEqual(['20', '35', '45', '20', '20']); // prettier-ignore
    expect(roomMeasurements({ ...none, reachS: 0.09 })[0].notMeasured).toMatch(/^The recording ends with the sweep/);
    expect(roomMeasurements({ ...none, reachS: 0.1 })[0].notMeasured).toMatch(/^The decay meets the noise/);
    expect(roomMeasurements({ ...room, headroomDb: Infinity })[0]).toMatchObject({ settings: { headroomDb: 999 }, condition: expect.stringContaining('no noise') as string }); // prettier-ignore
  });
});
