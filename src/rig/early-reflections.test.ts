import { describe, expect, it } from 'vitest';
import { firstOrderGain } from '#core/measure/polar-pattern';
import { earlyReflections } from './early-reflections';
import { REFERENCE_DISTANCE_M } from './microphone';
import { arrivals, NET_LOFT, PADDED_CRATE } from './room';

const RATE = 48_000;
const voice = (seed: number) => Float64Array.from({ length: 9_000 }, (_, i) => Math.sin(0.05 * i * seed) * Math.cos(i));

/** Reflection by reflection, as a microphone of a pattern hears each of them. */
function plainly(dry: Float64Array, distanceM: number, angleDeg: number, alpha: number): Float64Array {
  const out = new Float64Array(dry.length + 2_000);
  for (const r of arrivals(NET_LOFT, distanceM, angleDeg).slice(1)) {
    const gain = ((r.reflection * REFERENCE_DISTANCE_M) / r.distanceM) * firstOrderGain(alpha, r.angleDeg);
    const at = Math.round(r.delayS * RATE);
    for (let i = 0; i < dry.length; i++) out[at + i] += gain * dry[i];
  }
  return out;
}

describe('early reflections', () => {
  it('of any pattern are a sum of two, as each reflection for itself says', () => {
    for (const [distanceM, angleDeg, alpha] of [
      [0.15, 0, 0.5],
      [0.6, 180, 0.37],
      [1.2, 90, 1],
    ]) {
      const dry = voice(1);
      const made = earlyReflections(dry, NET_LOFT, distanceM, angleDeg, RATE);
      const plain = plainly(dry, distanceM, angleDeg, alpha);
      made?.pressure.forEach((p, i) =>
        expect(Math.abs(alpha * p + (1 - alpha) * made.gradient[i] - plain[i])).toBeLessThan(1e-12),
      );
      expect(made?.pressure.length).toBeGreaterThan(dry.length);
    }
  });

  it('are none where nothing comes back', () => {
    expect(earlyReflections(voice(1), PADDED_CRATE, 0.15, 0, RATE)).toBeNull();
  });

  it("are made once for a voice in a place, and are another voice's for none", () => {
    const [one, other] = [voice(1), voice(2)];
    const first = earlyReflections(one, NET_LOFT, 0.3, 0, RATE);
    expect(earlyReflections(one, NET_LOFT, 0.3, 0, RATE)).toBe(first);
    expect(earlyReflections(one, NET_LOFT, 0.3, 1, RATE)).not.toBe(first);
    const second = earlyReflections(other, NET_LOFT, 0.3, 0, RATE);
    expect(second?.pressure).not.toEqual(first?.pressure);
    // What was forgotten is made again, and is the same.
    for (let d = 1; d < 20; d++) earlyReflections(one, NET_LOFT, 0.3 + d / 10, 0, RATE);
    const again = earlyReflections(one, NET_LOFT, 0.3, 0, RATE);
    expect(again).not.toBe(first);
    expect(again).toEqual(first);
  });
});
