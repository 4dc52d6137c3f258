import { computed, signal } from '@angular/core';
import { SAME_TIME, type TimeMap } from '#core/audio/phrase-alignment';
import type { CompareLane } from '#contracts/compare';
import type { HeardClips } from '../../audio/heard-clips';
import type { LanePlayer, Loop } from '../../audio/lane-player';

type Player = Pick<
  LanePlayer,
  | 'setLanes'
  | 'setLoop'
  | 'setVolume'
  | 'switchTo'
  | 'play'
  | 'pause'
  | 'seek'
  | 'positionS'
  | 'close'
  | 'isPlaying'
  | 'lengthS'
>;
type Clips = Pick<HeardClips, 'clip' | 'ready' | 'forget'> & { player: () => Player };

/** Where the sound of a clip is. */
const addressOf = (sha256: string): string => `/api/clips/${sha256}/audio`;

/**
 * Lanes that are heard: fetches their clips, and hands them to the player with the gain and the alignment that are known
 * by now. What is learnt while they play changes what is heard, not where.
 */
export class LaneDeck {
  /** The lane that is heard, or would be. */
  readonly active = signal(0);
  readonly isPlaying = signal(false);
  readonly atS = signal(0);
  readonly lengthS = signal(0);
  readonly buffers = signal<ReadonlyMap<string, AudioBuffer>>(new Map());
  private readonly lanes = signal<readonly CompareLane[]>([]);
  readonly isReady = computed(() => this.lanes().length > 0 && this.lanes().every((l) => this.buffers().has(l.sha256)));
  private player: Player | null = null;

  /** @param failed - told of a clip that cannot be heard */
  constructor(
    private readonly clips: Clips,
    private readonly failed: (error: unknown) => void,
  ) {}

  /** Lanes as they are now; the same takes with other gains, or other takes. */
  show(lanes: readonly CompareLane[]): void {
    this.lanes.set(lanes);
    this.active.update((lane) => Math.max(0, Math.min(lane, lanes.length - 1)));
    for (const { sha256 } of lanes)
      if (!this.buffers().has(sha256))
        this.clips.clip(addressOf(sha256)).then(
          (buffer) => this.buffers.update((all) => new Map(all).set(sha256, buffer)),
          (error: unknown) => this.failed(error),
        );
  }

  /**
   * Hands lanes, gains, alignments and loop to the player, once all clips are there; playing goes on.
   *
   * @param maps - from the shared time to that of a clip, by take; a lane without one runs with the shared time
   */
  arm(maps: ReadonlyMap<string, { readonly map: TimeMap }>, loop: Loop | null): void {
    if (!this.isReady()) return;
    this.player ??= this.clips.player();
    this.player.setLanes(
      this.lanes().flatMap((lane) => {
        const buffer = this.buffers().get(lane.sha256);
        return buffer
          ? [{ buffer, gain: 10 ** (lane.appliedDb / 20), map: maps.get(lane.takeId)?.map ?? SAME_TIME }]
          : [];
      }),
    );
    this.player.setLoop(loop);
    this.lengthS.set(this.player.lengthS);
  }

  /** Says where the player is; asked some times a second. */
  tell(): void {
    if (!this.player) return;
    this.isPlaying.set(this.player.isPlaying);
    if (this.player.isPlaying) this.atS.set(this.player.positionS());
  }

  choose(lane: number): void {
    this.player?.switchTo(lane);
    this.active.set(lane);
  }

  async toggle(): Promise<void> {
    if (!this.player || !this.isReady()) return;
    if (this.player.isPlaying) this.player.pause();
    else if (await this.clips.ready()) {
      this.player.switchTo(this.active());
      this.player.play();
    }
    this.tell();
  }

  seek(atS: number): void {
    const to = Math.max(0, Math.min(atS, this.lengthS()));
    this.player?.seek(to);
    this.atS.set(to);
  }

  setVolume(decibels: number): void {
    this.player?.setVolume(decibels);
  }

  leave(): void {
    this.player?.close();
    this.clips.forget();
  }
}
