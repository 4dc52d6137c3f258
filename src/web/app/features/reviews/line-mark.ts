import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import type { LineMark, ReviewLine } from '#contracts/review';

/** What a line rests on, and what has become of that. */
@Component({
  selector: 'sd-line-mark',
  imports: [Button, RouterLink],
  template: `
    @if (mark(); as m) {
      <p class="small warn">
        <i class="pi pi-exclamation-triangle" aria-hidden="true"></i>
        When this was taken: {{ m.restsOn.fact }}.
        @if (m.now !== null) {
          Today: {{ m.now }}.
          <p-button
            [text]="true"
            size="small"
            label="Say it as of today"
            [ariaLabel]="'Say it as of today: ' + line().text"
            (onClick)="renewAsked.emit()"
          />
        } @else {
          Today no rule says so.
        }
      </p>
    } @else if (line().restsOn; as r) {
      <p class="small quiet">
        {{ r.fact }} · <a [routerLink]="['/gear', unit()]" [attr.aria-label]="'the fact: ' + r.fact">the fact</a>
      </p>
    }
  `,
  styles: `
    p {
      margin: 0;
    }
    .warn {
      color: var(--ochre-text);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LineMarkNote {
  readonly line = input.required<ReviewLine>();
  readonly mark = input.required<LineMark | null>();
  readonly unit = input.required<string>();
  readonly renewAsked = output();
}
