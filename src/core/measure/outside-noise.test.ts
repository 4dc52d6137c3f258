import { describe, expect, it } from 'vitest';
import { outsideChange, type OutsideTake } from './outside-noise';

/** Three bands, of which two lie below 200 Hz. */
const take = (rest: Partial<OutsideTake> = {}, levels: readonly (number | null)[] = [-40, -40, -50]): OutsideTake => ({
  thirdOctave: [50, 200, 1000].map((centreHz, i) => ({ centreHz, levelDbfs: levels[i] })),
  aDbfs: -48,
  stepPowers: new Float64Array(100).fill(1e-4),
  gainDb: 30,
  ...rest,
});

describe('what a part takes away of a noise from outside', () => {
  it('is level without it less level with it: of the whole, A-weighted, below 200 Hz and by band', () => {
    const change = outsideChange(take(), take({ aDbfs: -52 }, [-43, -43, -60]));
    // 2·10⁻⁴ + 10⁻⁵ against 2·10^−4.3 + 10⁻⁶.
    expect(change?.z.db).toBeCloseTo(10 * Math.log10(2.1e-4 / (2 * 10 ** -4.3 + 1e-6)), 9);
    expect(change?.a.db).toBeCloseTo(4, 9);
    expect(change?.low.db).toBeCloseTo(3, 9);
    expect(change?.bands.map((b) => [b.centreHz, b.removedDb])).toEqual([[50, 3], [200, 3], [1000, 10]]); // prettier-ignore
  });

  it('is brought to one gain first', () => {
    const change = outsideChange(take({ gainDb: 30 }), take({ gainDb: 36 }));
    for (const part of [change?.z, change?.a, change?.low]) expect(part?.db).toBeCloseTo(6, 9);
    expect(change?.bands.map((b) => b.removedDb)).toEqual([6, 6, 6]);
  });

  it('leaves a band that one of the takes does not hold open', () => {
    const change = outsideChange(take({ gainDb: 20 }, [-40, null, -50]), take({ gainDb: 30 }, [-40, -40, -50]));
    expect(change?.bands.map((b) => b.removedDb)).toEqual([10, null, 10]);
  });

  it('is as unsure as both levels wander from second to second', () => {
    // Ten seconds that stand at ±1 dB by turns: standard deviation √(10/9), of the mean √(1/9).
    const wandering = Float64Array.from({ length: 109 }, (_, i) => 1e-4 * 10 ** ((Math.floor(i / 10) % 2 === 0 ? 1 : -1) / 10)); // prettier-ignore
    const steady = outsideChange(take(), take());
    expect(steady?.z.u).toBeCloseTo(0, 9);
    const one = outsideChange(take({ stepPowers: wandering }), take());
    expect(one?.z.u).toBeCloseTo(Math.sqrt(1 / 9), 9);
    const both = outsideChange(take({ stepPowers: wandering }), take({ stepPowers: wandering }));
    expect([both?.z.u, both?.a.u, both?.low.u].map((u) => u?.toFixed(9))).toEqual(new Array(3).fill(Math.sqrt(2 / 9).toFixed(9))); // prettier-ignore
  });

  it('has no ± from less than four seconds of sound, and nothing to say of digital silence', () => {
    const short = take({ stepPowers: new Float64Array(39).fill(1e-4) });
    expect(outsideChange(short, take())?.z.u).toBeNull();
    expect(outsideChange(take(), short)?.a.u).toBeNull();
    expect(outsideChange(take(), take({ stepPowers: new Float64Array(40).fill(1e-4) }))?.z.u).toBeCloseTo(0, 9);
    const half = Float64Array.from({ length: 60 }, (_, i) => (i < 30 ? 0 : 1e-4));
    expect(outsideChange(take(), take({ stepPowers: half }))?.z.u, 'three of six seconds sound').toBeNull();
    expect(outsideChange(take({}, [null, null, null]), take())).toBeNull();
    expect(outsideChange(take(), take({ aDbfs: -Infinity }))).toBeNull();
  });
});
