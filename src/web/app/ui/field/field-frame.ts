import { ChangeDetectionStrategy, Component, booleanAttribute, input } from '@angular/core';

/** Label above, field, and beside it why what was typed is refused. */
@Component({
  selector: 'sd-field-frame',
  template: `
    @if (!bare()) {
      @if (for()) {
        <label [for]="for()" [attr.id]="labelId() || null">{{ label() }}</label>
      } @else {
        <span class="label" [attr.id]="labelId() || null">{{ label() }}</span>
      }
    }
    <ng-content />
    @if (refusal()) {
      <span class="refusal small" role="alert" [attr.id]="noteId() || null">{{ refusal() }}</span>
    }
  `,
  host: { class: 'field', '[class.bare]': 'bare()' },
  styles: `
    .refusal {
      color: var(--cinnabar-text);
      min-width: 180px;
      white-space: normal;
      overflow-wrap: anywhere;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FieldFrame {
  readonly label = input.required<string>();
  readonly bare = input(false, { transform: booleanAttribute });
  /** Id of an input; '' where the field is none and names its label itself. */
  readonly for = input('');
  readonly labelId = input('');
  readonly noteId = input('');
  readonly refusal = input('');
}
