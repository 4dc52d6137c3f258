import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { Button } from 'primeng/button';
import type WaveSurfer from 'wavesurfer.js';
import type { Clip } from '#contracts/clip';
import { ENDPOINTS } from '#contracts/http';
import { Api } from '../../data/api';
import type { Stretch } from '../../data/sessions';
import { createClipSurfer, togglePlayback } from '../../ui/clip-surfer';
import { HearingReminder } from '../../ui/hearing-reminder';
import { NumberField } from '../../ui/field/number-field';
import { Refusals } from '../../ui/field/refusals';
import { LEAST_STRETCH_S, pulled, withStretch, withoutStretch } from './cut-marks';

/** A press of an arrow key moves an edge by this much. */
const NUDGE_S = 0.05;

/** One long recording with its marks: each stretch becomes a take. Edges are pulled, typed or nudged, and undone. */
@Component({
  selector: 'sd-cut-editor',
  imports: [Button, NumberField],
  template: `
    <div class="wave-box">
      <div #wave class="wave" role="img" [attr.aria-label]="'Waveform of ' + clip().name"></div>
      @for (mark of marks(); track $index; let i = $index) {
        <div class="stretch" [style.left.%]="percent(mark.startS)" [style.width.%]="percent(mark.endS - mark.startS)">
          <span class="num small">{{ i + 1 }}</span>
          @for (edge of edges; track edge) {
            <span
              class="edge"
              [class.end]="edge === 'endS'"
              role="slider"
              tabindex="0"
              [attr.aria-label]="'Take ' + (i + 1) + (edge === 'startS' ? ' from' : ' to')"
              [attr.aria-valuemin]="0"
              [attr.aria-valuemax]="duration()"
              [attr.aria-valuenow]="mark[edge]"
              [attr.aria-valuetext]="mark[edge] + ' seconds'"
              (pointerdown)="grab($event, i, edge)"
              (pointermove)="drag($event, i, edge)"
              (pointerup)="release()"
              (keydown.arrowleft)="nudge($event, i, edge, -1)"
              (keydown.arrowright)="nudge($event, i, edge, 1)"
            ></span>
          }
        </div>
      }
    </div>
    <ol>
      @for (mark of marks(); track $index; let i = $index) {
        <li>
          <p-button
            size="small"
            [text]="true"
            icon="pi pi-play"
            [ariaLabel]="'Play take ' + (i + 1)"
            (onClick)="play(mark)"
          />
          <sd-number-field
            [value]="mark.startS"
            (valueChange)="type(i, 'startS', $event)"
            [sheet]="{ unit: 's', least: 0, most: mark.endS - least }"
            [label]="'Take ' + (i + 1) + ' from'"
            required
            bare
          />
          <span class="quiet">to</span>
          <sd-number-field
            [value]="mark.endS"
            (valueChange)="type(i, 'endS', $event)"
            [sheet]="{ unit: 's', least: mark.startS + least, most: duration() }"
            [label]="'Take ' + (i + 1) + ' to'"
            required
            bare
          />
          <p-button
            size="small"
            [text]="true"
            icon="pi pi-times"
            [ariaLabel]="'No take ' + (i + 1)"
            (onClick)="remove(i)"
          />
        </li>
      }
    </ol>
    <div class="actions">
      <p-button label="Cut there" icon="pi pi-check" [disabled]="marks().length === 0" (onClick)="cut()" />
      <p-button severity="secondary" label="One more take" (onClick)="add()" />
      <p-button severity="secondary" label="Undo" [disabled]="past().length === 0" (onClick)="undo()" />
      <p-button severity="secondary" label="Leave it whole" (onClick)="left.emit()" />
      <span class="quiet small" role="status">{{ told() }}</span>
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .wave-box {
      position: relative;
      height: 72px;
    }
    .wave {
      height: 72px;
    }
    .stretch {
      position: absolute;
      top: 0;
      bottom: 0;
      background: color-mix(in srgb, var(--realgar) 16%, transparent);
      pointer-events: none;
    }
    .edge {
      position: absolute;
      top: 0;
      bottom: 0;
      left: -4px;
      width: 8px;
      border-left: 2px solid var(--realgar);
      cursor: ew-resize;
      pointer-events: auto;
      touch-action: none;
    }
    .edge.end {
      left: auto;
      right: -4px;
      border-left: 0;
      border-right: 2px solid var(--realgar);
    }
    ol {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 16px;
      margin: 0;
      padding: 0 0 0 20px;
    }
    li {
      display: flex;
      gap: 4px;
      align-items: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CutEditor {
  readonly clip = input.required<Clip>();
  /** Where it is proposed to cut. */
  readonly proposed = input.required<readonly Stretch[]>();
  readonly cutThere = output<Stretch[]>();
  readonly left = output();

  private readonly api = inject(Api);
  private readonly reminder = inject(HearingReminder);
  private readonly refusals = inject(Refusals);
  private readonly wave = viewChild.required<ElementRef<HTMLElement>>('wave');
  protected readonly marks = linkedSignal<readonly Stretch[]>(() => this.proposed());
  protected readonly past = signal<readonly (readonly Stretch[])[]>([]);
  protected readonly told = signal('');
  protected readonly duration = (): number => this.clip().format.durationS;
  protected readonly least = LEAST_STRETCH_S;
  protected readonly edges = ['startS', 'endS'] as const;
  private surfer: WaveSurfer | null = null;
  private held: { index: number; edge: keyof Stretch } | null = null;
  private stopAtS = Infinity;

  constructor() {
    effect((onCleanup) => {
      const clip = this.clip();
      const subscription = this.api.call(ENDPOINTS.waveform, { params: { sha256: clip.sha256 } }).subscribe({
        next: ({ pairs, durationS }) => {
          this.surfer?.destroy();
          this.surfer = createClipSurfer(this.wave().nativeElement, clip, pairs, durationS, { height: 72 });
          this.surfer.on('timeupdate', (at) => {
            if (at >= this.stopAtS) this.surfer?.pause();
          });
        },
        error: () => this.told.set('There is no waveform; the marks can be typed.'),
      });
      onCleanup(() => subscription.unsubscribe());
    });
    inject(DestroyRef).onDestroy(() => this.surfer?.destroy());
  }

  protected percent(seconds: number): number {
    return (100 * seconds) / this.duration();
  }

  protected grab(event: PointerEvent, index: number, edge: keyof Stretch): void {
    (event.target as HTMLElement).setPointerCapture(event.pointerId);
    this.remember();
    this.held = { index, edge };
  }

  protected drag(event: PointerEvent, index: number, edge: keyof Stretch): void {
    if (this.held?.index !== index || this.held.edge !== edge) return;
    const box = this.wave().nativeElement.getBoundingClientRect();
    const toS = ((event.clientX - box.left) / box.width) * this.duration();
    this.marks.update((all) => pulled(all, index, edge, toS, this.duration()));
  }

  protected release(): void {
    this.held = null;
  }

  protected nudge(event: Event, index: number, edge: keyof Stretch, way: 1 | -1): void {
    event.preventDefault();
    this.remember();
    this.marks.update((all) => pulled(all, index, edge, all[index][edge] + way * NUDGE_S, this.duration()));
  }

  protected type(index: number, edge: keyof Stretch, value: number | null): void {
    if (value === null) return;
    this.remember();
    this.marks.update((all) => all.map((m, i) => (i === index ? { ...m, [edge]: value } : m)));
  }

  protected add(): void {
    const more = withStretch(this.marks(), this.duration());
    this.told.set(more ? '' : 'There is no room for another take.');
    if (!more) return;
    this.remember();
    this.marks.set(more);
  }

  protected remove(index: number): void {
    this.remember();
    this.marks.update((all) => withoutStretch(all, index));
  }

  protected undo(): void {
    const before = this.past().at(-1);
    if (!before) return;
    this.marks.set(before);
    this.past.update((all) => all.slice(0, -1));
  }

  protected async play(mark: Stretch): Promise<void> {
    if (!this.surfer) return;
    this.stopAtS = mark.endS;
    this.surfer.setTime(mark.startS);
    if (!this.surfer.isPlaying()) await togglePlayback(this.surfer, () => this.reminder.acknowledged());
  }

  protected cut(): void {
    if (!this.refusals.stop()) this.cutThere.emit([...this.marks()]);
  }

  private remember(): void {
    this.past.update((all) => [...all, this.marks()]);
  }
}
