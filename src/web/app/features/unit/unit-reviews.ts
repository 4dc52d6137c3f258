import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { switchMap } from 'rxjs';
import { LOADING } from '../../data/loaded';
import { ReviewData } from '../../data/reviews';
import { restWords } from '../../ui/review-words';

/** What was written and published of a unit, and what has happened since. */
@Component({
  selector: 'sd-unit-reviews',
  imports: [RouterLink],
  template: `
    @for (r of reviews().value ?? []; track r.id) {
      <p>
        <a [routerLink]="['/reviews', r.id]">{{ r.headline || 'Draft of ' + r.openedOn }}</a>
        @if (r.publishedOn) {
          <span>
            · published <span class="num">{{ r.publishedOn }}</span>, edition {{ r.editions }}</span
          >
          @if (r.since.length > 0) {
            ; since then:
            @for (c of r.since; track c.text; let last = $last) {
              <span class="warn">{{ c.text }}{{ last ? '' : '; ' }}</span>
            }
          } @else {
            ; nothing that counts has changed since
          }
        } @else {
          <span class="quiet">· not published</span>
        }
        @if (r.marks) {
          <span class="warn"> · {{ restWords(r.marks) }}</span>
        }
      </p>
    } @empty {
      <p class="quiet">No review yet.</p>
    }
    <a class="link" routerLink="/reviews" [queryParams]="{ unit: unit() }">{{
      reviews().value?.length ? 'Review it again' : 'Begin a review'
    }}</a>
  `,
  styles: `
    p {
      margin: 0 0 4px;
    }
    .warn {
      color: var(--ochre-text);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnitReviews {
  readonly unit = input.required<string>();
  protected readonly restWords = restWords;

  private readonly data = inject(ReviewData);
  protected readonly reviews = toSignal(toObservable(this.unit).pipe(switchMap((id) => this.data.of(id))), {
    initialValue: LOADING,
  });
}
