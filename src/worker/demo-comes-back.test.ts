import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import type { AnalysedTake } from '#core/gear/run/analysed-take';
import { pickupRunFigures } from '#core/gear/microphone/run-figures';
import { butterworthHighPassDb } from '#core/dsp/butterworth';
import { directivityIndexDb, firstOrderGain } from '#core/measure/polar-pattern';
import { sphericalWaveGainDb } from '#core/measure/proximity';
import { analysedTake } from '#core/testing/takes';
import { criticalDistance, NET_LOFT } from '#rig/room';
import type { DemoRunPlan } from '../../demo/demo-run';
import { demoRuns } from '../../demo/run-plan';
import measureSweepTask from './tasks/measure-sweep';
import { readClip } from './read-clip';
import renderDemoRun from './tasks/render-demo-run';
import { protocolSchema } from '#contracts/protocol';
import protocolDocument from '../server/seed/protocol-desk-voice-2.json' with { type: 'json' };

// The demo as it is shipped: what the rig is told of a unit has to come back from the measurements.

const folder = mkdtempSync(join(tmpdir(), 'sediment-rig-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const protocol = protocolSchema.parse(protocolDocument);

async function measuredRun(model: string) {
  const plan = demoRuns().find((r) => r.document.specimen.model === model) as DemoRunPlan;
  const into = join(folder, model);
  await renderDemoRun({ plan, into, speechFolder: 'demo/speech' });
  const takes: AnalysedTake[] = [];
  for (const take of plan.document.takes) {
    const role = protocol.steps.find((s) => s.id === take.step)?.role ?? take.step;
    const path = join(into, take.file);
    const { samples } = await readClip(path);
    takes.push(
      await analysedTake(role, samples, {
        gainDb: take.gainDb,
        distanceM: take.distanceM ?? null,
        angleDeg: take.angleDeg ?? null,
        levelDbSpl: take.levelDbSpl ?? null,
        response: role === 'sweep' && protocol.sweep ? await measureSweepTask({ path, sweep: protocol.sweep }) : null,
      }),
    );
  }
  const { measurements, curves } = pickupRunFigures(takes, {
    fullScaleDbu: plan.document.inputFullScaleDbu ?? null,
    claimedSensitivityMvPa: null,
  });
  const figures = new Map(measurements.map((m) => [m.quantity, m]));
  return {
    microphone: plan.microphone,
    figures,
    curves,
    value: (id: string) => figures.get(id as never)?.value ?? NaN,
  };
}

describe('what the demo is told comes back: a plain USB microphone with hum', async () => {
  const { microphone, figures, curves, value } = await measuredRun('Bosun');

  it('sensitivity within 2 %', () => {
    expect(Math.abs(value('sensitivity') / microphone.sensitivityMvPa - 1)).toBeLessThan(0.02);
  });
  it('noise: its own and that of the room, within 1 dB', () => {
    // Room noise through a pattern with this random energy efficiency, plus self-noise; the preamp adds next to nothing.
    const efficiency = microphone.alphaLow ** 2 + (1 - microphone.alphaLow) ** 2 / 3;
    const both = 10 * Math.log10(10 ** (NET_LOFT.noiseDbA / 10) * efficiency + 10 ** (microphone.selfNoiseDbA / 10));
    expect(Math.abs(value('selfNoise') - both)).toBeLessThan(1.5);
  });
  it('hum: mains and harmonics', () => {
    expect(figures.get('hum')?.settings).toMatchObject({ mainsHz: 50 });
    expect(figures.get('hum')?.bound).toBe('exact');
  });
  it('upper limit within 5 %', () => {
    expect(Math.abs(value('responseHigh3') / microphone.highHz - 1)).toBeLessThan(0.05);
  });
  it('the hill of its response', () => {
    expect(Math.abs(Number(figures.get('responsePeak')?.settings.hz) / microphone.bells[0].hz - 1)).toBeLessThan(0.15);
  });
  it('pattern: α between that below and that above the crossover, rejection behind within 1 dB of it', () => {
    const [low, high] = [microphone.alphaHigh, microphone.alphaLow];
    expect(value('patternAlpha')).toBeGreaterThan(low - 0.02);
    expect(value('patternAlpha')).toBeLessThan(high + 0.02);
    expect(value('directivityIndex')).toBeCloseTo(directivityIndexDb(value('patternAlpha')), 6);
    const behind = curves.polar?.levels.find((l) => l.angleDeg === 180);
    const above = -20 * Math.log10(Math.abs(firstOrderGain(microphone.alphaHigh, 180)));
    expect(Math.abs(-(behind?.octavesDb[5] ?? 0) - above)).toBeLessThan(1);
  });
  it('critical distance: that of the room times the root of the directivity, within a quarter', () => {
    const efficiency = microphone.alphaLow ** 2 + (1 - microphone.alphaLow) ** 2 / 3;
    expect(Math.abs(value('criticalDistance') / (criticalDistance(NET_LOFT) / Math.sqrt(efficiency)) - 1)).toBeLessThan(
      0.25,
    );
  });
  it('five puffs', () => {
    expect(figures.get('plosives')?.settings.bursts).toBe(5);
  });
});

describe('a microphone with bus whine, and one with a hidden low-cut', async () => {
  const [beacon, bulrush, tidemark, italic] = [
    await measuredRun('Beacon'),
    await measuredRun('Bulrush'),
    await measuredRun('Tidemark'),
    await measuredRun('Italic'),
  ];
  it('the whine is told by its name', () => {
    expect(beacon.figures.get('interference')?.settings).toMatchObject({ busWhine: true });
    expect(tidemark.figures.get('interference')?.settings.busWhine ?? false).toBe(false);
    expect(tidemark.figures.get('hum')?.bound).toBe('at-most');
  });
  it('the lower limit is that of the low-cut and of the capsule together, within 8 %', () => {
    const { lowHz, lowCut } = bulrush.microphone;
    const loss = (hz: number): number =>
      butterworthHighPassDb(2, lowHz, hz) + butterworthHighPassDb(lowCut?.order ?? 2, lowCut?.hz ?? 20, hz);
    let expected = 400;
    while (loss(expected) > -3) expected *= 0.999;
    expect(Math.abs(bulrush.value('responseLow3') / expected - 1)).toBeLessThan(0.08);
  });
  it('puffs differ by as much as they were told to', () => {
    const told = (beacon.microphone.puffDb ?? 0) - (tidemark.microphone.puffDb ?? 0);
    expect(Math.abs(beacon.value('plosives') - tidemark.value('plosives') - told)).toBeLessThan(1.5);
  });
  it('proximity effect as of a gradient in spherical waves, within 1.5 dB (a voice that has 100 Hz)', () => {
    const { alphaLow } = italic.microphone;
    const at = (r: number): number => sphericalWaveGainDb(alphaLow, r, 100) - sphericalWaveGainDb(alphaLow, r, 1000);
    expect(Math.abs(italic.value('proximity') - (at(0.03) - at(0.15)))).toBeLessThan(1.5);
  });
});
