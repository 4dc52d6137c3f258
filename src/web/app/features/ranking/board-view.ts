import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { TableModule } from 'primeng/table';
import type { QuantityId } from '#core/measure/registry';
import type { RankedUnit } from '#core/rules/rank';
import type { RankingInputs } from '#contracts/ranking';
import { Figure } from '../../ui/figure';
import { saveFile } from '../../ui/save-picture';
import { nameOf } from './standing';
import { boardCsv, boardOf, type BoardCell } from './board';

interface BoardRow {
  readonly id: string;
  readonly name: string;
  readonly place: number;
  readonly cells: Readonly<Partial<Record<QuantityId, BoardCell>>>;
}

/** All units by all figures: the measurer's table, each column ranked by itself. */
@Component({
  selector: 'sd-board-view',
  imports: [Button, Figure, RouterLink, TableModule],
  template: `
    <div class="actions head-line">
      <p class="small quiet grow">
        Each column by itself: the number in a cell is the rank, ● marks what no other beats beyond the uncertainty of
        both, and the shade is the fourth of the column.
      </p>
      <p-button size="small" severity="secondary" icon="pi pi-download" label="CSV" (onClick)="save()" />
    </div>
    <p-table
      [value]="rows()"
      dataKey="id"
      [scrollable]="true"
      scrollHeight="flex"
      [virtualScroll]="true"
      [virtualScrollItemSize]="32"
      sortField="place"
      [sortOrder]="1"
      [tableStyle]="{ 'table-layout': 'fixed', 'min-width': 320 + 192 * columns().length + 'px' }"
    >
      <ng-template #header>
        <tr class="head">
          <th pSortableColumn="place" style="width: 64px" class="right">Place <p-sortIcon field="place" /></th>
          <th pSortableColumn="name" style="width: 240px" pFrozenColumn>Unit <p-sortIcon field="name" /></th>
          @for (c of columns(); track c.id) {
            <th [pSortableColumn]="'cells.' + c.id + '.value'" class="right" style="width: 192px">
              {{ c.name }} <p-sortIcon [field]="'cells.' + c.id + '.value'" />
            </th>
          }
        </tr>
      </ng-template>
      <ng-template #body let-row>
        <tr style="height: 32px">
          <td class="num right">{{ row.place }}</td>
          <td class="name" pFrozenColumn>
            <a [routerLink]="['/gear', row.id]">{{ row.name }}</a>
          </td>
          @for (c of columns(); track c.id) {
            <td class="right cell" [attr.data-fourth]="row.cells[c.id]?.fourth ?? null">
              @if (row.cells[c.id]; as cell) {
                @if (cell.tiesBest) {
                  <span role="img" aria-label="no other is better beyond doubt">●</span>
                }
                @if (cell.rank) {
                  <span class="rank small num">{{ cell.rank }}</span>
                }
                <sd-figure
                  [quantity]="c.id"
                  [value]="cell.value"
                  [uncertainty]="cell.anotherReading ?? cell.uncertainty"
                  about="another reading"
                  [bound]="cell.bound"
                />
              } @else {
                <span class="quiet small">not measured</span>
              }
            </td>
          }
        </tr>
      </ng-template>
    </p-table>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-rows: auto 1fr;
      gap: 8px;
      min-height: 0;
      height: 100%;
    }
    .head-line {
      padding: 6px 12px 0;
    }
    p-table {
      display: block;
      min-height: 0;
      overflow: hidden;
    }
    td {
      overflow: hidden;
      white-space: nowrap;
      text-overflow: ellipsis;
    }
    .rank {
      float: left;
      min-width: 20px;
      color: var(--quiet);
    }
    .cell[data-fourth='1'] {
      background: color-mix(in srgb, var(--malachite) 12%, transparent);
    }
    .cell[data-fourth='2'] {
      background: color-mix(in srgb, var(--malachite) 5%, transparent);
    }
    .cell[data-fourth='4'] {
      background: color-mix(in srgb, var(--ochre) 10%, transparent);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BoardView {
  readonly inputs = input.required<RankingInputs>();
  readonly ranked = input.required<readonly RankedUnit[]>();

  protected readonly columns = computed(() => boardOf(this.inputs().units));
  protected readonly rows = computed<BoardRow[]>(() =>
    this.ranked().map((unit) => ({
      id: unit.id,
      name: nameOf(this.inputs().names, unit.id),
      place: unit.place,
      cells: Object.fromEntries(
        this.columns().flatMap((c) => {
          const cell = c.cells.get(unit.id);
          return cell ? [[c.id, cell]] : [];
        }),
      ),
    })),
  );

  protected save(): void {
    const table = new Blob([boardCsv(this.rows(), this.columns())], { type: 'text/csv' });
    saveFile(`board-${this.inputs().rubric.category}.csv`, table);
  }
}
