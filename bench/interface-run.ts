import { Readable } from 'node:stream';
import { encodeWav } from '#core/audio/wav-write';
import { exponentialSweep } from '#core/dsp/exponential-sweep';
import { joined, lcgNoise, mixed, scaled, sine } from '#core/testing/signals';
import { protocolSchema } from '#contracts/protocol';
import { openApplication } from '#server/wiring';
import inputStage from '../src/server/seed/protocol-input-stage-6.json' with { type: 'json' };

const RATE = 48_000;
const TONE_S = 10;
const MOST_GAIN_DB = 60;

/** A take of the run: its step, what it holds in each channel, and what is noted with it. */
interface BenchTake {
  readonly step: string;
  readonly channels: readonly Float64Array[];
  readonly gainDb: number;
  readonly levelDbu?: number;
}

const hiss = (seconds: number, dbfs: number, seed: number): Float64Array => scaled(lcgNoise(seconds * RATE, 1, seed), dbfs); // prettier-ignore
const tone = (hz: number, dbfs: number, seed: number): Float64Array =>
  mixed(sine(hz, dbfs, TONE_S, RATE), hiss(TONE_S, -110, seed));

/** Forty takes of an interface: every recorded step of its protocol, tones at many levels and of many frequencies. */
function fortyTakes(): BenchTake[] {
  const { sweep } = protocolSchema.parse(inputStage);
  const played = sweep ? exponentialSweep(sweep, RATE, sweep.levelDbfs) : new Float64Array(0);
  const silence = (seconds: number): Float64Array => new Float64Array(seconds * RATE);
  const looped = (seed: number): Float64Array => {
    const whole = joined(silence(0.5), played, silence(0.5));
    return mixed(whole, hiss(whole.length / RATE, -110, seed));
  };
  const levels = [-1, ...Array.from({ length: 15 }, (_, i) => -5 - 4 * i)];
  const octaves = [100, 200, 400, 800, 1000, 1600, 3150, 6300];
  return [
    { step: 'electrical', channels: [tone(1000, -24, 1)], gainDb: 20, levelDbu: -20 },
    ...[MOST_GAIN_DB, 40, 20, 0].map((gainDb, i) => ({ step: 'noise-150', channels: [hiss(TONE_S, -70 - i, i)], gainDb })), // prettier-ignore
    { step: 'dynamic-range', channels: [tone(997, -60, 2)], gainDb: 0 },
    ...levels.map((dbfs, i) => ({ step: 'distortion', channels: [tone(997, dbfs, 10 + i)], gainDb: 0 })),
    { step: 'two-tones', channels: [mixed(tone(60, -7, 3), sine(7000, -19, TONE_S, RATE))], gainDb: 0 },
    { step: 'twin-tones', channels: [mixed(tone(18_000, -9, 4), sine(20_000, -9, TONE_S, RATE))], gainDb: 0 },
    { step: 'most-input', channels: [tone(1000, -1, 5)], gainDb: 0, levelDbu: 12 },
    ...octaves.map((hz, i) => ({ step: 'one-channel', channels: [tone(hz, -6, 40 + i), hiss(TONE_S, -96, i)], gainDb: 0 })), // prettier-ignore
    ...[100, 1000, 10_000].map((hz, i) => ({ step: 'both-channels', channels: [tone(hz, -6, 60 + i), tone(hz, -6.2, 70 + i)], gainDb: 0 })), // prettier-ignore
    ...['sweep-low', 'sweep-low', 'sweep-full', 'sweep-full'].map((step, i) => ({ step, channels: [looped(80 + i)], gainDb: step === 'sweep-low' ? 0 : MOST_GAIN_DB })), // prettier-ignore
  ];
}

/**
 * A whole run of an interface: its clips are in the archive, and are analysed, measured and made figures of.
 *
 * @param folder - of an archive that is made for it
 * @returns seconds of sound, seconds from the import to the last figure, and how many figures there were
 */
export async function measureInterfaceRun(
  folder: string,
): Promise<{ readonly takes: number; readonly soundS: number; readonly tookS: number; readonly figures: number }> {
  const application = await openApplication({ folder });
  const takes = fortyTakes();
  const clips: Record<string, string> = {};
  for (const [i, { channels }] of takes.entries()) {
    const wav = encodeWav([...channels], RATE, 'pcm24');
    clips[`${i}.wav`] = (await application.ingest.ingest(Readable.from([wav]), `${i}.wav`, { keepPart: false })).sha256;
  }
  // A new archive counts the protocols that ship with it from one.
  const known = (await application.protocols.versions()).map((v) => v.protocol).filter((p) => p.id === inputStage.id);
  const protocolVersion = Math.max(...known.map((p) => p.version));
  const start = performance.now();
  const { specimenId } = await application.runImport.importUploaded({
    clips,
    document: {
      format: 'sediment-run/1',
      specimen: { maker: 'Oarlock', model: 'Sluice', label: 'A', category: 'interface' },
      ...{ date: '2026-01-01', protocol: inputStage.id, protocolVersion, source: 'own' },
      takes: takes.map(({ step, gainDb, levelDbu }, i) => ({ step, file: `${i}.wav`, gainDb, levelDbu })),
    },
  });
  await application.queue.idle();
  const tookS = (performance.now() - start) / 1000;
  const [run] = (await application.catalogue.sheet(specimenId)).runs;
  await application.close();
  return {
    takes: takes.length,
    soundS: takes.reduce((sum, { channels }) => sum + channels[0].length / RATE, 0),
    tookS,
    figures: run.measurements.filter((m) => m.value !== null).length,
  };
}
