import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { RankedUnit } from '#core/rules/rank';
import type { Rubric } from '#core/rules/rubric';
import { formatNumber, plusMinus } from '../../ui/format';
import { Whisker, scaleAround } from '../../ui/whisker';
import { nameOf, standingSentences, type Names } from '../ranking/standing';

/** Neighbours shown to either side. */
const NEIGHBOURS = 3;

/** Where a unit stands, in sentences and among its neighbours. */
@Component({
  selector: 'sd-unit-place',
  imports: [RouterLink, Whisker],
  template: `
    @for (sentence of sentences(); track sentence) {
      <p>{{ sentence }}</p>
    }
    <div class="neighbours panel" role="list" aria-label="Neighbours in the ranking">
      @for (n of neighbours(); track n.id) {
        <div class="neighbour" role="listitem" [class.self]="n.id === unit().id">
          <span class="right num">{{ n.place }}</span>
          <span class="quiet small">stratum {{ n.stratum }}</span>
          @if (n.id === unit().id) {
            <b>{{ nameOf(n.id) }}</b>
          } @else {
            <a [routerLink]="['/gear', n.id]">{{ nameOf(n.id) }}</a>
          }
          <sd-whisker
            [class.under-test]="n.id === unit().id"
            [class.incomplete]="n.missing.length > 0"
            [value]="n.composite"
            [interval]="n.composite90"
            [scale]="scale()"
          />
          <span class="right num"
            >{{ number(n.composite, 2) }} <span class="quiet">{{ plusMinus(n.sd, 2) }}</span></span
          >
        </div>
      }
    </div>
  `,
  styleUrl: './unit-place.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnitPlace {
  readonly unit = input.required<RankedUnit>();
  readonly ranked = input.required<readonly RankedUnit[]>();
  readonly names = input.required<Names>();
  readonly rubric = input.required<Rubric>();

  protected readonly number = formatNumber;
  protected readonly plusMinus = plusMinus;
  protected readonly neighbours = computed(() =>
    this.ranked().filter((u) => Math.abs(u.place - this.unit().place) <= NEIGHBOURS),
  );
  protected readonly scale = computed(() => scaleAround(this.neighbours().map((u) => u.composite90)));
  protected readonly sentences = computed(() =>
    standingSentences(
      this.unit(),
      this.ranked(),
      this.names(),
      new Map(this.rubric().criteria.map((c) => [c.id, c.name])),
    ),
  );

  protected nameOf(id: string): string {
    return id in this.names() ? nameOf(this.names(), id) : id;
  }
}
