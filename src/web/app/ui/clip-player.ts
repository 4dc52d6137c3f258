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
import type WaveSurfer from 'wavesurfer.js';
import type { Clip } from '#contracts/clip';
import { ENDPOINTS } from '#contracts/http';
import { Api } from '../data/api';
import { ThemeChoice } from '../data/theme';
import { createClipSurfer, togglePlayback, waveColours } from './clip-surfer';
import { formatTime } from './format';
import { HearingReminder } from './hearing-reminder';
import { KeptPress } from './kept-press';

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
  private readonly early = new KeptPress();
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
        this.early.take();
        this.stop();
      });
    });
    effect(() => {
      this.theme.theme();
      this.surfer?.setOptions(waveColours());
    });
    inject(DestroyRef).onDestroy(() => this.stop());
  }

  protected async toggle(): Promise<void> {
    if (this.surfer) await togglePlayback(this.surfer, () => this.reminder.acknowledged());
    else this.early.press();
  }

  private show(clip: Clip, pairs: readonly number[], durationS: number): void {
    this.stop();
    const surfer = createClipSurfer(this.wave().nativeElement, clip, pairs, durationS);
    const tell = (at: number): void => this.time.set(`${formatTime(at)} / ${formatTime(durationS)}`);
    surfer.on('play', () => this.isPlaying.set(true));
    surfer.on('pause', () => this.isPlaying.set(false));
    surfer.on('finish', () => this.isPlaying.set(false));
    surfer.on('timeupdate', tell);
    tell(0);
    this.surfer = surfer;
    if (this.early.take()) void this.toggle();
  }

  private stop(): void {
    this.surfer?.destroy();
    this.surfer = null;
    this.isPlaying.set(false);
  }
}
