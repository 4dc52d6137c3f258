import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { quantity, type QuantityId } from '#core/measure/registry';
import { figureText } from './format';
import { stripModel } from './strip-model';

/** All units of the catalogue by one figure, this one marked: where does it stand? */
@Component({
  selector: 'sd-catalogue-strip',
  template: `
    @if (strip(); as s) {
      <svg width="100%" height="18" role="img" [attr.aria-label]="s.label" [attr.title]="s.label">
        <title>{{ s.label }}</title>
        <line class="axis" x1="0" x2="100%" y1="15" y2="15" />
        @for (x of s.others; track $index) {
          <line class="unit" [attr.x1]="x + '%'" [attr.x2]="x + '%'" y1="8" y2="15" />
        }
        <line class="self" [attr.x1]="s.self + '%'" [attr.x2]="s.self + '%'" y1="1" y2="15" />
        <rect class="self" [attr.x]="s.self + '%'" y="0" width="7" height="5" transform="translate(-3.5 0)" />
      </svg>
      <span class="quiet place num">{{ s.place }}</span>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 1fr 56px;
      gap: 8px;
      align-items: center;
    }
    svg {
      overflow: visible;
    }
    .axis {
      stroke: var(--rule);
    }
    .unit {
      stroke: var(--quiet);
      stroke-width: 1;
      opacity: 0.6;
    }
    .self {
      stroke: var(--realgar);
      stroke-width: 2;
      fill: var(--realgar);
    }
    .place {
      text-align: right;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CatalogueStrip {
  readonly quantity = input.required<QuantityId>();
  readonly value = input.required<number | null>();
  readonly bound = input<'exact' | 'at-least' | 'at-most'>('exact');
  /** Values of all other units. */
  readonly others = input.required<readonly number[]>();

  protected readonly strip = computed(() => {
    const [value, others, id] = [this.value(), this.others(), this.quantity()];
    if (value === null || others.length === 0) return null;
    const model = stripModel(value, others, quantity(id).better);
    const text = (v: number): string => {
      const { value: number, unit } = figureText(id, { value: v });
      return unit ? `${number} ${unit}` : number;
    };
    // A limit has no place among figures.
    const isLimit = this.bound() !== 'exact';
    return {
      ...model,
      place: isLimit ? 'limit' : model.place,
      label: `${model.words}; the catalogue reaches from ${text(model.low)} to ${text(model.high)}`,
    };
  });
}
