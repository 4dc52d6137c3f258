import { Injectable, inject, signal } from '@angular/core';
import { HearingReminder } from '../ui/hearing-reminder';
import { LanePlayer } from './lane-player';

/** Volume with which everything begins, dB. */
export const FIRST_VOLUME_DB = -12;

/** The audio context of the page, opened by the first press of a key or button, as browsers ask for. */
@Injectable({ providedIn: 'root' })
export class HeardClips {
  private readonly reminder = inject(HearingReminder);
  private context: AudioContext | null = null;
  private readonly decoded = new Map<string, Promise<AudioBuffer>>();
  readonly volumeDb = signal(FIRST_VOLUME_DB);

  /** A player of its own. */
  player(): LanePlayer {
    const player = new LanePlayer(this.open());
    player.setVolume(this.volumeDb());
    return player;
  }

  /** The clip behind an address, decoded at the rate of the context; kept, so that it is fetched once. */
  clip(url: string): Promise<AudioBuffer> {
    let clip = this.decoded.get(url);
    if (!clip) {
      clip = this.load(url);
      clip.catch(() => this.decoded.delete(url));
      this.decoded.set(url, clip);
    }
    return clip;
  }

  /** Forgets clips that are not heard any more. */
  forget(urls: readonly string[] | null = null): void {
    if (urls === null) this.decoded.clear();
    else for (const url of urls) this.decoded.delete(url);
  }

  /** Lets sound out, after the reminder has been read. */
  async ready(): Promise<boolean> {
    if (!(await this.reminder.acknowledged())) return false;
    await this.open().resume();
    return true;
  }

  open(): AudioContext {
    this.context ??= new AudioContext({ latencyHint: 'interactive' });
    return this.context;
  }

  private async load(url: string): Promise<AudioBuffer> {
    const response = await fetch(url);
    if (!response.ok) throw new Error(`The clip could not be fetched (${response.status}).`);
    return this.open().decodeAudioData(await response.arrayBuffer());
  }
}
