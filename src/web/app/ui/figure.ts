import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { Tooltip } from 'primeng/tooltip';
import { quantity, type QuantityId } from '#core/measure/registry';
import { figureText } from './format';

/** A figure with unit and uncertainty; its definition on hover and for screen readers. */
@Component({
  selector: 'sd-figure',
  imports: [Tooltip],
  template: `
    <span class="num" [pTooltip]="tip()" tooltipPosition="top" tabindex="-1">
      <span [class.quiet]="value() === null">{{ text().value }}</span>
      @if (text().spread) {
        <span> {{ text().spread }}</span>
      }
      @if (text().unit) {
        <span class="quiet"> {{ text().unit }}</span>
      }
      @if (text().another && showsBoth()) {
        <span class="quiet small another">{{ text().another }}</span>
      }
    </span>
  `,
  styles: `
    .another {
      display: block;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Figure {
  readonly quantity = input.required<QuantityId>();
  readonly value = input.required<number | null>();
  readonly uncertainty = input<number | null>(null);
  /** The same for another reading; shown beside it where `showsBoth` says so, and always in the words. */
  readonly anotherReading = input<number | null>(null);
  readonly showsBoth = input(false);
  /** What the ± is about. */
  readonly about = input('this reading');
  readonly bound = input<'exact' | 'at-least' | 'at-most'>('exact');
  readonly condition = input('');

  protected readonly text = computed(() =>
    figureText(this.quantity(), {
      value: this.value(),
      uncertainty: this.uncertainty(),
      anotherReading: this.anotherReading(),
      bound: this.bound(),
    }),
  );
  protected readonly tip = computed(() => {
    const { name, definition, source } = quantity(this.quantity());
    const condition = this.condition() ? ` Condition: ${this.condition()}.` : '';
    const spread = this.uncertainty() === null ? '' : ` ±: standard uncertainty of ${this.about()}.`;
    const another = this.text().another;
    const wider = another
      ? ` ${another}: the same voice, unit and place on another day, by repeats in the archive.`
      : '';
    return `${name}. ${definition}${condition}${spread}${wider} Source: ${source}.`;
  });
}
