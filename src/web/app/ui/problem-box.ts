import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { Problem } from '#contracts/problem';

/** What happened, what is safe, what to do; with every detail. */
@Component({
  selector: 'sd-problem-box',
  template: `
    <div class="box" role="alert">
      <p class="what"><i class="pi pi-exclamation-triangle" aria-hidden="true"></i> {{ problem().message }}</p>
      @if (problem().details.length > 0) {
        <ul>
          @for (detail of problem().details; track $index) {
            <li>
              @if (detail.file) {
                <span class="num">{{ detail.file }}</span>
              }
              @if (detail.field) {
                <span class="num quiet"> {{ detail.field }}</span>
              }
              {{ detail.message }}
            </li>
          }
        </ul>
      }
      <p class="small quiet">{{ problem().safe }} {{ problem().next }}</p>
      <ng-content />
    </div>
  `,
  styles: `
    .box {
      display: grid;
      gap: 4px;
      padding: 8px 12px;
      border-left: 3px solid var(--cinnabar);
      background: var(--cinnabar-soft);
    }
    .what {
      font-weight: 560;
    }
    .what i {
      color: var(--cinnabar-text);
    }
    ul {
      margin: 0;
      padding-left: 18px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProblemBox {
  readonly problem = input.required<Problem>();
}
