import { encodeWav } from '#core/audio/wav-write';
import { exponentialSweep } from '#core/dsp/exponential-sweep';
import type { ProtocolSweep } from '#contracts/protocol';

/** Order to a worker: the sweep of a protocol as a sound file. */
export interface RenderSweepTask {
  readonly sweep: ProtocolSweep;
  readonly rate: number;
}

/** A sweep to play and record, as a WAV file of 24 bits. */
export default function renderSweep({ sweep, rate }: RenderSweepTask): Uint8Array {
  return encodeWav([exponentialSweep(sweep, rate, sweep.levelDbfs)], rate, 'pcm24');
}
