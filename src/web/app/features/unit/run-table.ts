import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { latencyBuffers, latencyCells } from '#core/gear/interface/latency-figures';
import type { Run } from '#contracts/specimen';
import { OddLatencyMark } from '../../ui/odd-latency-mark';
import { cellText, tableCaption } from './table-text';

/** A table that was filled in during a run. */
@Component({
  selector: 'sd-run-table',
  imports: [OddLatencyMark],
  template: `
    <table class="plain-table panel">
      <caption class="head">
        {{
          caption()
        }}
      </caption>
      <thead>
        <tr>
          <th></th>
          @for (column of columns(); track column) {
            <th class="head right">{{ column }}</th>
          }
        </tr>
      </thead>
      <tbody>
        @for (row of rows(); track row) {
          <tr>
            <th scope="row" class="head">{{ row }}</th>
            @for (column of columns(); track column) {
              <td class="num right">
                {{ cell(row, column) }}
                @if (odd().has(row + '/' + column)) {
                  <sd-odd-latency-mark />
                }
              </td>
            }
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    table {
      width: auto;
      min-width: 260px;
    }
    th,
    td {
      padding-left: 12px;
    }
    caption {
      text-align: left;
      padding: 4px 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RunTable {
  readonly table = input.required<Run['tables'][number]>();

  protected readonly caption = computed(() => tableCaption(this.table()));
  /** Cells of a table of latencies that do not go with the others. */
  protected readonly odd = computed(() => {
    const { role, cells } = this.table();
    const buffers = latencyBuffers(role);
    const marked = buffers === null ? [] : latencyCells({ cells }, buffers).filter((c) => c.isOdd);
    return new Set(marked.map((c) => `${c.row}/${c.column}`));
  });
  protected readonly rows = computed(() => [...new Set(this.table().cells.map((c) => c.row))]);
  protected readonly columns = computed(() => [...new Set(this.table().cells.map((c) => c.column))]);

  protected cell(row: string, column: string): string {
    const found = this.table().cells.find((c) => c.row === row && c.column === column);
    return found ? cellText(found) : '—';
  }
}
