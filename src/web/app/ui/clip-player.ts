import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { Button } from 'primeng/button';
import WaveSurfer from 'wavesurfer.js';
import type { Clip } from '#contracts/clip';
import { ENDPOINTS, PLAIN_PATHS } from '#contracts/http';
import { Api } from '../data/api';
import { ThemeChoice } from '../data/theme';
import { formatTime } from './format';
import { HearingReminder } from './hearing-reminder';

/** Playback begins softly: a clip may be far louder than the one before. */
const START_VOLUME = 0.4;
const FADE_S = 0.02;

let playing: WaveSurfer | null = null;

/**
 * A clip as a waveform with a play button. The waveform is the server's; the sound comes by HTTP ranges as it is
 * needed, so that a two-hour take opens as fast as a short one.
 */
@Component({
  selector: 'sd-clip-player',
  imports: [Button],
  template: `
    <p-button
      [icon]="isPlaying() ? 'pi pi-pause' : 'pi pi-play'"
      [text]="true"
      size="small"
      [ariaLabel]="(isPlaying() ? 'Pause ' : 'Play ') + name()"
      (onClick)="toggle()"
    />
    <div
      #wave
      class="wave"
      role="img"
      [attr.aria-label]="'Waveform of ' + name()"
      title="Waveform on a square-root scale"
    ></div>
    <span class="num quiet">{{ time() }}</span>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: auto 1fr 88px;
      align-items: center;
      gap: 8px;
    }
    .wave {
      height: 40px;
      min-width: 120px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ClipPlayer {
  readonly clip = input.required<Clip>();
  readonly name = input.required<string>();

  private readonly api = inject(Api);
  private readonly reminder = inject(HearingReminder);
  private readonly theme = inject(ThemeChoice);
  private readonly wave = viewChild.required<ElementRef<HTMLElement>>('wave');
  private surfer: WaveSurfer | null = null;
  protected readonly isPlaying = signal(false);
  protected readonly time = signal('');

  constructor() {
    effect((onCleanup) => {
      const clip = this.clip();
      const subscription = this.api.call(ENDPOINTS.waveform, { params: { sha256: clip.sha256 } }).subscribe({
        next: ({ pairs, durationS }) => this.show(clip, pairs, durationS),
        error: () => this.time.set('no waveform'),
      });
      onCleanup(() => {
        subscription.unsubscribe();
        this.stop();
      });
    });
    effect(() => {
      this.theme.theme();
      this.surfer?.setOptions(colours());
    });
    inject(DestroyRef).onDestroy(() => this.stop());
  }

  protected async toggle(): Promise<void> {
    const surfer = this.surfer;
    if (!surfer) return;
    if (surfer.isPlaying()) {
      surfer.pause();
      return;
    }
    if (!(await this.reminder.acknowledged())) return;
    playing?.pause();
    playing = surfer;
    await surfer.play();
    this.fadeIn(surfer);
  }

  private show(clip: Clip, pairs: readonly number[], durationS: number): void {
    this.stop();
    const media = new Audio();
    media.preload = 'none';
    media.src = PLAIN_PATHS.audio.replace(':sha256', clip.sha256);
    const surfer = WaveSurfer.create({
      container: this.wave().nativeElement,
      media,
      peaks: drawnPeaks(pairs),
      duration: durationS,
      height: 40,
      normalize: false,
      cursorWidth: 1,
      ...colours(),
    });
    surfer.setVolume(START_VOLUME);
    const tell = (at: number): void => this.time.set(`${formatTime(at)} / ${formatTime(durationS)}`);
    surfer.on('play', () => this.isPlaying.set(true));
    surfer.on('pause', () => this.isPlaying.set(false));
    surfer.on('finish', () => this.isPlaying.set(false));
    surfer.on('timeupdate', tell);
    tell(0);
    this.surfer = surfer;
  }

  private fadeIn(surfer: WaveSurfer): void {
    const start = performance.now();
    const step = (): void => {
      const share = Math.min(1, (performance.now() - start) / (1000 * FADE_S));
      surfer.setVolume(START_VOLUME * share);
      if (share < 1) requestAnimationFrame(step);
    };
    step();
  }

  private stop(): void {
    if (playing === this.surfer) playing = null;
    this.surfer?.destroy();
    this.surfer = null;
    this.isPlaying.set(false);
  }
}

/**
 * Columns as they are drawn: on a square-root scale, so that a quiet take is still seen beside a loud one.
 *
 * @param pairs - lowest and highest sample per column, in turn
 */
export function drawnPeaks(pairs: readonly number[]): [Float32Array, Float32Array] {
  const drawn = (x: number): number => Math.sign(x) * Math.sqrt(Math.abs(x));
  const columns = pairs.length / 2;
  return [
    Float32Array.from({ length: columns }, (_, i) => drawn(pairs[2 * i + 1])),
    Float32Array.from({ length: columns }, (_, i) => drawn(pairs[2 * i])),
  ];
}

function colours(): { waveColor: string; progressColor: string; cursorColor: string } {
  const style = getComputedStyle(document.documentElement);
  return {
    waveColor: style.getPropertyValue('--quiet').trim(),
    progressColor: style.getPropertyValue('--azurite').trim(),
    cursorColor: style.getPropertyValue('--ink').trim(),
  };
}
