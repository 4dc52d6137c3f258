import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import type { Rubric } from '#core/rules/rubric';
import type { SpecimenSheet } from '#contracts/specimen';
import { unitHistory } from './unit-history';

/** What was said of a unit, when, and what has taken its place. */
@Component({
  selector: 'sd-history-list',
  template: `
    <details #all (toggle)="isOpen.set(all.open)">
      <summary>All that was said of it, by day ({{ lines().length }})</summary>
      @if (isOpen()) {
        <ul tabindex="0" aria-label="All that was said of it">
          @for (line of lines(); track $index) {
            <li [class.quiet]="line.until !== null">
              <span class="num">{{ line.day }}</span> {{ line.text }}
              @if (line.until; as day) {
                <span class="small"
                  >— until <span class="num">{{ day }}</span></span
                >
              }
            </li>
          }
        </ul>
      }
    </details>
  `,
  styles: `
    ul {
      margin: 4px 0 0;
      padding: 0;
      max-height: 420px;
      overflow: auto;
      list-style: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HistoryList {
  readonly sheet = input.required<SpecimenSheet>();
  readonly rubric = input.required<Rubric | null>();
  /** A long list is made when somebody asks for it. */
  protected readonly isOpen = signal(false);
  protected readonly lines = computed(() => unitHistory(this.sheet(), this.rubric()));
}
