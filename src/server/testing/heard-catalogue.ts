import { encodeWav } from '#core/audio/wav-write';
import { BiquadCascade } from '#core/dsp/biquad';
import { highPass } from '#core/dsp/eq-biquads';
import { lcgNoise, mixed, scaled, syllables } from '#core/testing/signals';
import type { Application } from '../wiring';
import { madeOnce, runDocument, temporaryFolder, writeRunFolder } from './application';

const RATE = 48_000;
const SECONDS = 5;

/** One reading through one unit: its own level, noise and low end. */
export function unitWav(index: number, rate = RATE): Uint8Array<ArrayBuffer> {
  return madeOnce(`unit ${index} ${rate}`, () => newUnitWav(index, rate));
}

function newUnitWav(index: number, rate: number): Uint8Array<ArrayBuffer> {
  const reading = syllables(
    [
      [0.4, 2],
      [2.5, 4.3],
    ],
    SECONDS,
    -16,
    rate,
    77,
  );
  new BiquadCascade([highPass(rate, 60 + 90 * index)]).process(reading);
  const noise = scaled(lcgNoise(SECONDS * rate, 1, 40 + index), -78 + 3 * index);
  return encodeWav([mixed(scaled(reading, -2 * index), noise)], rate, 'pcm24');
}

export const MODELS = ['Purser', 'Bosun', 'Steward', 'Cooper', 'Sexton', 'Tinker', 'Warden', 'Mason'] as const;

/** A unit with its speech take. */
export interface HeardUnit {
  readonly specimenId: string;
  readonly takeId: string;
  readonly name: string;
}

/** Imports so many units, each with one run. */
export async function importUnits(application: Application, count: number): Promise<HeardUnit[]> {
  const units: HeardUnit[] = [];
  for (const [i, model] of MODELS.slice(0, count).entries()) {
    const folder = writeRunFolder(
      temporaryFolder(),
      runDocument({
        specimen: { maker: 'Oarlock', model, label: 'A', category: 'microphone' },
        date: `2026-05-0${i + 1}`,
      }),
      { 'speech.wav': unitWav(i) },
    );
    const { specimenId } = await application.runImport.importFolder(folder);
    await application.queue.idle();
    const sheet = await application.catalogue.sheet(specimenId);
    const takeId = sheet.runs[0].takes.find((t) => t.step === 'speech')?.id ?? '';
    units.push({ specimenId, takeId, name: `Oarlock ${model} · A` });
  }
  return units;
}
