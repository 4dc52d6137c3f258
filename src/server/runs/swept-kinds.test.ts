import { join } from 'node:path';
import { expect, it, describe } from 'vitest';
import { BiquadCascade } from '#core/dsp/biquad';
import { peaking } from '#core/dsp/eq-biquads';
import { exponentialSweep } from '#core/dsp/exponential-sweep';
import { encodeWav } from '#core/audio/wav-write';
import { compareClaim } from '#core/gear/claim-comparison';
import { lcgNoise, scaled } from '#core/testing/signals';
import { protocolSchema } from '#contracts/protocol';
import type { Run, SpecimenSheet } from '#contracts/specimen';
import { renderSeating, type HeadphonesModel } from '#rig/headphones';
import cabinet from '../seed/protocol-cabinet-places-1.json' with { type: 'json' };
import ear from '../seed/protocol-headphones-2.json' with { type: 'json' };
import { madeOnce, runDocument, temporaryFolder, testApplication, writeRunFolder } from '../testing/application';

const RATE = 48_000;
const sweepOf = (document: unknown): Float64Array => {
  const { sweep } = protocolSchema.parse(document);
  if (!sweep) throw new Error('the protocol plays no sweep');
  return exponentialSweep(sweep, RATE, sweep.levelDbfs);
};
const figure = (run: Run, id: string) => run.measurements.find((m) => m.quantity === id);

async function imported(
  document: ReturnType<typeof runDocument>,
  files: Parameters<typeof writeRunFolder>[2],
): Promise<SpecimenSheet> {
  const app = await testApplication({});
  const { specimenId } = await app.runImport.importFolder(
    writeRunFolder(join(temporaryFolder(), 'run'), document, files),
  );
  await app.queue.idle();
  return app.catalogue.sheet(specimenId);
}

describe('a run of headphones', () => {
  const model: HeadphonesModel = { levelDbfs: -8, lowHz: 20, highHz: 20_000, bells: [], right: { levelDb: -2 }, sealDb: 3 }; // prettier-ignore
  const played = sweepOf(ear);
  const seat = (side: 'left' | 'right', n: number) =>
    madeOnce(`seat ${side} ${n}`, () => encodeWav([renderSeating({ sampleRate: RATE, durationS: 4.2, side, headphones: model, played, seed: `${side}${n}` })], RATE, 'pcm24')); // prettier-ignore
  const outside = (db: number, seed: number) => madeOnce(`outside ${db} ${seed}`, () => encodeWav([scaled(lcgNoise(6 * RATE, 1, seed), db)], RATE, 'pcm24')); // prettier-ignore
  const table = (step: string, cells: readonly (readonly [string, string, number])[]) => ({
    step,
    cells: cells.map(([row, column, value]) => ({ row, column, value, source: 'typed' as const })),
  });

  it('gives both sides, its seatings, what it keeps out, and what its data sheet claims beside it', async () => {
    const sheet = await imported(
      runDocument({
        specimen: { maker: 'Oarlock', model: 'Hush', label: 'A', category: 'headphones' },
        protocol: 'headphones',
        protocolVersion: 2,
        takes: [
          ...[1, 2, 3].map((n) => ({ step: 'sweep-left', file: `left-${n}.wav`, gainDb: 20 })),
          ...[1, 2, 3].map((n) => ({ step: 'sweep-right', file: `right-${n}.wav`, gainDb: 20 })),
          { step: 'noise-without', file: 'bare.wav', gainDb: 40 },
          { step: 'noise-with', file: 'worn.wav', gainDb: 40 },
        ],
        tables: [
          table('impedance', [
            ['100 Hz', 'left', 64],
            ['1 kHz', 'left', 32],
            ['1 kHz', 'right', 34],
          ]),
          table('ear-level', [['1 kHz', 'left', 114]]),
        ],
        sheet: {
          impedance: { type: 'number', value: 32, unit: 'Ω', condition: '' },
          sensitivityPerPower: { type: 'number', value: 100, unit: 'dB SPL/mW', condition: 'at 500 Hz' },
        },
        points: [],
      }),
      {
        ...Object.fromEntries([1, 2, 3].flatMap((n) => [[`left-${n}.wav`, seat('left', n)], [`right-${n}.wav`, seat('right', n)]])), // prettier-ignore
        'bare.wav': outside(-20, 1),
        'worn.wav': outside(-38, 2),
      },
    );
    const [run] = sheet.runs;
    expect(Math.abs((figure(run, 'sideLevel')?.value ?? NaN) + 2)).toBeLessThan(0.1);
    expect(figure(run, 'sideLevel')?.uncertainty).not.toBeNull();
    expect(figure(run, 'sideLevel')?.condition).toBe('500 Hz–2 kHz, same artificial ear, 3 seatings left, 3 right');
    expect(figure(run, 'sealSpread')?.condition).toBe('40–100 Hz re 500 Hz–2 kHz, 6 seatings of two sides');
    expect(figure(run, 'sealSpread')?.value).toBeGreaterThan(0.5);
    // Repeats of a seating are told as such for the response itself.
    expect(figure(run, 'responseLow3')?.condition).toMatch(
      /on an artificial ear, mean of both sides.*mean of 3 repeats/,
    );
    // White noise 18 dB down at equal gain.
    expect(Math.abs((figure(run, 'outsideLessZ')?.value ?? NaN) - 18)).toBeLessThan(0.2);
    expect(run.curves.pairs[0].varies).toBe('headphones');
    expect(run.curves.sides?.left.length).toBeGreaterThan(100);
    expect(figure(run, 'impedance')?.value).toBe(33);
    // 1 V into 33 Ω is 30.3 mW: 14.8 dB.
    expect(figure(run, 'sensitivityPerPower')?.value).toBeCloseTo(114 - 14.81, 2);
    const claim = (quantity: string) => {
      const found = sheet.claims.find((c) => c.quantity === quantity);
      return found && compareClaim(found, figure(run, quantity)?.value ?? null);
    };
    expect(claim('impedance')).toEqual({ comparable: true, value: 32, differenceInUnit: 1 });
    expect(claim('sensitivityPerPower')).toEqual({ comparable: false, reason: 'claimed at 500 Hz, measured at 1 kHz' });
  });
});

