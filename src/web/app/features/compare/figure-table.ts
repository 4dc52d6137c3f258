import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { formatNumber, plusMinus } from '../../ui/format';
import type { DescribedRow } from './compare-charts';

/** Figures of several takes side by side; what differs from the zero line is bold, and says so. */
@Component({
  selector: 'sd-figure-table',
  templateUrl: './figure-table.html',
  styles: `
    :host {
      display: grid;
      gap: 12px;
      padding: 16px;
    }
    .what {
      text-align: left;
      font-weight: 400;
    }
    .differs {
      font-weight: 700;
    }
    .scroll {
      overflow-x: auto;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FigureTable {
  /** Of the columns. */
  readonly names = input.required<readonly string[]>();
  readonly rows = input.required<readonly DescribedRow[]>();
  /** Column of the zero line. */
  readonly zero = input.required<number>();

  protected readonly number = formatNumber;
  protected readonly plusMinus = plusMinus;
}
