import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { lineRunFigures } from '#core/gear/interface/run-figures';
import { pairGroups, pairMeasurements } from '#core/gear/pair/pair-groups';
import { pairsOfRun } from '#core/gear/pair/pairs-of-run';
import { HOLDS_A_PERFORMANCE } from '#core/gear/pair/take-pair';
import { stepRole } from '#core/gear/kinds';
import type { AnalysedTake } from '#core/gear/run/analysed-take';
import { playKindOf } from '#core/rules/compare-versions';
import { analysedTake } from '#core/testing/takes';
import { answersSweep, protocolSchema, roleOf, type Protocol } from '#contracts/protocol';
import type { DemoRunPlan } from '../../demo/demo-run';
import { demoRuns } from '../../demo/run-plan';
import booster from '../server/seed/protocol-inline-booster-1.json' with { type: 'json' };
import inputStage from '../server/seed/protocol-input-stage-3.json' with { type: 'json' };
import withWithout from '../server/seed/protocol-with-without-1.json' with { type: 'json' };
import { readClip } from './read-clip';
import measurePair from './tasks/measure-pair';
import measureSweep from './tasks/measure-sweep';
import measureTone from './tasks/measure-tone';
import renderDemoRun from './tasks/render-demo-run';

// Interfaces, boosters and shields of the demo, rendered as shipped: what the rig is told of them has to come back.

