import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { catchError, of, switchMap } from 'rxjs';
import { Button } from 'primeng/button';
import type WaveSurfer from 'wavesurfer.js';
import RegionsPlugin, { type Region } from 'wavesurfer.js/dist/plugins/regions.esm.js';
import TimelinePlugin from 'wavesurfer.js/dist/plugins/timeline.esm.js';
import type { Clip } from '#contracts/clip';
import { ENDPOINTS } from '#contracts/http';
import type { Segments } from '#contracts/segments';
import { Api } from '../../data/api';
import { ThemeChoice } from '../../data/theme';
import { createClipSurfer, togglePlayback, waveColours } from '../../ui/clip-surfer';
import { KeptPress } from '../../ui/kept-press';
import { formatTime } from '../../ui/format';
import { HearingReminder } from '../../ui/hearing-reminder';
import { KIND_LOOK, SHORTEST_S, moved, segmentRows, type SegmentRow } from './segment-list';
import { SpectrogramCanvas } from './spectrogram-canvas';

/** Waveform, regions and spectrogram of a take, one under the other on one time axis. */
@Component({
  selector: 'sd-take-lens',
  imports: [Button, SpectrogramCanvas],
  template: `
    <div class="controls">
      <p-button
        [icon]="isPlaying() ? 'pi pi-pause' : 'pi pi-play'"
        [label]="isPlaying() ? 'Pause' : 'Play'"
        size="small"
        severity="secondary"
        [ariaLabel]="(isPlaying() ? 'Pause ' : 'Play ') + name()"
        (onClick)="toggle()"
      />
      <span class="num">{{ time() }}</span>
      <span class="legend">
        @for (kind of kinds; track kind.name) {
          <span><i [style.background]="'var(' + kind.colour + ')'"></i> {{ kind.name }}</span>
        }
      </span>
      <span class="quiet small">Drag a region or its edges; click the waveform to set the cursor.</span>
    </div>
    <div #wave class="wave" role="img" [attr.aria-label]="'Waveform of ' + name() + ' with its segments'"></div>
    @if (picture(); as p) {
      <sd-spectrogram [picture]="p" [name]="'Spectrogram of ' + name() + ', 40 Hz to 20 kHz'" />
    } @else {
      <p class="quiet waiting">Drawing the spectrogram …</p>
    }
  `,
  styleUrl: './take-lens.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TakeLens {
  readonly clip = input.required<Clip>();
  readonly name = input.required<string>();
  readonly segments = input.required<Segments>();
  readonly segmentsChange = output<Segments>();
  /** Where the cursor stands, in seconds. */
  readonly cursor = signal(0);

  private readonly api = inject(Api);
  private readonly reminder = inject(HearingReminder);
  private readonly theme = inject(ThemeChoice);
  private readonly wave = viewChild.required<ElementRef<HTMLElement>>('wave');
  private readonly sha256 = computed(() => this.clip().sha256);
  private readonly regions = signal<RegionsPlugin | null>(null);
  private surfer: WaveSurfer | null = null;
  private readonly early = new KeptPress();
  protected readonly isPlaying = signal(false);
  protected readonly time = signal('');
  protected readonly kinds = Object.values(KIND_LOOK);
  protected readonly picture = toSignal(
    toObservable(this.sha256).pipe(
      switchMap((sha256) =>
        this.api.call(ENDPOINTS.spectrogram, { params: { sha256 } }).pipe(catchError(() => of(null))),
      ),
    ),
    { initialValue: null },
  );

  constructor() {
    effect((onCleanup) => {
      const sha256 = this.sha256();
      const subscription = this.api.call(ENDPOINTS.waveform, { params: { sha256 } }).subscribe({
        next: ({ pairs, durationS }) => this.show(pairs, durationS),
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
      const plugin = this.regions();
      if (plugin) this.drawRegions(plugin, this.segments());
    });
    inject(DestroyRef).onDestroy(() => this.stop());
  }

  /** Space on the page plays and pauses. */
  async toggle(): Promise<void> {
    if (this.surfer) await togglePlayback(this.surfer, () => this.reminder.acknowledged());
    else this.early.press();
  }

  private show(pairs: readonly number[], durationS: number): void {
    this.stop();
    const plugin = RegionsPlugin.create();
    const surfer = createClipSurfer(this.wave().nativeElement, this.clip(), pairs, durationS, {
      height: 110,
      plugins: [plugin, TimelinePlugin.create({ height: 16 })],
    });
    const tell = (at: number): void => {
      this.cursor.set(at);
      this.time.set(`${formatTime(at)} / ${formatTime(durationS)}`);
    };
    surfer.on('play', () => this.isPlaying.set(true));
    surfer.on('pause', () => this.isPlaying.set(false));
    surfer.on('finish', () => this.isPlaying.set(false));
    surfer.on('timeupdate', tell);
    // Regions can be drawn only once the waveform knows its length.
    surfer.on('ready', () => this.regions.set(plugin));
    plugin.on('region-updated', (region) => this.regionMoved(region, durationS));
    tell(0);
    this.surfer = surfer;
    if (this.early.take()) void this.toggle();
  }

  private drawRegions(plugin: RegionsPlugin, segments: Segments): void {
    plugin.clearRegions();
    const style = getComputedStyle(document.documentElement);
    for (const row of segmentRows(segments)) {
      const colour = style.getPropertyValue(KIND_LOOK[row.kind].colour).trim();
      plugin.addRegion({
        id: row.id,
        start: row.startS,
        end: row.endS,
        minLength: SHORTEST_S,
        color: `${colour}2e`,
        drag: true,
        resize: true,
      });
    }
  }

  private regionMoved(region: Region, durationS: number): void {
    const row = segmentRows(this.segments()).find((r): r is SegmentRow => r.id === region.id);
    if (row) this.segmentsChange.emit(moved(this.segments(), row, region.start, region.end, durationS));
  }

  private stop(): void {
    this.regions.set(null);
    this.surfer?.destroy();
    this.surfer = null;
    this.isPlaying.set(false);
  }
}
