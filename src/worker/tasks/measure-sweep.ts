import { AudioFileError } from '#core/audio/audio-file-error';
import { exponentialSweep, holdsSweep } from '#core/dsp/exponential-sweep';
import { encodeWav } from '#core/audio/wav-write';
import { gated } from '#core/measure/impulse-response';
import { measureResponse, type MeasuredResponse } from '#core/measure/response-report';
import type { ProtocolSweep } from '#contracts/protocol';
import { readClip } from '../read-clip';

/** Order to a worker: turn a recorded sweep into a response. */
export interface MeasureSweepTask {
  readonly path: string;
  readonly sweep: ProtocolSweep;
  /** Also the impulse response as a WAV file. */
  readonly withImpulse?: boolean;
  /** Also the figures of the room. */
  readonly withRoom?: boolean;
}

/** What a recorded sweep gave. */
export type SweepResult = Omit<MeasuredResponse, 'impulse'> & { readonly impulseWav: Uint8Array<ArrayBuffer> | null };

/** Length of an exported impulse response, and what is kept before its peak. */
const IMPULSE_S = 0.5;
const BEFORE_PEAK_S = 0.01;

/** The last one that a thread has made: the takes of a run answer one sweep. */
let last: { readonly key: string; readonly samples: Float64Array } | null = null;

function playedSweep(sweep: ProtocolSweep, sampleRate: number): Float64Array {
  const key = JSON.stringify([sweep.lowHz, sweep.highHz, sweep.seconds, sweep.levelDbfs, sampleRate]);
  if (last?.key !== key) last = { key, samples: exponentialSweep(sweep, sampleRate, sweep.levelDbfs) };
  return last.samples;
}

export default async function measureSweepTask({
  path,
  sweep,
  withImpulse,
  withRoom = false,
}: MeasureSweepTask): Promise<SweepResult> {
  const { samples, format } = await readClip(path);
  const { sampleRate } = format;
  if (!holdsSweep(sweep, sampleRate))
    throw new AudioFileError(
      'unmeasurable',
      `The sweep goes up to ${sweep.highHz / 1000} kHz, and a recording at ${sampleRate / 1000} kHz holds no more than ${sampleRate / 2000} kHz; record it at ${sweep.highHz / 500} kHz or more.`,
    );
  const played = playedSweep(sweep, sampleRate);
  const { impulse, ...response } = measureResponse(played, samples, sampleRate, { gateMs: sweep.gateMs, withRoom });
  const before = Math.round(BEFORE_PEAK_S * sampleRate);
  const impulseWav = withImpulse
    ? encodeWav(
        [gated(impulse.samples, impulse.peak, before, Math.round(IMPULSE_S * sampleRate))],
        sampleRate,
        'float32',
      )
    : null;
  return { ...response, impulseWav };
}
