import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, effect, inject, input, viewChild } from '@angular/core';
import type { SpectrogramJson } from '#contracts/take-page';
import { ThemeChoice } from '../../data/theme';
import { frequencyLabel } from '../../ui/curve-chart-options';

/** Levels between which the picture goes from ground to ink, dB re the loudest of the clip. */
const RANGE_DB = 80;
const LABELS_HZ = [100, 500, 1000, 5000, 10_000];

/** A spectrogram over a logarithmic frequency axis, as wide as what stands above it. */
@Component({
  selector: 'sd-spectrogram',
  template: `
    <canvas #canvas role="img" [attr.aria-label]="name()"></canvas>
    @for (label of labels(); track label.hz) {
      <span class="num" [style.top.%]="label.top">{{ label.text }}</span>
    }
  `,
  styles: `
    :host {
      position: relative;
      display: block;
      height: 150px;
      border: 1px solid var(--rule);
    }
    canvas {
      width: 100%;
      height: 100%;
      image-rendering: auto;
    }
    span {
      position: absolute;
      left: 4px;
      translate: 0 -50%;
      font-size: 10px;
      line-height: 12px;
      padding: 0 2px;
      color: var(--ink);
      background: color-mix(in srgb, var(--panel) 70%, transparent);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SpectrogramCanvas {
  readonly picture = input.required<SpectrogramJson>();
  readonly name = input.required<string>();

  private readonly theme = inject(ThemeChoice);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');

  constructor() {
    effect(() => {
      this.theme.theme();
      this.draw(this.picture());
    });
  }

  protected labels(): { hz: number; text: string; top: number }[] {
    const { lowHz, highHz } = this.picture();
    return LABELS_HZ.map((hz) => ({
      hz,
      text: frequencyLabel(hz),
      top: 100 * (1 - Math.log(hz / lowHz) / Math.log(highHz / lowHz)),
    }));
  }

  private draw({ columns, rows, levels }: SpectrogramJson): void {
    const bytes = Uint8Array.from(atob(levels), (c) => c.charCodeAt(0));
    const canvas = this.canvas().nativeElement;
    canvas.width = columns;
    canvas.height = rows;
    const context = canvas.getContext('2d');
    if (!context) return;
    const image = context.createImageData(columns, rows);
    const shades = shadesOfTheme();
    const top = bytes.reduce((most, v) => Math.max(most, v), 1);
    for (let c = 0; c < columns; c++) {
      for (let r = 0; r < rows; r++) {
        // Half a decibel per step.
        const share = Math.max(0, 1 - (top - bytes[c * rows + r]) / (2 * RANGE_DB));
        const [red, green, blue] = shades[Math.round(255 * share)];
        image.data.set([red, green, blue, 255], 4 * ((rows - 1 - r) * columns + c));
      }
    }
    context.putImageData(image, 0, 0);
  }
}

type Rgb = readonly [number, number, number];

/** 256 shades from panel over azurite to ink: light is soft, dark is loud (the other way round in basalt). */
function shadesOfTheme(): Rgb[] {
  const style = getComputedStyle(document.documentElement);
  const [from, middle, to] = ['--panel', '--azurite', '--ink'].map((name) => parseHex(style.getPropertyValue(name)));
  return Array.from({ length: 256 }, (_, i) => {
    const t = i / 255;
    return t < 0.6 ? mix(from, middle, t / 0.6) : mix(middle, to, (t - 0.6) / 0.4);
  });
}

function parseHex(text: string): Rgb {
  const value = parseInt(text.trim().slice(1), 16);
  return [value >> 16, (value >> 8) & 255, value & 255];
}

const mix = (a: Rgb, b: Rgb, t: number): Rgb =>
  [0, 1, 2].map((i) => Math.round(a[i] + t * (b[i] - a[i]))) as unknown as Rgb;
