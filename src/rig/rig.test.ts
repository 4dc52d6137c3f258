import { createHash } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import type { AnalysedTake } from '#core/gear/run/analysed-take';
import { pickupRunFigures } from '#core/gear/microphone/run-figures';
import { cascadeGainDb } from '#core/dsp/biquad';
import { sphericalWaveGainDb } from '#core/measure/proximity';
import { roomReport } from '#core/measure/room-acoustics';
import { analyse, sine, syllables } from '#core/testing/signals';
import { analysedTake } from '#core/testing/takes';
import { gainFor } from '../../demo/demo-gain';
import { demoRuns } from '../../demo/run-plan';
import { DEMO_UNITS } from '../../demo/scenario';
import { NEW_DESK, dbuToVolts, voltsToDbu } from './audio-interface';
import { firstOrderGain as patternGain, randomEnergyEfficiency } from '#core/measure/polar-pattern';
import { nearFieldSection, type MicrophoneModel } from './microphone';
import {
  arrivals,
  criticalDistance,
  diffuseTail,
  EARLY_S,
  NET_LOFT,
  PADDED_CRATE,
  tailEnergy,
  type Room,
} from './room';
import { renderTake, type TakeSetup } from './take';

const RATE = 48_000;
const FREE_FIELD: Room = { ...PADDED_CRATE, noiseDbA: -40 };
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
    ).toMatchInlineSnapshot(`"de820da116927678"`);
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

  it('doubles the distance, loses 6 dB (a pressure microphone does; a gradient loses its rise as well)', async () => {
    const dry = voice(sine(500, 0, 4));
    const omni = { ...FLAT, alphaLow: 1, alphaHigh: 1 };
    const at = async (distanceM: number) =>
      (await analyse([renderTake(setup({ voice: dry, distanceM, microphone: omni })).subarray(RATE, 4 * RATE)])).level
        .rmsDbfs;
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
    const room = roomReport(diffuseTail(click, RATE, 0.4, 'x').subarray(Math.round(EARLY_S * RATE)), RATE);
    // One realisation of a random tail: a few per cent of scatter are its own.
    expect(Math.abs((room.t30?.value ?? 0) / 0.4 - 1)).toBeLessThan(0.05);
    expect(diffuseTail(click, RATE, 0.4, 'x').reduce((s, x) => s + x * x, 0)).toBeCloseTo(1, 6);
  });

  it('has a room whose images and tail together decay in the stated time', () => {
    const impulse = new Float64Array(RATE);
    for (const { delayS, distanceM, reflection } of arrivals(NET_LOFT, 0.9, 0)) {
      impulse[Math.round(delayS * RATE)] += reflection / distanceM;
    }
    const click = new Float64Array(RATE / 2);
    click[0] = Math.sqrt(tailEnergy(NET_LOFT));
    diffuseTail(click, RATE, NET_LOFT.t60, 'loft').forEach((x, i) => (impulse[i] = (impulse[i] ?? 0) + x));
    const room = roomReport(impulse.subarray(0, RATE), RATE);
    expect(Math.abs((room.t30?.value ?? 0) / NET_LOFT.t60 - 1)).toBeLessThan(0.1);
    // Near the critical distance, direct and reverberant sound are about equal.
    expect(
      Math.abs((room.directToReverberant?.value ?? NaN) - 20 * Math.log10(criticalDistance(NET_LOFT) / 0.9)),
    ).toBeLessThan(2.5);
  });

  it('has images that come later and weaker, with the angle they come from', () => {
    const all = arrivals(NET_LOFT, 0.15, 90);
    expect(all[0]).toMatchObject({ delayS: 0, reflection: 1, distanceM: 0.15 });
    expect(all[0].angleDeg).toBeCloseTo(90, 6);
    expect(all.length).toBeGreaterThan(15);
    expect(all.every((a, i) => i === 0 || (a.reflection < 1 && a.distanceM > 0.15))).toBe(true);
    expect(arrivals(PADDED_CRATE, 0.15, 30)).toHaveLength(1);
  });

  it('lifts the lows of a near source as a gradient does, re 15 cm', () => {
    for (const [alpha, distance] of [
      [0.5, 0.03],
      [0.25, 0.06],
      [0.5, 1],
    ] as const) {
      const section = [nearFieldSection(alpha, 0, distance, RATE)];
      const expected = sphericalWaveGainDb(alpha, distance, 100) - sphericalWaveGainDb(alpha, 0.15, 100);
      // A section of first order stands for the field of a point source: 0.25 dB apart at most, from 3 cm to 1 m.
      expect(Math.abs(cascadeGainDb(section, 100, RATE) - expected)).toBeLessThan(0.25);
      expect(Math.abs(cascadeGainDb([nearFieldSection(alpha, 0, 0.15, RATE)], 100, RATE))).toBeLessThan(1e-9);
    }
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
      takes.push(await analysedTake(step, samples, { gainDb }));
    }
    return new Map(pickupRunFigures(takes).measurements.map((m) => [m.quantity, m.value]));
  }

  it('gets back from the measurements what the rig was told: rejection by the pattern, noise by the self-noise', async () => {
    for (const [alpha, self] of [
      [0.7, 20],
      [0.57, 30],
    ] as const) {
      const microphone = { ...FLAT, alphaLow: alpha, alphaHigh: alpha, selfNoiseDbA: self };
      const figures = await measuredRun(microphone);
      // At 15 cm the rise of the gradient part leaves less of the pattern at the low end; K-weighted noise is mostly above.
      const expected = -20 * Math.log10(patternGain(alpha, 180));
      expect(Math.abs((figures.get('rearRejection') ?? 0) - expected)).toBeLessThan(1.2);
    }
    const [soft, loud] = [
      await measuredRun({ ...FLAT, selfNoiseDbA: 25 }),
      await measuredRun({ ...FLAT, selfNoiseDbA: 35 }),
    ];
    expect(Math.abs((loud.get('noiseReSpeechA') ?? NaN) - (soft.get('noiseReSpeechA') ?? NaN) - 10)).toBeLessThan(0.05);
  });

  it('has 24 units or more over six years, no two alike, and a unit with a missing take', () => {
    const runs = demoRuns();
    const names = DEMO_UNITS.map((u) => `${u.maker} ${u.model} ${u.label}`);
    expect(new Set(names).size).toBe(names.length);
    expect(names.length).toBeGreaterThanOrEqual(24);
    expect(runs.map((r) => r.document.date)).toEqual(runs.map((r) => r.document.date).sort());
    expect(runs.some((r) => r.document.takes.length === 2)).toBe(true);
    // Twelve specimens and more have sweeps, distances, plosives and the calibrator.
    const full = runs.filter((r) => r.document.takes.some((t) => t.step === 'sweep-180'));
    expect(new Set(full.map((r) => r.document.specimen.model + r.document.specimen.label)).size).toBeGreaterThanOrEqual(
      12,
    );
    expect(runs[0].interface).not.toEqual(runs[runs.length - 1].interface);
  });
});
