import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Category } from '#contracts/common';
import type { SpecimenRow } from '#contracts/specimen';
import { wordChoices } from '../data/choices';
import { classChoices, classesText, readClasses } from '../data/class-filter';
import { ChoiceField } from './field/choice-field';

/** A field for each class of a kind of gear, with the words that units of it have; what is chosen stands in the address. */
@Component({
  selector: 'sd-class-fields',
  imports: [ChoiceField],
  template: `
    @for (c of choices(); track c.field) {
      <sd-choice-field
        [label]="c.name"
        bare
        [options]="wordChoices(c.name, c.words)"
        [value]="wordOf(c.field)"
        (valueChange)="choose(c.field, $event)"
      />
    }
  `,
  styles: `
    :host {
      display: contents;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ClassFields {
  readonly kind = input.required<Category>();
  readonly rows = input.required<readonly SpecimenRow[]>();
  /** The filter as it stands in the address. */
  readonly is = input.required<string | undefined>();
  /** The next one; null: none. */
  readonly isChange = output<string | null>();

  private readonly classes = computed(() => readClasses(this.is(), this.kind()));
  protected readonly choices = computed(() => classChoices(this.kind(), this.rows()));
  protected readonly wordChoices = wordChoices;

  protected wordOf(field: string): string | null {
    return this.classes().find((c) => c.field === field)?.word ?? null;
  }

  /** Words of one field: none is any. */
  protected choose(field: string, word: string | null): void {
    const others = this.classes().filter((c) => c.field !== field);
    this.isChange.emit(classesText(word === null ? others : [...others, { field, word }]));
  }
}
