import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { catchError, of, switchMap } from 'rxjs';
import { countedCurrency } from '#core/rules/rubric';
import type { RankingInputs } from '#contracts/ranking';
import { unitName } from '#contracts/unit-name';
import { Ranker } from '../../data/ranker';
import { chanceText, formatNumber, formatPrice } from '../../ui/format';
import { frontierChart } from './frontier-geometry';

const [WIDTH, HEIGHT] = [760, 360];
/** Units that are that likely on the frontier are listed, even where their mean lies below it. */
const WORTH_LISTING = 0.2;

/** Points against price: the units that no cheaper one equals. */
@Component({
  selector: 'sd-frontier-view',
  imports: [RouterLink],
  template: `
    @if (rows(); as list) {
      @if (chart(); as c) {
        <svg
          [attr.viewBox]="'-36 -12 ' + (width + 56) + ' ' + (height + 48)"
          role="img"
          aria-label="Points without the price, against the price; the list below says the same"
        >
          @for (t of c.pointTicks; track t.label) {
            <line class="grid" x1="0" [attr.x2]="width" [attr.y1]="t.at" [attr.y2]="t.at" />
            <text x="-6" [attr.y]="t.at + 4" text-anchor="end">{{ t.label }}</text>
          }
          @for (t of c.priceTicks; track t.label) {
            <line class="grid" [attr.x1]="t.at" [attr.x2]="t.at" y1="0" [attr.y2]="height" />
            <text [attr.x]="t.at" [attr.y]="height + 16" text-anchor="middle">{{ t.label }}</text>
          }
          <text [attr.x]="width" [attr.y]="height + 32" text-anchor="end">price in {{ currency() }}, logarithmic</text>
          <path class="stairs" [attr.d]="c.stairs" />
          @for (d of c.dots; track d.unit.id) {
            <g>
              <title>{{ name(d.unit.id) }}: {{ price(d.unit.price) }}, {{ number(d.unit.composite, 2) }} points</title>
              <line class="bar" [attr.x1]="d.x" [attr.x2]="d.x" [attr.y1]="d.low" [attr.y2]="d.high" />
              @if (d.unit.isOnFrontier) {
                <rect class="on" [attr.x]="d.x - 5" [attr.y]="d.y - 5" width="10" height="10" />
              } @else {
                <circle class="off" [attr.cx]="d.x" [attr.cy]="d.y" r="3.5" />
              }
            </g>
          }
        </svg>
        <p class="small quiet">
          Points here leave the price out, so that it does not count twice. A square is a unit that no unit at its price
          or below equals; the line is its 90 % interval.
        </p>
        <table class="plain-table">
          <thead>
            <tr>
              <th class="head">Unit</th>
              <th class="head right">Price</th>
              <th class="head right">Points without price</th>
              <th class="head right">Probability that no cheaper one equals it</th>
            </tr>
          </thead>
          <tbody>
            @for (row of listed(); track row.id) {
              <tr>
                <td>
                  <a [routerLink]="['/gear', row.id]">{{ name(row.id) }}</a>
                  @if (!row.isOnFrontier) {
                    <span class="quiet small"> not by its mean</span>
                  }
                </td>
                <td class="num right">{{ price(row.price) }}</td>
                <td class="num right">{{ number(row.composite, 2) }}</td>
                <td class="num right">{{ chance(row.probability) }}</td>
              </tr>
            }
          </tbody>
        </table>
      } @else {
        <p class="quiet">No unit has a price that the rules count.</p>
      }
      @if (unpriced() > 0) {
        <p class="small quiet">{{ unpriced() }} without a price are not in it.</p>
      }
    } @else {
      <p class="quiet">Drawing …</p>
    }
  `,
  styleUrl: './drawn-view.css',
  styles: `
    .bar {
      stroke: var(--quiet);
    }
    .stairs {
      stroke-width: 1.5;
      stroke-dasharray: 5 3;
    }
    .on {
      fill: var(--azurite);
    }
    .off {
      fill: var(--panel);
      stroke: var(--ink);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FrontierView {
  readonly inputs = input.required<RankingInputs>();
  readonly weights = input.required<Readonly<Record<string, number>>>();

  private readonly ranker = inject(Ranker);
  protected readonly width = WIDTH;
  protected readonly height = HEIGHT;
  private readonly asked = computed(() => ({ inputs: this.inputs(), weights: this.weights() }));
  protected readonly rows = toSignal(
    toObservable(this.asked).pipe(
      switchMap(({ inputs, weights }) => this.ranker.frontier(inputs, weights).pipe(catchError(() => of([])))),
    ),
    { initialValue: null },
  );
  protected readonly chart = computed(() => {
    const rows = this.rows();
    return rows && rows.length > 0 ? frontierChart(rows, WIDTH, HEIGHT) : null;
  });
  protected readonly listed = computed(() =>
    (this.rows() ?? []).filter((r) => r.isOnFrontier || r.probability >= WORTH_LISTING),
  );
  protected readonly unpriced = computed(() => this.inputs().units.length - (this.rows()?.length ?? 0));
  protected readonly currency = computed(() => countedCurrency(this.inputs().rubric) ?? '');
  protected readonly number = formatNumber;
  protected readonly chance = chanceText;
  protected readonly price = (amount: number): string => formatPrice(amount, this.currency());
  protected readonly name = (id: string): string => unitName(this.inputs().names[id]);
}
