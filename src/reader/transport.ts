import { SAME_TIME, type TimeMap } from '#core/audio/phrase-alignment';
import { LanePlayer } from '../web/app/audio/lane-player';
import { clipBytes, type ClipSource } from './clip-bytes';
import { element } from './element';

/** A clip that is played beside others. */
export interface PlayedClip {
  readonly source: ClipSource;
  readonly map: TimeMap | null;
}

/** Play, place and volume of clips that are switched without a gap. Clips are loaded when somebody first wants to hear. */
export class Transport {
  readonly row = element('div', '', { class: 'row' });
  private readonly play = element('button', 'Play', { type: 'button' });
  private readonly at = element('input', '', { type: 'range', min: '0', max: '1', step: '0.01', value: '0', 'aria-label': 'Place in the clip' }); // prettier-ignore
  private readonly volume = element('input', '', { type: 'range', min: '-40', max: '0', step: '1', value: '-12', 'aria-label': 'Volume, decibels below the level of the clips' }); // prettier-ignore
  private player: LanePlayer | null = null;
  private active = 0;

  /**
   * @param clips - in the order of their numbers
   * @param failed - told why nothing can be heard
   * @param heard - told of a clip that is played
   */
  constructor(
    private readonly clips: readonly PlayedClip[],
    private readonly failed: (words: string) => void,
    private readonly heard: (clip: number) => void = () => undefined,
  ) {
    const at = element('label', 'Place ');
    at.append(this.at);
    const volume = element('label', 'Volume ');
    volume.append(this.volume);
    this.row.append(this.play, at, volume);
    this.play.addEventListener('click', () => void this.toggle());
    this.at.addEventListener('input', () => this.player?.seek(Number(this.at.value) * this.player.lengthS));
    this.volume.addEventListener('input', () => this.player?.setVolume(Number(this.volume.value)));
  }

  async switchTo(clip: number): Promise<void> {
    this.active = clip;
    if (!this.player) return this.toggle();
    this.player.switchTo(clip);
    if (this.player.isPlaying) this.heard(clip);
  }

  private async toggle(): Promise<void> {
    const player = await this.ready();
    if (!player) return;
    if (player.isPlaying) player.pause();
    else {
      player.play();
      this.heard(this.active);
    }
    this.show();
  }

  private show(): void {
    const playing = this.player?.isPlaying === true;
    this.play.textContent = playing ? 'Pause' : 'Play';
    if (!this.player) return;
    this.at.value = String(this.player.positionS() / (this.player.lengthS || 1));
    if (playing) requestAnimationFrame(() => this.show());
  }

  private async ready(): Promise<LanePlayer | null> {
    if (this.player) return this.player;
    if (this.play.disabled) return null;
    this.play.disabled = true;
    this.play.textContent = 'Loading …';
    try {
      const context = new AudioContext();
      const buffers = await Promise.all(
        this.clips.map(async ({ source }) => context.decodeAudioData(await clipBytes(source))),
      );
      const player = new LanePlayer(context);
      player.setVolume(Number(this.volume.value));
      player.setLanes(buffers.map((buffer, i) => ({ buffer, gain: 1, map: this.clips[i].map ?? SAME_TIME })));
      player.switchTo(this.active);
      await context.resume();
      this.player = player;
      return player;
    } catch (error) {
      this.failed(
        `These clips cannot be heard here: ${error instanceof Error ? error.message : 'the browser refused them'}.`,
      );
      return null;
    } finally {
      this.play.disabled = false;
      this.play.textContent = 'Play';
    }
  }
}
