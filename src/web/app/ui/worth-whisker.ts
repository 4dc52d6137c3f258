import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { percentOn, type Scale } from './whisker';

/** Log worth with its 90 % interval on a scale that others share; zero is the mean of all. */
@Component({
  selector: 'sd-worth-whisker',
  template: `
    <svg width="100%" height="16" role="img" [attr.aria-label]="label()">
      <line class="zero" [attr.x1]="at(0) + '%'" [attr.x2]="at(0) + '%'" y1="0" y2="16" />
      <line class="bar" [attr.x1]="at(low()) + '%'" [attr.x2]="at(high()) + '%'" y1="8" y2="8" />
      <line class="bar" [attr.x1]="at(low()) + '%'" [attr.x2]="at(low()) + '%'" y1="4" y2="12" />
      <line class="bar" [attr.x1]="at(high()) + '%'" [attr.x2]="at(high()) + '%'" y1="4" y2="12" />
      <circle class="point" [attr.cx]="at(value()) + '%'" cy="8" r="3.5" />
    </svg>
  `,
  styles: `
    :host {
      display: block;
      min-width: 120px;
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
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WorthWhisker {
  readonly value = input.required<number>();
  readonly se = input.required<number>();
  readonly scale = input.required<Scale>();

  /** 5 % and 95 % points of a normal. */
  protected readonly low = computed(() => this.value() - 1.645 * this.se());
  protected readonly high = computed(() => this.value() + 1.645 * this.se());
  protected readonly label = computed(
    () => `log worth ${this.value().toFixed(2)}, 90 % interval ${this.low().toFixed(2)} to ${this.high().toFixed(2)}`,
  );

  protected at(value: number): number {
    return percentOn(this.scale(), value);
  }
}
