import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { Rubric } from '#core/rules/rubric';
import { formatPrice } from '../../ui/format';
import { billsOf } from './bills-of';

/** What a unit costs until it can be used, use by use, with the bill. */
@Component({
  selector: 'sd-price-to-use',
  template: `
    @for (bill of bills(); track bill.use) {
      <h3>{{ bill.use ? 'To use it: ' + bill.use : 'To use it at all' }}</h3>
      @if (bill.why; as why) {
        <p class="quiet">{{ why }}</p>
      } @else {
        <table class="plain-table bill">
          <tbody>
            @for (line of bill.lines; track $index) {
              <tr>
                <td>
                  {{ line.name }}
                  <div class="quiet small">{{ line.why }}</div>
                </td>
                <td class="right num">{{ price(line.amount, bill.currency) }}</td>
              </tr>
            }
            <tr class="total">
              <th scope="row">In all</th>
              <td class="right num">{{ price(bill.total, bill.currency) }}</td>
            </tr>
          </tbody>
        </table>
      }
    }
  `,
  styles: `
    .bill {
      max-width: 480px;
    }
    .total th {
      text-align: left;
      font-weight: 620;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PriceToUse {
  readonly facts = input.required<UnitFacts>();
  readonly rubric = input.required<Rubric>();
  protected readonly bills = computed(() => billsOf(this.facts(), this.rubric()));
  protected readonly price = formatPrice;
}
