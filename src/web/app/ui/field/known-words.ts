import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** Words that a field proposes while somebody types. */
@Component({
  selector: 'sd-known-words',
  template: `
    @if (words().length > 0) {
      <datalist [id]="field() + '-known'">
        @for (word of words(); track word) {
          <option [value]="word"></option>
        }
      </datalist>
    }
  `,
  styles: `
    :host {
      display: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KnownWords {
  /** Id of the field. */
  readonly field = input.required<string>();
  readonly words = input.required<readonly string[]>();
}
