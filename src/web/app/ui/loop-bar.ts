import { isLoop } from '#contracts/compare';
import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { ThemeChoice } from '../data/theme';
import type { Loop } from '../audio/lane-player';
import { formatTime } from './format';

/** Columns that a waveform is drawn in. */
const COLUMNS = 900;
/** A press that moves less is a click. */
const CLICK_PX = 4;

/** The passage of all lanes as one waveform: press to go there, drag to mark a loop. */
@Component({
  selector: 'sd-loop-bar',
  template: `
    <canvas
      #canvas
      tabindex="0"
      role="slider"
      aria-label="Position in the passage; drag to mark a loop"
      aria-valuemin="0"
      [attr.aria-valuemax]="lengthS().toFixed(1)"
      [attr.aria-valuenow]="atS().toFixed(1)"
      [attr.aria-valuetext]="text()"
      (pointerdown)="press($event)"
      (pointermove)="drag($event)"
      (pointerup)="release($event)"
      (keydown)="key($event)"
    ></canvas>
    <span class="num quiet">{{ text() }}</span>
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
    }
    canvas {
      width: 100%;
      height: 72px;
      display: block;
      border: 1px solid var(--rule);
      background: var(--panel);
      touch-action: none;
      cursor: text;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LoopBar {
  /** What is drawn; null while it is on its way. */
  readonly buffer = input.required<AudioBuffer | null>();
  readonly lengthS = input.required<number>();
  readonly atS = input.required<number>();
  readonly loop = input.required<Loop | null>();
  readonly seek = output<number>();
  readonly loopChange = output<Loop | null>();

  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly theme = inject(ThemeChoice);
  private readonly marking = signal<Loop | null>(null);
  private pressed: { readonly x: number; readonly atS: number } | null = null;

  private readonly peaks = computed(() => {
    const buffer = this.buffer();
    return buffer ? peaksOf(buffer, this.lengthS()) : null;
  });
  protected readonly text = computed(() => {
    const loop = this.marking() ?? this.loop();
    const part = loop ? `, loop ${formatTime(loop.fromS)}–${formatTime(loop.toS)}` : '';
    return `${formatTime(this.atS())} of ${formatTime(this.lengthS())}${part}`;
  });

  constructor() {
    effect(() => {
      this.theme.theme();
      this.draw(this.peaks(), this.marking() ?? this.loop(), this.atS() / Math.max(0.01, this.lengthS()));
    });
  }

  protected press(event: PointerEvent): void {
    this.canvas().nativeElement.setPointerCapture(event.pointerId);
    this.pressed = { x: event.clientX, atS: this.timeAt(event) };
  }

  protected drag(event: PointerEvent): void {
    if (!this.pressed || Math.abs(event.clientX - this.pressed.x) < CLICK_PX) return;
    const [a, b] = [this.pressed.atS, this.timeAt(event)];
    this.marking.set({ fromS: Math.min(a, b), toS: Math.max(a, b) });
  }

  protected release(event: PointerEvent): void {
    const marked = this.marking();
    const { pressed } = this;
    this.pressed = null;
    this.marking.set(null);
    if (marked && isLoop(marked.fromS, marked.toS)) this.loopChange.emit(marked);
    else if (pressed) this.seek.emit(this.timeAt(event));
  }

  protected key(event: KeyboardEvent): void {
    const step = event.shiftKey ? 5 : 1;
    if (event.key === 'ArrowLeft') this.seek.emit(Math.max(0, this.atS() - step));
    else if (event.key === 'ArrowRight') this.seek.emit(Math.min(this.lengthS(), this.atS() + step));
    else return;
    event.preventDefault();
  }

  private timeAt(event: PointerEvent): number {
    const { left, width } = this.canvas().nativeElement.getBoundingClientRect();
    return Math.min(1, Math.max(0, (event.clientX - left) / width)) * this.lengthS();
  }

  private draw(peaks: Float32Array | null, loop: Loop | null, share: number): void {
    const canvas = this.canvas().nativeElement;
    const context = canvas.getContext('2d');
    if (!context) return;
    const [width, height] = [(canvas.width = COLUMNS), (canvas.height = 72)];
    const style = getComputedStyle(document.documentElement);
    const colour = (name: string): string => style.getPropertyValue(name).trim();
    if (loop) {
      context.fillStyle = colour('--azurite-soft');
      const scale = width / Math.max(0.01, this.lengthS());
      context.fillRect(loop.fromS * scale, 0, (loop.toS - loop.fromS) * scale, height);
    }
    context.fillStyle = colour('--quiet');
    peaks?.forEach((peak, i) => {
      const h = Math.max(1, Math.sqrt(peak) * (height - 8));
      context.fillRect(i, (height - h) / 2, 1, h);
    });
    context.fillStyle = colour('--azurite');
    context.fillRect(Math.round(share * width) - 1, 0, 2, height);
  }
}

/** Largest magnitude per column, re the loudest. */
function peaksOf(buffer: AudioBuffer, lengthS: number): Float32Array {
  const samples = buffer.getChannelData(0);
  const perColumn = Math.max(1, (lengthS * buffer.sampleRate) / COLUMNS);
  const peaks = new Float32Array(COLUMNS);
  for (let c = 0; c < COLUMNS; c++) {
    const end = Math.min(samples.length, Math.floor((c + 1) * perColumn));
    // A few dozen samples of a column are enough to draw it.
    const step = Math.max(1, Math.floor(perColumn / 48));
    for (let i = Math.floor(c * perColumn); i < end; i += step) peaks[c] = Math.max(peaks[c], Math.abs(samples[i]));
  }
  const most = peaks.reduce((a, b) => Math.max(a, b), 1e-6);
  return peaks.map((p) => p / most);
}