const folder = mkdtempSync(join(tmpdir(), 'sediment-parts-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

async function rendered(model: string, document: unknown) {
  const protocol: Protocol = protocolSchema.parse(document);
  const plan = demoRuns().find((r) => r.document.specimen.model === model) as DemoRunPlan;
  const into = join(folder, model);
  await renderDemoRun({ plan, into, speechFolder: 'demo/speech' });
  const takes: { step: string; settings: object; path: string; analysed: AnalysedTake }[] = [];
  for (const { step: id, file, gainDb = null, levelDbu = null } of plan.document.takes) {
    const step = protocol.steps.find((s) => s.id === id);
    if (!step) throw new Error(`no step ${id}`);
    const path = join(into, file);
    const { samples } = await readClip(path);
    const sweeps = protocol.sweep && (answersSweep(step) || playKindOf(step) === 'sweep');
    const response = sweeps && protocol.sweep ? await measureSweep({ path, sweep: protocol.sweep }) : null;
    const tone = stepRole(roleOf(step))?.holdsTones ? await measureTone({ path }) : null;
    takes.push({ step: id, settings: {}, path, analysed: await analysedTake(roleOf(step), samples, { gainDb, levelDbu, response, tone }) }); // prettier-ignore
  }
  return { plan, protocol, takes };
}

async function pairFigures(model: string, document: unknown) {
  const { plan, protocol, takes } = await rendered(model, document);
  const pairs = [];
  for (const { varies, setting, fitted, without } of pairsOfRun(protocol.steps, takes as never) as {
    varies: string;
    setting: null;
    fitted: (typeof takes)[number];
    without: (typeof takes)[number];
  }[]) {
    // prettier-ignore
    const plays = playKindOf(protocol.steps.find((s) => s.id === fitted.step) ?? { id: '', play: null });
    const difference = HOLDS_A_PERFORMANCE.includes(plays) ? await measurePair({ fitted: fitted.path, without: without.path }) : null; // prettier-ignore
    pairs.push({ varies, setting, plays, fitted: fitted.analysed, without: without.analysed, difference });
  }
  const figures = new Map(pairMeasurements(pairGroups(pairs)).map((m) => [m.quantity as string, m]));
  return { plan, figures, value: (id: string) => figures.get(id)?.value ?? NaN };
}

describe('a booster that filters', async () => {
  const { plan, figures, value } = await pairFigures('Riser 20', booster);

  it('gain within 0.2 dB', () => {
    expect(Math.abs(value('gainAdded') - (plan.booster?.gainDb ?? NaN))).toBeLessThan(0.2);
  });
  it('its low-cut within 3 %, with its order', () => {
    expect(Math.abs(value('hiddenLowCut') / (plan.booster?.lowCut?.hz ?? NaN) - 1)).toBeLessThan(0.03);
    expect(figures.get('hiddenLowCut')?.condition).toContain('order 2');
  });
});

describe('a booster that only amplifies', async () => {
  const { figures, value } = await pairFigures('Lift', booster);

  it('gain within 0.2 dB, no low-cut, transparent', () => {
    expect(Math.abs(value('gainAdded') - 25)).toBeLessThan(0.2);
    expect(figures.get('hiddenLowCut')?.bound).toBe('at-most');
    expect(value('tonalChange')).toBeLessThan(0.5);
  });
});

describe('a shield', async () => {
  const { figures, value } = await pairFigures('Cabin', withWithout);

  it('takes 10.5 dB of the street, whatever it does to the voice: 10.5 dB come back', () => {
    // Room and unit make a little noise of their own, which no shield takes away.
    expect(Math.abs(value('outsideLessA') - 10.5)).toBeLessThan(0.3);
    expect(figures.get('outsideLessA')?.condition).toContain('91 % of the energy, 70 % of the amplitude');
  });
});

describe('an interface', async () => {
  const { plan, protocol, takes } = await rendered('Fourfold', inputStage);
  const tables = new Map((plan.document.tables ?? []).map((t) => [roleOf(protocol.steps.find((s) => s.id === t.step) ?? { id: t.step }) as string, t])); // prettier-ignore
  const { measurements, curves } = lineRunFigures(takes.map((t) => t.analysed), { fullScaleDbu: null, claimedSensitivityMvPa: null }, new Set(), tables); // prettier-ignore
  const value = (id: string) => measurements.find((m) => m.quantity === id)?.value ?? NaN;
  const { interface: model } = plan;

  it('input noise within 0.4 dB (full gain takes a little of it away at the top), and more of it at less gain', () => {
    expect(Math.abs(value('einZ') - model.einDbu)).toBeLessThan(0.4);
    const [low, high] = curves.noiseByGain ?? [];
    // At 20 dB the converter's noise adds to that of the input: the powers of both, at the input.
    const converterDbu = (model.converterDbfs ?? NaN) + model.fullScaleDbu - 20 - (model.gainErrorDb ?? 0);
    const both = 10 * Math.log10(10 ** (model.einDbu / 10) + 10 ** (converterDbu / 10));
    expect(low.gainDb).toBe(20);
    expect(Math.abs(low.einADbu - high.einADbu - (both - model.einDbu))).toBeLessThan(0.4);
  });

  it('dynamic range within 0.5 dB: converter and input together', () => {
    const input = model.einDbu - model.fullScaleDbu + (model.gainErrorDb ?? 0);
    const noise = 10 * Math.log10(10 ** ((model.converterDbfs ?? NaN) / 10) + 10 ** (input / 10));
    // White noise up to 20 kHz loses 2 dB by the A weighting (by summing the curve).
    expect(Math.abs(value('dynamicRange') - (-noise + 2))).toBeLessThan(0.5);
  });

  it('harmonics of its bend, x + ax² + bx³, within 0.3 dB', () => {
    const a = 10 ** (-1 / 20);
    const { square = 0, cube = 0 } = model.bend ?? {};
    expect(Math.abs(value('thdTone') - 20 * Math.log10(Math.hypot((square * a) / 2, (cube * a * a) / 4)))).toBeLessThan(0.3); // prettier-ignore
  });

  it('its harmonics over level by the same formula, and crosstalk through a capacitance by 20 dB per decade', () => {
    const { square = 0, cube = 0 } = model.bend ?? {};
    const points = curves.distortionByLevel ?? [];
    expect(points.map((p) => Math.round(p.levelDbfs))).toEqual([-40, -20, -10, -1]);
    for (const { levelDbfs, thdDb, thdBound } of points) {
      const a = 10 ** (levelDbfs / 20);
      const made = 20 * Math.log10(Math.hypot((square * a) / 2, (cube * a * a) / 4));
      // A limit is one: no less than what is there.
      if (thdBound === 'exact') expect(Math.abs(thdDb - made), `${levelDbfs} dBFS`).toBeLessThan(0.5);
      else expect(thdDb).toBeGreaterThan(made - 0.5);
    }
    expect(points.some((p) => p.thdBound === 'exact')).toBe(true);
    for (const { hz, crosstalkDb, crosstalkBound } of curves.channelsByFrequency ?? []) {
      const made = (model.crosstalkDb ?? NaN) + (model.balanceDb ?? 0) + 20 * Math.log10(hz / 1000);
      if (crosstalkBound === 'exact') expect(Math.abs((crosstalkDb ?? NaN) - made), `${hz} Hz`).toBeLessThan(0.5);
      else expect(crosstalkDb).toBeGreaterThan(made - 0.5);
    }
    expect(curves.channelsByFrequency?.map((p) => Math.round(p.hz))).toEqual([100, 1000, 10_000]);
  });

  it('highest input level, crosstalk and what full gain takes away', () => {
    expect(Math.abs(value('mostInput') - (model.fullScaleDbu - (model.gainErrorDb ?? 0)))).toBeLessThan(0.1);
    // The second channel is a little louder, whatever comes in.
    expect(Math.abs(value('crosstalk') - (model.crosstalkDb ?? NaN) - (model.balanceDb ?? 0))).toBeLessThan(0.1);
    const { lowHz = NaN } = model.atFullGain ?? {};
    // First-order high-pass at the middle of what is read, 22 Hz: textbook.
    expect(Math.abs(value('fullGain20') + 10 * Math.log10(1 + (lowHz / 22) ** 2))).toBeLessThan(0.3);
    expect(value('fullGain20k')).toBeLessThan(-0.3);
    // Flat at least gain as far as the sweep reaches: a limit, not a figure that is missing.
    const limits = measurements.filter((m) => /^response(Low|High)/.test(m.quantity));
    expect(limits.map((m) => m.bound)).toEqual(['at-most', 'at-least', 'at-most', 'at-least']);
  });

  it('what its tables hold: 4.6 ms beyond the buffers, 20 dB in the last part of the dial, 32 Ω of output', () => {
    expect(Math.abs(value('latencyFixed') - 4.6)).toBeLessThan(0.1);
    expect(value('gainLast15')).toBeCloseTo(20, 1);
    expect(value('headphoneImpedance')).toBeCloseTo(32, 1);
  });
});
