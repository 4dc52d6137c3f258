import { describe, expect, it } from 'vitest';
import { screenPauses } from './pause-screening';

/** Frames of 20 ms that follow a level over time, by turns a little below, on, and above it. */
function screened(
  seconds: number,
  levelDb: (t: number) => number,
  pause: readonly [number, number],
  isZero: (t: number) => boolean = () => false,
  scatterDb = 0.2,
) {
  const count = Math.round(seconds * 50);
  const powers = Float64Array.from({ length: count }, (_, i) =>
    isZero(i / 50) ? 0 : 10 ** ((levelDb(i / 50) + ((i % 3) - 1) * scatterDb) / 10),
  );
  const zeros = Uint8Array.from({ length: count }, (_, i) => (isZero(i / 50) ? 1 : 0));
  return screenPauses(powers, zeros, [{ startS: pause[0], endS: pause[1] }])[0];
}
/** Words until 3 s, then a pause, and words again from 7 s to 10 s. */
const spoken =
  (pause: (since: number) => number) =>
  (t: number): number =>
    t < 3 || t >= 7 ? -20 : pause(t - 3);

describe('a pause looked at in frames of 20 ms', () => {
  it('is nothing but noise where nothing happens', () => {
    expect(screened(10, spoken(() => -70), [3.2, 6.8])).toEqual({
      segment: { startS: 3.2, endS: 6.8 },
      ...{ isEdge: false, followsSound: true, isZero: false, disturbances: [], trendDb: null, gateDb: null },
    }); // prettier-ignore
  });

  it('is at an edge where nobody spoke before, or nobody speaks after it', () => {
    const at = (from: number, to: number) => {
      const { isEdge, followsSound } = screened(10, () => -70, [from, to]);
      return [isEdge, followsSound];
    };
    expect(at(0, 2)).toEqual([true, false]);
    expect(at(0.1, 2), 'a tenth of a second is no sound').toEqual([true, false]);
    expect(at(0.12, 2)).toEqual([false, true]);
    expect(at(8, 10)).toEqual([true, true]);
    expect(at(8, 9.9)).toEqual([true, true]);
    expect(at(8, 9.88)).toEqual([false, true]);
  });

  it('holds digital silence where more than a tenth of it is zeros', () => {
    const zeros = (share: number) =>
      screened(10, spoken(() => -70), [3, 7], (t) => t >= 4 && t < 4 + share * 4 - 1e-9).isZero; // prettier-ignore
    expect([zeros(0.1), zeros(0.11), zeros(1)]).toEqual([false, true, true]);
    const found = screened(10, spoken((s) => -60 - 4 * s), [3, 7], (t) => t >= 5 && t < 6); // prettier-ignore
    expect([found.trendDb, found.gateDb]).toEqual([null, null]);
  });

  it('is disturbed by what stands 6 dB above its median, or five of its deviations', () => {
    const click = (db: number, scatterDb: number) =>
      screened(10, spoken((s) => (s >= 2 && s < 2.02 ? -70 + db : -70)), [3.2, 6.8], () => false, scatterDb).disturbances.length; // prettier-ignore
    expect([click(5.5, 0.2), click(6.5, 0.2)]).toEqual([0, 1]);
    // Frames at −1, 0 and 1 dB: the median deviation is 1 dB, five times 1.4826 of it 7.4 dB; the click adds 0 to 1 dB.
    expect([click(6.3, 1), click(7.5, 1)]).toEqual([0, 1]);
  });

  it('names disturbances in seconds, those a frame or two apart as one', () => {
    const at = (...moments: number[]) =>
      screened(10, spoken((s) => (moments.some((m) => s >= m - 1e-9 && s < m + 0.02 - 1e-9) ? -50 : -70)), [3.2, 6.8]) // prettier-ignore
        .disturbances.map((d) => [d.startS, d.endS].map((v) => Number(v.toFixed(2))));
    expect(at(1)).toEqual([[4, 4.02]]);
    expect(at(1, 1.02, 1.04)).toEqual([[4, 4.06]]);
    expect(at(1, 1.06), 'two quiet frames between').toEqual([[4, 4.08]]);
    expect(at(1, 1.08), 'three').toEqual([[4, 4.02], [4.08, 4.1]]); // prettier-ignore
  });

  it('has a trend where its last third differs from its first by more than 2 dB, and than its scatter', () => {
    const falls = (db: number, scatterDb = 0.2) =>
      screened(10, spoken((s) => -70 - (db * (s - 0.2)) / 3.6), [3.2, 6.8], () => false, scatterDb).trendDb; // prettier-ignore
    // Between the middles of the thirds lie two thirds of the fall.
    expect([falls(2.9), falls(-2.9)]).toEqual([null, null]);
    expect(Math.abs((falls(6) ?? 0) + 4)).toBeLessThan(0.1);
    expect(Math.abs((falls(-6) ?? 0) - 4)).toBeLessThan(0.1);
    // Frames at −6, 0 and 6 dB: deviation of steps 6 dB, three times √(2/60) of it 3.3 dB.
    expect([falls(4.6, 6), falls(5.4, 6) === null]).toEqual([null, false]);
    // Nothing precedes it, and thirds of fewer than five frames say nothing.
    expect(screened(10, (t) => -70 - t, [0, 4]).trendDb).toBeNull();
    expect(screened(10, spoken((s) => -70 - 40 * s), [3.2, 3.48]).trendDb).toBeNull(); // prettier-ignore
    expect(screened(10, spoken((s) => -70 - 40 * s), [3.2, 3.5]).trendDb).not.toBeNull(); // prettier-ignore
  });

  describe('a gate', () => {
    const gateDb = (pause: (s: number) => number) => screened(10, spoken(pause), [3.2, 6.8]).gateDb;
    const step = (db: number, holdS = 0.4, rampS = 0) => (s: number) =>
      s < holdS ? -60 : s < holdS + rampS ? -60 - (db * (s - holdS)) / rampS : -60 - db; // prettier-ignore

    it('holds the noise for a tenth of a second, then drops it by 6 dB or more', () => {
      expect(Math.abs((gateDb(step(12)) ?? 0) - 12)).toBeLessThan(0.1);
      expect(Math.abs((gateDb(step(6.3)) ?? 0) - 6.3)).toBeLessThan(0.1);
      expect(gateDb(step(5.7))).toBeNull();
      expect(gateDb(() => -60)).toBeNull();
    });

    it('may take up to two tenths of a second', () => {
      for (const rampS of [0.04, 0.1, 0.2])
        expect(Math.abs((gateDb(step(12, 0.4, rampS)) ?? 0) - 12), `${rampS} s`).toBeLessThan(0.6);
    });

    it('is told from a decay, which falls as fast before and behind', () => {
      expect(gateDb((s) => -40 - 40 * s), 'the tail of a room').toBeNull(); // prettier-ignore
      expect(gateDb((s) => -60 - 15 * s)).toBeNull();
    });

    it('is told from the last word, and from a sound in the middle', () => {
      // What is held lies less than 14 dB below the words.
      expect(gateDb((s) => (s < 0.4 ? -33 : -60))).toBeNull();
      expect(Math.abs((gateDb((s) => (s < 0.4 ? -35 : -60)) ?? 0) - 25)).toBeLessThan(0.1);
      // Before it, it was already quieter.
      expect(gateDb((s) => (s < 1 ? -70 : s < 1.4 ? -60 : -72))).toBeNull();
    });

    it('the largest of several steps counts', () => {
      expect(Math.abs((gateDb((s) => (s < 0.4 ? -50 : s < 1 ? -57 : -69)) ?? 0) - 12)).toBeLessThan(0.1);
      expect(Math.abs((gateDb((s) => (s < 0.4 ? -50 : s < 1 ? -62 : -69)) ?? 0) - 12)).toBeLessThan(0.1);
    });
  });
});
