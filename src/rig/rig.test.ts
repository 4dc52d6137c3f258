import { createHash } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { runMeasurements, type AnalysedTake } from '#core/measure/run-measurements';
import { analyse, sine, syllables } from '#core/testing/signals';
import { demoRuns, gainFor } from '../../demo/run-plan';
import { DEMO_UNITS } from '../../demo/scenario';
import { NEW_DESK, dbuToVolts, voltsToDbu } from './audio-interface';
import { patternGain, randomEnergyEfficiency, type MicrophoneModel } from './microphone';
import { diffuseTail, type Room } from './room';
import { renderTake, type TakeSetup } from './take';

const RATE = 48_000;
const FREE_FIELD: Room = { reflections: [], t60: 0.3, tailGain: 0, noiseDbA: -40 };
const FLAT: MicrophoneModel = {
  sensitivityMvPa: 10,
  selfNoiseDbA: 20,
  alphaLow: 0.5,
  alphaHigh: 0.5,
  lowHz: 10,
  highHz: 21_000,
  bells: [],
};
const quiet = { einDbu: -150, fullScaleDbu: 14 };

const setup = (change: Partial<TakeSetup>): TakeSetup => ({
  sampleRate: RATE,
  durationS: 6,
  voice: null,
  speechDbSpl: 80,
  distanceM: 0.15,
  angleDeg: 0,
  microphone: FLAT,
  room: FREE_FIELD,
  interface: quiet,
  gainDb: 40,
  seed: 'test',
  ...change,
});
const voice = (dry: Float64Array) => ({ dry, tail: dry.map(() => 0) });

describe('the rig', () => {
  it('gives the same samples on every machine', () => {
    const dry = syllables([[0, 1]], 1, -6, RATE);
    const take = renderTake(setup({ durationS: 1.5, voice: { dry, tail: diffuseTail(dry, RATE, 0.2, 'x') } }));
    const rounded = Int32Array.from(take, (x) => Math.round(x * 2 ** 23));
    expect(
      createHash('sha256').update(new Uint8Array(rounded.buffer)).digest('hex').slice(0, 16),
    ).toMatchInlineSnapshot(`"fbf9f28130ea654b"`);
  });

  // 94 dB SPL is 1 Pa: 10 mV at 10 mV/Pa, which is −37.8 dBu; 40 dB of gain and +14 dBu full scale leave −11.8 dBFS.
  it('keeps the calibration arithmetic: 94 dB SPL at 1 kHz comes out where it should', async () => {
    const tone = sine(1000, 0, 5).map((x) => x * Math.SQRT2);
    const { level } = await analyse([
      renderTake(setup({ voice: voice(tone), speechDbSpl: 94 })).subarray(RATE, 5 * RATE),
    ]);
    expect(level.rmsDbfs).toBeCloseTo(voltsToDbu(0.01) + 40 - 14, 1);
    expect(voltsToDbu(dbuToVolts(-37.8))).toBeCloseTo(-37.8, 9);
    expect(voltsToDbu(0.774597)).toBeCloseTo(0, 5);
  });

  it('has the self-noise it is told, found again as dB SPL(A)', async () => {
    const analysis = await analyse([renderTake(setup({ durationS: 8, gainDb: 60 }))]);
    const referenceDbfs = voltsToDbu(0.01) + 60 - 14;
    expect(Math.abs((analysis.noise?.a.levelDbfs ?? 0) - referenceDbfs + 94 - 20)).toBeLessThan(0.3);
  });

  it('doubles the distance, loses 6 dB', async () => {
    const dry = voice(sine(500, 0, 4));
    const at = async (distanceM: number) =>
      (await analyse([renderTake(setup({ voice: dry, distanceM })).subarray(RATE, 4 * RATE)])).level.rmsDbfs;
    expect((await at(0.15)) - (await at(0.3))).toBeCloseTo(6.02, 1);
  });

  // Textbook first-order patterns: cardioid −6.0 dB at 90°; random energy efficiency of omni 1, cardioid 1/3,
  // hypercardioid (α = 0.25) 1/4, figure-of-eight 1/3.
  it('has textbook patterns', () => {
    expect(20 * Math.log10(patternGain(0.5, 90))).toBeCloseTo(-6.02, 2);
    expect(patternGain(0.5, 180)).toBeCloseTo(0, 12);
    expect([1, 0.5, 0.25, 0].map(randomEnergyEfficiency)).toEqual([1, 1 / 3, 0.25, 1 / 3]);
  });

  it('has a tail that decays by 60 dB in the reverberation time', () => {
    const click = new Float64Array(RATE);
    click[0] = 1;
    const tail = diffuseTail(click, RATE, 0.4, 'x');
    const energy = (from: number, to: number): number =>
      tail.slice(from * RATE, to * RATE).reduce((s, x) => s + x * x, 0);
    expect(10 * Math.log10(energy(0.05, 0.15) / energy(0.25, 0.35))).toBeCloseTo(30, -0.5);
    expect(energy(0, 1)).toBeCloseTo(1, 6);
  });
});

