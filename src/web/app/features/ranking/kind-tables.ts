import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { Category } from '#contracts/common';
import { PLAIN_PATHS } from '#contracts/http';

/** The tables of a kind as files, for a spreadsheet or a program. */
@Component({
  selector: 'sd-kind-tables',
  template: `
    <p class="small">
      <span class="quiet">All of the kind as a file, by the saved rules, as of today.</span>
      @for (table of tables; track table.name) {
        <span class="table">
          {{ table.name }}:
          <a class="link" [href]="path(table.csv)" download [attr.aria-label]="'CSV of the ' + table.name">CSV</a>
          <a
            class="link"
            [href]="path(table.csv) + '?style=semicolon'"
            download
            [attr.aria-label]="'CSV; 1,5 of the ' + table.name + ', for countries that write 1,5'"
            >CSV; 1,5</a
          >
          <a class="link" [href]="path(table.json)" download [attr.aria-label]="'JSON of the ' + table.name">JSON</a>
        </span>
      }
    </p>
  `,
  styles: `
    p {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 16px;
      margin: 8px 0 0;
      max-width: none;
    }
    .table {
      display: inline-flex;
      gap: 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KindTables {
  readonly kind = input.required<Category>();
  protected readonly tables = [
    { name: 'ranking', csv: 'rankingCsv', json: 'rankingJson' },
    { name: 'board', csv: 'boardCsv', json: 'boardJson' },
  ] as const;

  protected path(name: 'rankingCsv' | 'rankingJson' | 'boardCsv' | 'boardJson'): string {
    return PLAIN_PATHS[name].replace(':category', this.kind());
  }
}
