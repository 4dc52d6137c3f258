import { ChangeDetectionStrategy, Component } from '@angular/core';
import { InputText } from 'primeng/inputtext';
import { readTakeGain, typedGain, type TakeGain } from '#core/rules/take-gain';
import type { Reading } from '#core/text/reading';
import { FieldFrame } from './field-frame';
import { TypedField } from './typed-field';
import { TypedInput } from './typed-input';

/** A field for the gain of a take: decibels, or what the device shows instead of them. */
@Component({
  selector: 'sd-gain-field',
  imports: [FieldFrame, InputText, TypedInput],
  templateUrl: './typed-field.html',
  styles: `
    :host {
      display: inline-grid;
    }
    input {
      width: 112px;
      min-width: 0;
      font-variant-numeric: tabular-nums;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GainField extends TypedField<TakeGain | null> {
  protected readonly nothing = null;
  protected readonly accepted = (): string => 'Decibels (20), a place of the dial (50 %, dial 7), “auto” or “unknown”';

  protected read(text: string): Reading<TakeGain> {
    return readTakeGain(text);
  }

  protected show(value: TakeGain | null): string {
    return value === null ? '' : typedGain(value);
  }

  protected override readonly turned = (way: 1 | -1): TakeGain | undefined => {
    const read = this.read(this.field().nativeElement.value);
    if (!read.isUnderstood || read.value?.kind !== 'dB') return undefined;
    // What would leave the range is left as it is.
    const next = this.read(this.show({ kind: 'dB', db: read.value.db + way }));
    return next.isUnderstood ? (next.value ?? undefined) : undefined;
  };
}