describe('the demo', () => {
  const SPEECH = syllables(
    [
      [0, 2.2],
      [2.8, 5],
    ],
    5,
    0,
    RATE,
    21,
  );
  const rms = Math.sqrt(SPEECH.reduce((s, x) => s + x * x, 0) / SPEECH.length);
  const dry = SPEECH.map((x) => x / rms);

  async function measuredRun(microphone: MicrophoneModel): Promise<Map<string, number | null>> {
    const takes: AnalysedTake[] = [];
    const gainDb = gainFor(microphone, NEW_DESK);
    for (const [step, angleDeg] of [
      ['speech', 0],
      ['silence', 0],
      ['rear', 180],
    ] as const) {
      const samples = renderTake(
        setup({
          microphone,
          gainDb,
          angleDeg,
          room: { ...FREE_FIELD, noiseDbA: 0 },
          interface: NEW_DESK,
          seed: step,
          voice: step === 'silence' ? null : voice(dry),
          durationS: 7,
        }),
      );
      const { loudness, noise, stepPowers } = await analyse([samples]);
      takes.push({ step, gainDb, loudness, noise, stepPowers, speechS: step === 'silence' ? 0 : 4 });
    }
    return new Map(runMeasurements(takes).map((m) => [m.quantity, m.value]));
  }

  it('gets back from the measurements what the rig was told: rejection by the pattern, noise by the self-noise', async () => {
    for (const [alpha, self] of [
      [0.7, 20],
      [0.57, 30],
    ] as const) {
      const microphone = { ...FLAT, alphaLow: alpha, alphaHigh: alpha, selfNoiseDbA: self };
      const figures = await measuredRun(microphone);
      expect(Math.abs((figures.get('rearRejection') ?? 0) + 20 * Math.log10(patternGain(alpha, 180)))).toBeLessThan(
        0.6,
      );
    }
    const [soft, loud] = [
      await measuredRun({ ...FLAT, selfNoiseDbA: 25 }),
      await measuredRun({ ...FLAT, selfNoiseDbA: 35 }),
    ];
    expect((loud.get('noiseReSpeechA') ?? 0) - (soft.get('noiseReSpeechA') ?? 0)).toBeCloseTo(10, 0);
  });

  it('has 24 units or more over six years, no two alike, and a unit with a missing take', () => {
    const runs = demoRuns();
    const names = DEMO_UNITS.map((u) => `${u.maker} ${u.model} ${u.label}`);
    expect(new Set(names).size).toBe(names.length);
    expect(names.length).toBeGreaterThanOrEqual(24);
    expect(runs.map((r) => r.document.date)).toEqual(runs.map((r) => r.document.date).sort());
    expect(runs.some((r) => r.document.takes.length === 2)).toBe(true);
    expect(runs[0].interface).not.toEqual(runs[runs.length - 1].interface);
  });
});
