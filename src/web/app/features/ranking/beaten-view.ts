import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { catchError, of, switchMap } from 'rxjs';
import { countedCurrency } from '#core/rules/rubric';
import type { RankingInputs } from '#contracts/ranking';
import { Ranker } from '../../data/ranker';
import { chanceText, formatPrice } from '../../ui/format';
import { nameOf } from './standing';

/** Favourites of their day that one that costs no more has beaten since. */
@Component({
  selector: 'sd-beaten-view',
  imports: [RouterLink],
  template: `
    <h2>Beaten favourites</h2>
    <p class="small quiet">
      In the top stratum among all that had been tested by the day of their own first test, and beaten since, with at
      least 90 %, by one that costs the same or less; by the figures that count today, the price left out of the points.
    </p>
    @if (rows(); as found) {
      <table class="plain-table">
        <thead>
          <tr>
            <th class="head">Favourite</th>
            <th class="head">Tested</th>
            <th class="head right">Price</th>
            <th class="head">Beaten by</th>
            <th class="head">Tested</th>
            <th class="head right">Price</th>
            <th class="head right">Probability</th>
          </tr>
        </thead>
        <tbody>
          @for (row of found; track row.id) {
            <tr>
              <td>
                <a [routerLink]="['/gear', row.id]">{{ name(row.id) }}</a>
              </td>
              <td class="num">{{ row.testedOn }}</td>
              <td class="right num">{{ price(row.price) }}</td>
              <td>
                <a [routerLink]="['/gear', row.by]">{{ name(row.by) }}</a>
              </td>
              <td class="num">{{ row.byTestedOn }}</td>
              <td class="right num">{{ price(row.byPrice) }}</td>
              <td class="right num">{{ chance(row.probability) }}</td>
            </tr>
          } @empty {
            <tr>
              <td colspan="7" class="quiet">
                {{ currency() ? 'No favourite of its day has been beaten so.' : 'The rules count no price.' }}
              </td>
            </tr>
          }
        </tbody>
      </table>
    } @else {
      <p class="quiet" role="status">Looking back …</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
      margin-top: 16px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BeatenView {
  readonly inputs = input.required<RankingInputs>();
  readonly weights = input.required<Readonly<Record<string, number>>>();

  private readonly ranker = inject(Ranker);
  protected readonly rows = toSignal(
    toObservable(computed(() => ({ inputs: this.inputs(), weights: this.weights() }))).pipe(
      switchMap(({ inputs, weights }) => this.ranker.beaten(inputs, weights).pipe(catchError(() => of([])))),
    ),
    { initialValue: null },
  );
  protected readonly currency = computed(() => countedCurrency(this.inputs().rubric));
  protected readonly price = (amount: number): string => formatPrice(amount, this.currency() ?? '');
  protected readonly chance = chanceText;
  protected readonly name = (id: string): string => nameOf(this.inputs().names, id);
}
