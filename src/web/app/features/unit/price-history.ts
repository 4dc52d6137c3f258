import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { DatedPrice } from '#core/rules/price-rule';
import type { PriceKind } from '#core/rules/rubric';
import { today } from '../../ui/format';
import { pictureCurrency, priceHistory } from './price-history-geometry';

const [WIDTH, HEIGHT] = [560, 110];
/** Each kind has a shape beside its colour. */
const DOTS: Readonly<Record<PriceKind, string>> = {
  list: 'M-4 -4H4V4H-4Z',
  street: 'M0 -5L5 0L0 5L-5 0Z',
  sale: 'M0 5L-5 -4H5Z',
  used: 'M0 -5L5 4H-5Z',
  paid: 'M-4 0A4 4 0 1 0 4 0A4 4 0 1 0 -4 0Z',
};

/** Prices of a unit over time; the table above says the same. */
@Component({
  selector: 'sd-price-history',
  template: `
    @if (picture(); as p) {
      <svg
        [attr.viewBox]="'-56 -10 ' + (width + 72) + ' ' + (height + 34)"
        role="img"
        [attr.aria-label]="'Prices over time in ' + currencyShown() + '; the table says the same'"
      >
        @for (year of p.years; track year.label) {
          <line class="grid" [attr.x1]="year.at" [attr.x2]="year.at" y1="0" [attr.y2]="height" />
          <text [attr.x]="year.at" [attr.y]="height + 14" text-anchor="middle">{{ year.label }}</text>
        }
        @for (a of p.amounts; track a.label) {
          <line class="grid" x1="0" [attr.x2]="width" [attr.y1]="a.at" [attr.y2]="a.at" />
          <text x="-8" [attr.y]="a.at + 3" text-anchor="end">{{ a.label }}</text>
        }
        @for (line of p.lines; track line.kind) {
          @if (line.isLevel) {
            <path [attr.class]="'line ' + line.kind" [attr.d]="line.path" />
          }
          @for (dot of line.dots; track dot.day + dot.amount) {
            <path
              [attr.class]="'dot ' + line.kind"
              [attr.d]="shapes[line.kind]"
              [attr.transform]="'translate(' + dot.x + ' ' + dot.y + ')'"
            />
          }
        }
      </svg>
      <p class="small quiet legend">
        @for (line of p.lines; track line.kind) {
          <span
            ><svg class="key" viewBox="-6 -6 12 12" aria-hidden="true">
              <path [attr.class]="'dot ' + line.kind" [attr.d]="shapes[line.kind]" />
            </svg>
            {{ line.kind }}</span
          >
        }
        <span>in {{ currencyShown() }}, as noted</span>
        @if (p.notShown > 0) {
          <span>{{ p.notShown === 1 ? 'one price has' : p.notShown + ' prices have' }} no rate to it</span>
        }
      </p>
    }
  `,
  styles: `
    svg:not(.key) {
      width: 100%;
      max-width: 640px;
    }
    text {
      font: 10px var(--mono);
      fill: var(--quiet);
    }
    .grid {
      stroke: var(--rule);
    }
    .line {
      fill: none;
      stroke: var(--quiet);
      stroke-width: 1.5;
    }
    .line.street {
      stroke: var(--azurite);
      stroke-width: 2;
    }
    .dot {
      fill: var(--quiet);
    }
    .dot.street {
      fill: var(--azurite);
    }
    .key {
      width: 12px;
      height: 12px;
      vertical-align: -2px;
    }
    .legend {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 16px;
      margin: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PriceHistory {
  readonly prices = input.required<readonly DatedPrice[]>();
  /** That the rules count; null where there are none. */
  readonly currency = input.required<string | null>();

  protected readonly width = WIDTH;
  protected readonly height = HEIGHT;
  protected readonly shapes = DOTS;
  protected readonly currencyShown = computed(() => pictureCurrency(this.prices(), this.currency()));
  protected readonly picture = computed(() => {
    const currency = this.currencyShown();
    return currency === null ? null : priceHistory(this.prices(), currency, today(), WIDTH, HEIGHT);
  });
}
