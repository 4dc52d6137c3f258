import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { InputText } from 'primeng/inputtext';
import { keptText, readKept, type KeptSheet } from '#core/text/kept-number';
import { acceptedText } from '#core/text/read-number';
import type { Reading } from '#core/text/reading';
import { FieldFrame } from './field-frame';
import { TypedField } from './typed-field';
import { TypedInput } from './typed-input';

/**
 * A field for a number: either decimal sign, groups of three, units. It takes what is typed as it is meant, once the
 * field is left, or refuses it beside the field; it never rounds or brings a number into the range.
 */
@Component({
  selector: 'sd-number-field',
  imports: [FieldFrame, InputText, TypedInput],
  templateUrl: './typed-field.html',
  styles: `
    :host {
      display: inline-grid;
    }
    input {
      width: var(--number-width, 112px);
      min-width: 0;
      font-variant-numeric: tabular-nums;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NumberField extends TypedField<number | null> {
  readonly sheet = input.required<KeptSheet>();
  /** What the arrow keys turn it by; 0: they do not. */
  readonly step = input(0);

  protected readonly nothing = null;
  protected readonly accepted = computed(() => acceptedText(this.sheet()));
  /** The numbers' keyboard of a phone has no minus. */
  protected override readonly keyboard = (): string => ((this.sheet().least ?? -1) < 0 ? 'text' : 'decimal');

  protected read(text: string): Reading<number> {
    return readKept(text, this.sheet());
  }

  protected show(value: number | null): string {
    return value === null ? '' : keptText(value, this.sheet());
  }

  protected override readonly turned = (way: 1 | -1): number | undefined => {
    const read = this.read(this.field().nativeElement.value);
    if (this.step() === 0 || !read.isUnderstood || read.value === null) return undefined;
    // One step in the unit that is shown; what would leave the range is left as it is.
    const next = this.read(this.show(read.value + (way * this.step()) / (this.sheet().shownPer ?? 1)));
    return next.isUnderstood ? (next.value ?? undefined) : undefined;
  };
}
