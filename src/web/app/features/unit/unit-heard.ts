import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { switchMap } from 'rxjs';
import { quantile } from '#core/stats/quantile';
import { scaleRequestSchema } from '#contracts/scale';
import type { SpecimenSheet } from '#contracts/specimen';
import { ListeningData } from '../../data/listening';
import { LOADING } from '../../data/loaded';
import { formatNumber } from '../../ui/format';
import { WorthWhisker } from '../../ui/worth-whisker';

/** What blind listening says of a unit: its worth among all, its words, and the way to place it. */
@Component({
  selector: 'sd-unit-heard',
  imports: [RouterLink, WorthWhisker],
  template: `
    @if (item(); as i) {
      <p>
        Place <strong class="num">{{ i.place90[0] }}–{{ i.place90[1] }}</strong> of {{ units() }} by ear (90 %), from
        {{ i.answers }} answers. Preferred to the middle unit in about {{ share() }} % of comparisons.
      </p>
      <div class="whisker"><sd-worth-whisker [value]="i.logWorth" [se]="i.se" [scale]="scale" /></div>
    } @else {
      <p class="quiet">Nobody has heard it blind yet.</p>
    }
    @if (sheet().words.length > 0) {
      <p class="words">
        @for (w of sheet().words; track w.word + w.isFree) {
          <span
            >{{ w.isFree ? '“' + w.word + '”' : w.word }} <span class="num quiet">×{{ w.count }}</span></span
          >
        }
      </p>
    }
    <p>
      <a [routerLink]="['/scale/place', sheet().row.id]">Place it by a few questions</a>
      <a class="after" routerLink="/scale" [queryParams]="{ kind: sheet().row.category }">The whole scale</a>
    </p>
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .whisker {
      max-width: 420px;
    }
    .words {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 16px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnitHeard {
  readonly sheet = input.required<SpecimenSheet>();
  private readonly data = inject(ListeningData);
  private readonly loaded = toSignal(
    toObservable(computed(() => this.sheet().row.category)).pipe(
      switchMap((category) => this.data.scale(scaleRequestSchema.parse({ category, withEffects: false }))),
    ),
    { initialValue: LOADING },
  );
  protected readonly units = computed(() => this.loaded().value?.items.length ?? 0);
  protected readonly item = computed(
    () => this.loaded().value?.items.find((i) => i.id === this.sheet().row.id) ?? null,
  );
  protected readonly share = computed(() => {
    const middle = quantile(
      (this.loaded().value?.items ?? []).map((i) => i.logWorth),
      0.5,
    );
    return formatNumber(100 / (1 + Math.exp(middle - (this.item()?.logWorth ?? 0))), 0);
  });
  protected readonly scale = { low: -5, high: 5 };
}
