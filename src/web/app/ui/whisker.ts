import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

/** The part of the scale that all whiskers of a page share. */
export interface Scale {
  readonly low: number;
  readonly high: number;
}

/** Where a value lies on a scale, 0…100 %. */
export function percentOn(scale: Scale, value: number): number {
  return (100 * (Math.min(scale.high, Math.max(scale.low, value)) - scale.low)) / (scale.high - scale.low);
}

/** Whole and half marks of a scale. */
export function ticksOf(scale: Scale): number[] {
  const step = scale.high - scale.low > 2.5 ? 1 : 0.5;
  const ticks: number[] = [];
  for (let t = Math.ceil(scale.low / step) * step; t <= scale.high + 1e-9; t += step) ticks.push(t);
  return ticks;
}

/** A shared scale that holds all intervals, opened to half marks. */
export function scaleAround(intervals: readonly (readonly [number, number])[]): Scale {
  if (intervals.length === 0) return { low: 0, high: 5 };
  const low = Math.floor(2 * Math.min(...intervals.map(([l]) => l))) / 2;
  const high = Math.ceil(2 * Math.max(...intervals.map(([, h]) => h))) / 2;
  return { low, high: Math.max(high, low + 1) };
}

/** An interval with the point it is made of, on a scale that others share. */
@Component({
  selector: 'sd-whisker',
  template: `
    <svg width="100%" height="16" [attr.aria-label]="text() ?? label()" role="img">
      @if (zero() !== null) {
        <line class="zero" [attr.x1]="zero() + '%'" [attr.x2]="zero() + '%'" y1="0" y2="16" />
      }
      <line class="bar" [attr.x1]="low() + '%'" [attr.x2]="high() + '%'" y1="8" y2="8" />
      <line class="bar" [attr.x1]="low() + '%'" [attr.x2]="low() + '%'" y1="4" y2="12" />
      <line class="bar" [attr.x1]="high() + '%'" [attr.x2]="high() + '%'" y1="4" y2="12" />
      <rect class="point" [attr.x]="at() + '%'" y="4.5" width="7" height="7" transform="translate(-3.5 0)" />
    </svg>
  `,
  styles: `
    :host {
      display: block;
    }
    svg {
      display: block;
      overflow: visible;
    }
    .zero {
      stroke: var(--rule);
    }
    .bar {
      stroke: var(--ink);
      stroke-width: 1.2;
    }
    .point {
      fill: var(--ink);
    }
    :host(.under-test) .bar {
      stroke: var(--realgar);
      stroke-width: 2;
    }
    :host(.under-test) .point {
      fill: var(--realgar);
    }
    :host(.incomplete) .bar {
      stroke-dasharray: 3 2;
    }
    :host(.incomplete) .point {
      fill: var(--panel);
      stroke: var(--ink);
      stroke-width: 1.2;
    }
    :host(.incomplete.under-test) .point {
      stroke: var(--realgar);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Whisker {
  readonly value = input.required<number>();
  readonly interval = input.required<readonly [number, number]>();
  readonly scale = input.required<Scale>();
  /** What is read out; points of 5 by default. */
  readonly text = input<string | null>(null);
  /** A value that is marked by a line. */
  readonly mark = input<number | null>(null);

  protected readonly low = computed(() => percentOn(this.scale(), this.interval()[0]));
  protected readonly high = computed(() => percentOn(this.scale(), this.interval()[1]));
  protected readonly zero = computed(() => {
    const mark = this.mark();
    return mark === null ? null : percentOn(this.scale(), mark);
  });
  protected readonly at = computed(() => percentOn(this.scale(), this.value()));
  protected readonly label = computed(
    () =>
      `${this.value().toFixed(2)} of 5, 90 % interval ${this.interval()[0].toFixed(2)} to ${this.interval()[1].toFixed(2)}`,
  );
}
