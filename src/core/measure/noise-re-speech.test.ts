import { describe, expect, it } from 'vitest';
import { dbfs } from '../units';
import { powerToLufs } from './integrated-loudness';
import { noiseReSpeech, type NoiseTake, type SpeechReference } from './noise-re-speech';
import { selfNoise } from './self-noise';
import { heldAgainstPauses } from './silence-against-pauses';
import type { SilenceNoise } from './silence-noise';

/** Noise of a level, unweighted 3 dB above A-weighted; of the K-weighted power that is taken off speech. */
const noise = (aDbfs: number, rest: Partial<SilenceNoise> = {}, u: number | null = 0.3): SilenceNoise => ({
  segment: { startS: 0, endS: 5 },
  pauses: 2,
  seconds: 5,
  highHz: 20_000,
  bound: 'exact',
  refused: null,
  z: { levelDbfs: dbfs(aDbfs + 3), spread: { sd: 1, count: 9, of: 'frames' }, uncertaintyDb: u },
  a: { levelDbfs: dbfs(aDbfs), spread: { sd: 2, count: 9, of: 'frames' }, uncertaintyDb: u },
  thirdOctave: [],
  kMeanSquare: 0,
  findings: [],
  ...rest,
});
/** Ten seconds of speech whose K-weighted power is the same all along. */
const speech = (power: number, gainDb = 40, uncertaintyLu: number | null = 0.4): SpeechReference => ({
  loudness: { integratedLufs: powerToLufs(power), uncertaintyLu },
  stepPowers: new Float64Array(100).fill(power),
  gainDb,
});
const take = (of: SilenceNoise | null, gainDb = 40): NoiseTake => ({ noise: of, gainDb });

describe('noise re speech', () => {
  it('is the level of the noise once the speech stands at −23 LUFS', () => {
    const [z, a] = noiseReSpeech(speech(1e-3), take(noise(-80)));
    const lufs = powerToLufs(1e-3);
    expect(a.value).toBeCloseTo(-80 - 23 - lufs, 9);
    expect(z.value).toBeCloseTo(-77 - 23 - lufs, 9);
    expect([z.quantity, a.quantity]).toEqual(['noiseReSpeechZ', 'noiseReSpeechA']);
    expect([z.condition, a.condition].map((c) => c.split(',')[0])).toEqual(['unweighted', 'A-weighted']);
    expect(a.condition).toContain('speech at −23 LUFS');
    expect([z.spread?.sd, a.spread?.sd]).toEqual([1, 2]);
    expect(a.settings).toMatchObject({ speechTargetLufs: -23, gainBetweenDb: 0, highHz: 20_000 });
  });

  it('is brought to the gain of the speech', () => {
    const [, a] = noiseReSpeech(speech(1e-3, 35), take(noise(-60), 60));
    // The silence was recorded with 25 dB more: at the gain of the speech it reads −85.
    expect(a.value).toBeCloseTo(-85 - 23 - powerToLufs(1e-3), 9);
    expect(a.settings.gainBetweenDb).toBe(-25);
  });

  it('takes the noise that the speech stands in off its loudness, at the gain of the speech', () => {
    // A quarter of what the speech take holds is noise, recorded 10 dB lower in the silent take.
    const found = noiseReSpeech(speech(4e-4, 50), take(noise(-60, { kMeanSquare: 1e-5 }), 40))[1];
    expect(found.settings.speechLufs).toBeCloseTo(powerToLufs(3e-4), 9);
    expect(found.value).toBeCloseTo(-50 - 23 - powerToLufs(3e-4), 9);
  });

  it('joins the uncertainties of both by root sum of squares, or has none', () => {
    expect(noiseReSpeech(speech(1e-3), take(noise(-80)))[1].uncertainty).toBeCloseTo(0.5, 9);
    expect(noiseReSpeech(speech(1e-3, 40, null), take(noise(-80)))[1].uncertainty).toBeNull();
    expect(noiseReSpeech(speech(1e-3), take(noise(-80, {}, null)))[0].uncertainty).toBeNull();
  });

  it('keeps the bound of the noise', () => {
    expect(noiseReSpeech(speech(1e-3), take(noise(-80, { bound: 'at-most' })))[0].bound).toBe('at-most');
  });

  it('says why there is none', () => {
    const reasons = (of: SpeechReference, silence: NoiseTake) =>
      new Set(noiseReSpeech(of, silence).map((m) => m.notMeasured));
    const silent = { ...speech(1e-3), loudness: { integratedLufs: powerToLufs(0), uncertaintyLu: null } };
    expect(reasons(silent, take(noise(-80)))).toEqual(new Set(['The speech take is silent.']));
    expect(reasons(speech(1e-3), take(null))).toEqual(new Set(['The silent take holds no silence of at least 0.5 s.']));
    expect(reasons(speech(1e-3), take(noise(-80, { refused: 'why' })))).toEqual(new Set(['why']));
    const buried = 'The speech does not stand out of the noise.';
    expect(reasons(speech(1e-3), take(noise(-40, { kMeanSquare: 2e-3 })))).toEqual(new Set([buried]));
    // Speech alone 3 dB above the noise is what it takes: noise of a third of all.
    expect(reasons(speech(1e-3), take(noise(-40, { kMeanSquare: 1e-3 / 2.9 })))).toEqual(new Set([buried]));
    expect(reasons(speech(1e-3), take(noise(-40, { kMeanSquare: 1e-3 / 3.1 })))).toEqual(new Set([null]));
  });
});