describe('places before a cabinet', () => {
  it('are a grid of figures, each place with its repeats', async () => {
    const played = sweepOf(cabinet);
    const place = (db: number, seed: number) => madeOnce(`cabinet ${db} ${seed}`, () => {
      const samples = scaled(lcgNoise(5 * RATE, 1, seed), -85);
      const heard = Float64Array.from(played);
      new BiquadCascade([peaking(RATE, 6500, db, 0.7)]).process(heard);
      heard.forEach((x, i) => (samples[i + RATE / 2] += x));
      return encodeWav([samples], RATE, 'pcm24');
    }); // prettier-ignore
    const sheet = await imported(
      runDocument({
        protocol: 'cabinet-places',
        protocolVersion: 1,
        takes: ['middle', 'edge'].flatMap((where) =>
          [1, 2].map((n) => ({ step: 'places', file: `${where}-${n}.wav`, gainDb: 10, settings: { place: where } })),
        ),
        points: [],
      }),
      { 'middle-1.wav': place(6, 1), 'middle-2.wav': place(6, 2), 'edge-1.wav': place(-3, 3), 'edge-2.wav': place(-3, 4) }, // prettier-ignore
    );
    const grid = sheet.runs[0].curves.conditions;
    expect(grid?.conditions.map((c) => c.place)).toEqual(['middle', 'edge']);
    const presence = grid?.rows.find((r) => r.quantity === 'presence');
    const [middle, edge] = (presence?.cells ?? []).map((c) => c?.value ?? NaN);
    expect(middle - edge).toBeGreaterThan(5);
    expect(presence?.cells[0]?.repeats).toBe(2);
    expect(presence?.effects[0]).toMatchObject({ factor: 'place', highest: { of: 'middle' }, lowest: { of: 'edge' } });
  });
});
