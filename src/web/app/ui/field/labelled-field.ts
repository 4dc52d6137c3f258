import { Directive, booleanAttribute, computed, input } from '@angular/core';

let made = 0;

/** What every field has: its name, shown above it or told to those who do not see the column it stands in. */
@Directive()
export abstract class LabelledField {
  readonly label = input.required<string>();
  /** Shows no label: a heading or the place says what the field is. */
  readonly bare = input(false, { transform: booleanAttribute });
  readonly inputId = input('');
  readonly disabled = input(false, { transform: booleanAttribute });

  private readonly ownId = `field-${++made}`;
  readonly id = computed(() => this.inputId() || this.ownId);
  readonly noteId = `${this.ownId}-note`;
  protected readonly labelId = `${this.ownId}-label`;
  readonly spoken = computed(() => (this.bare() ? this.label() : null));
}