describe('a silent take held against the pauses of the speech', () => {
  const quiet = noise(-80);
  const against = (of: SilenceNoise | null, pauses: SilenceNoise | null, gains: readonly [number, number] = [40, 40]) =>
    heldAgainstPauses(take(of, gains[0]), take(pauses, gains[1]));

  it('stands as it is where both agree to 3 dB at one gain, or by what they are unsure of', () => {
    expect(against(quiet, noise(-77.1))).toBe(quiet);
    expect(against(quiet, noise(-82.9))).toBe(quiet);
    expect(against(quiet, noise(-70), [40, 50]), 'at one gain they are equal').toBe(quiet);
    // 2·√(1.5² + 2²) = 5 dB.
    const unsure = noise(-80, {}, 1.5);
    expect(against(unsure, noise(-75.1, {}, 2))).toBe(unsure);
    expect(against(unsure, noise(-74.9, {}, 2))).not.toBe(unsure);
    expect(against(noise(-80, {}, null), noise(-76.9, {}, null))?.findings.length).toBe(1);
    expect(against(noise(-80, {}, 1.6), noise(-76.9, {}, null))?.findings.length).toBe(0);
    expect(against(noise(-80, {}, null), noise(-76.9, {}, 1.6))?.findings.length).toBe(0);
  });

  it('takes half of the difference into its ±, and says so', () => {
    const found = against(quiet, noise(-72));
    expect(found?.findings).toEqual([{ kind: 'silence-step', text: 'the pauses of the speech are 8.0 dB louder than the silent take' }]); // prettier-ignore
    expect(found?.a).toMatchObject({ levelDbfs: -80, uncertaintyDb: Math.hypot(0.3, 4) });
    expect(found?.z.uncertaintyDb).toBeCloseTo(Math.hypot(0.3, 4), 9);
    expect(against(quiet, noise(-88))?.findings[0].text).toBe('the pauses of the speech are 8.0 dB quieter than the silent take'); // prettier-ignore
    expect(against(noise(-80, {}, null), noise(-72))?.a.uncertaintyDb).toBeCloseTo(4, 9);
    const before = noise(-80, { findings: [{ kind: 'click', text: 'a click' }] });
    expect(against(before, noise(-72))?.findings.map((f) => f.kind)).toEqual(['click', 'silence-step']);
    // At one gain: 10 dB more of it in the speech take.
    expect(against(quiet, noise(-62), [40, 50])?.findings[0].text).toContain('8.0 dB louder');
  });

  it('a limit says nothing against what lies within it', () => {
    expect(against(quiet, noise(-72, { bound: 'at-most' }))).toBe(quiet);
    expect(against(quiet, noise(-88, { bound: 'at-most' }))).not.toBe(quiet);
    expect(against(quiet, noise(-88, { bound: 'at-least' }))).toBe(quiet);
    expect(against(quiet, noise(-72, { bound: 'at-least' }))).not.toBe(quiet);
  });

  it('behind a gate it says nothing of the noise, unless it is louder than the pauses', () => {
    const gated = (aDbfs: number) => noise(aDbfs, { refused: 'A gate.', findings: [{ kind: 'gate', text: 'gate' }] });
    expect(against(quiet, gated(-82))?.refused).toBe('A gate. The silent take is no louder than its pauses.');
    expect(against(quiet, gated(-70))?.refused).toContain('A gate.');
    expect(against(quiet, gated(-84)), 'more than 3 dB louder: nothing closed').toBe(quiet);
    expect(against(quiet, noise(-82, { refused: 'Zeros.' })), 'no gate was seen').toBe(quiet);
  });

  it('has nothing to be held against', () => {
    expect(against(null, quiet)).toBeNull();
    expect(against(quiet, null)).toBe(quiet);
    expect(against(quiet, quiet)).toBe(quiet);
    const refused = noise(-80, { refused: 'why' });
    expect(against(refused, noise(-60))).toBe(refused);
  });
});

describe('noise of a silent take as sound pressure', () => {
  it('is its level above what reads full scale, by a calibrator at its gain', () => {
    const calibrated = { kind: 'calibration', toneDbfs: -20, toneDbSpl: 94, gainDb: 30, uncertaintyDb: 0.4 } as const;
    const found = selfNoise(noise(-80), 50, calibrated);
    // Full scale is 114 dB SPL at 30 dB of gain, 94 at 50.
    expect(found.value).toBeCloseTo(14, 9);
    expect(found).toMatchObject({ bound: 'at-most', uncertainty: 0.5, settings: { by: 'calibration', fullScaleDbSpl: 94 } }); // prettier-ignore
    expect(selfNoise(noise(-80, {}, null), 50, calibrated).uncertainty).toBeNull();
  });

  it('or by sensitivity and the level that reaches full scale', () => {
    // 774.6 mV/Pa is 0 dBu at one pascal, 93.98 dB SPL; full scale at +10 dBu less the gain.
    const sensitive = { kind: 'sensitivity', sensitivityMvPa: 1000 * Math.sqrt(0.6), fullScaleDbu: 10, uncertaintyDb: 0 } as const; // prettier-ignore
    expect(selfNoise(noise(-80), 40, sensitive).value).toBeCloseTo(93.9794 + 10 - 40 - 80, 4);
  });

  it('says why there is none', () => {
    const calibrated = { kind: 'calibration', toneDbfs: -20, toneDbSpl: 94, gainDb: 30, uncertaintyDb: 0.4 } as const;
    expect(selfNoise(noise(-80), 40, null).notMeasured).toMatch(/^Neither a calibration take nor sensitivity/);
    expect(selfNoise(null, 40, calibrated).notMeasured).toMatch(/no silence of at least 0\.5 s/);
    expect(selfNoise(noise(-80, { refused: 'why' }), 40, calibrated).notMeasured).toBe('why');
  });
});
