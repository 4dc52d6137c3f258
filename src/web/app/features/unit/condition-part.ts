import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { effectWords } from '#core/gear/run/condition-words';
import { quantity } from '#core/measure/registry';
import { conditionWords } from '#core/rules/take-conditions';
import type { ConditionGridJson } from '#contracts/curves';
import type { Take } from '#contracts/specimen';
import { Figure } from '../../ui/figure';
import { heardByCondition } from './heard-by-condition';

/** One unit in several voices, places or mounts: figures side by side, what they depend on, and the takes to hear. */
@Component({
  selector: 'sd-condition-part',
  imports: [Figure, RouterLink],
  template: `
    <h3>By voice and place</h3>
    <p class="small quiet">
      Recorded first, and what counts for this unit: {{ columns()[0] || 'the takes that name nothing' }}.
    </p>
    <div class="scroll" role="region" aria-label="Figures by voice and place" tabindex="0">
      <table class="plain-table">
        <thead>
          <tr>
            <th class="head" scope="col">Figure</th>
            @for (column of columns(); track column) {
              <th class="head right" scope="col">{{ column || 'not named' }}</th>
            }
            <th class="head" scope="col">What it depends on</th>
          </tr>
        </thead>
        <tbody>
          @for (row of rows(); track row.quantity) {
            <tr>
              <th scope="row">{{ row.name }}</th>
              @for (cell of row.cells; track $index) {
                <td class="right">
                  @if (cell) {
                    <sd-figure [quantity]="row.quantity" [value]="cell.value" [uncertainty]="cell.uncertainty" />
                    @if (row.best === $index) {
                      <div class="small good"><i class="pi pi-check" aria-hidden="true"></i> best</div>
                    }
                    @if (cell.repeats > 1) {
                      <div class="small quiet">of {{ cell.repeats }} takes</div>
                    }
                  } @else {
                    <span class="quiet">not measured</span>
                  }
                </td>
              }
              <td class="small">
                @for (words of row.words; track words) {
                  <div>{{ words }}</div>
                }
              </td>
            </tr>
          }
        </tbody>
      </table>
    </div>
    @if (heard().length > 0) {
      <p class="hear">
        <span class="quiet">Hear them side by side, at one loudness:</span>
        @for (step of heard(); track step.title) {
          <a routerLink="/compare" [queryParams]="{ takes: step.takes.join(',') }">{{ step.title }}</a>
        }
      </p>
    }
  `,
  styles: `
    .scroll {
      overflow-x: auto;
    }
    th[scope='row'] {
      font-weight: 400;
      text-align: left;
    }
    .hear {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 16px;
      margin: 8px 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ConditionPart {
  readonly grid = input.required<ConditionGridJson>();
  /** Of the run that the grid is of. */
  readonly takes = input.required<readonly Take[]>();

  protected readonly columns = computed(() => this.grid().conditions.map(conditionWords));
  protected readonly rows = computed(() =>
    this.grid().rows.map((row) => ({ ...row, name: quantity(row.quantity).name, words: effectWords(row) })),
  );
  protected readonly heard = computed(() => heardByCondition(this.takes(), this.grid().conditions));
}
