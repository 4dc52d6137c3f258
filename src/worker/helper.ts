import type { MessagePort } from 'node:worker_threads';
import type { SoundCodec } from '#core/audio/codec';
import type { DeepReadings } from '#core/measure/channel-meters';
import type { SpectralFigures } from '#core/measure/clip-analysis';
import type { ClipPauses } from '#core/measure/level-analysis';
import type { ClipReadings } from '#core/measure/stretch-reader';

/** A stretch that a helper has measured. */
export interface StretchArrival {
  readonly place: number;
  readonly readings: ClipReadings;
}

/** What a helper tells: stretches, then null; then, where it is asked, figures. */
export type HelperMessage = StretchArrival | { readonly figures: SpectralFigures } | null;

/** What a helper is asked when all stretches are measured. */
export interface SpectralOrder {
  readonly channels: readonly DeepReadings[];
  readonly pauses: ClipPauses;
  readonly sound: SoundCodec | null;
}

/** A thread that helps the one that was asked to measure a clip, as that one sees it; it is listened to from now on. */
export class Helper {
  /** Whether it has begun, and not ended: who waits for its turn would be waited for. */
  private isAtWork = false;
  private hear: (message: HelperMessage) => void = () => undefined;

  /** @param port - where it tells, and is asked */
  constructor(private readonly port: MessagePort) {
    port.on('message', (message: HelperMessage) => {
      this.isAtWork = true;
      this.hear(message);
    });
    port.once('close', () => {
      this.isAtWork = false;
      this.hear(null);
    });
  }

  /**
   * Listens to the stretches that it measures.
   *
   * @param take - takes one; says whether nothing more is needed
   */
  stretches(take: (arrival: StretchArrival) => boolean): Promise<'enough' | 'over'> {
    return new Promise((resolve) => {
      this.hear = (message) => {
        if (message === null) resolve('over');
        else if ('place' in message && take(message)) resolve('enough');
      };
    });
  }

  /**
   * Asks for what spectra and pauses come to.
   *
   * @returns null where it does not answer: it ended meanwhile; nothing to wait for where it is not at work
   */
  spectralFigures(order: SpectralOrder): Promise<SpectralFigures | null> | null {
    if (!this.isAtWork) return null;
    return new Promise((resolve) => {
      this.hear = (message) => {
        if (message && 'figures' in message) resolve(message.figures);
        else if (!this.isAtWork) resolve(null);
      };
      this.port.postMessage(order);
    });
  }

  /** It may go. */
  close(): void {
    this.port.close();
  }
}
