import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { QuantityId } from '#core/measure/registry';
import type { Measurement } from '#core/measure/measurement';
import { Figure } from './figure';

/** A cell: a value with what is known of its doubt; null where nothing was measured. */
export interface CellOver {
  readonly value: number | null;
  readonly uncertainty?: number | null;
  readonly bound?: Measurement['bound'];
}

/** Figures over something that was varied: a column for each of its values. */
export interface FiguresOver {
  readonly title: string;
  readonly caption: string;
  /** Null where the only row needs no name. */
  readonly over: string | null;
  readonly columns: readonly string[];
  readonly rows: readonly {
    readonly name: string;
    readonly quantity: QuantityId;
    readonly cells: readonly CellOver[];
  }[];
}

/** A small table of figures over gain, level, frequency or speed. */
@Component({
  selector: 'sd-figures-over',
  imports: [Figure],
  template: `
    @let t = table();
    <h3>{{ t.title }}</h3>
    <p class="small quiet">{{ t.caption }}</p>
    <div class="scroll" tabindex="0" role="region" [attr.aria-label]="t.title">
      <table class="plain-table">
        <thead>
          <tr>
            @if (t.over !== null) {
              <th class="head" scope="col">{{ t.over }}</th>
            }
            @for (c of t.columns; track $index) {
              <th class="head right num" scope="col">{{ c }}</th>
            }
          </tr>
        </thead>
        <tbody>
          @for (row of t.rows; track row.name) {
            <tr>
              @if (t.over !== null) {
                <th scope="row">{{ row.name }}</th>
              }
              @for (cell of row.cells; track $index) {
                <td class="right">
                  <sd-figure
                    [quantity]="row.quantity"
                    [value]="cell.value"
                    [uncertainty]="cell.uncertainty ?? null"
                    [bound]="cell.bound ?? 'exact'"
                  />
                </td>
              }
            </tr>
          }
        </tbody>
      </table>
    </div>
  `,
  styles: `
    .scroll {
      overflow-x: auto;
    }
    table {
      width: auto;
    }
    p {
      margin: 0 0 4px;
    }
    th[scope='row'] {
      font-weight: 400;
      text-align: left;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FiguresOverTable {
  readonly table = input.required<FiguresOver>();
}
