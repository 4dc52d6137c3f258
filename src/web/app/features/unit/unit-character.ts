import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { switchMap } from 'rxjs';
import { LOADING } from '../../data/loaded';
import { ReviewData } from '../../data/reviews';
import { ProblemBox } from '../../ui/problem-box';
import { useWords } from './use-words';

/** Words for a unit, kept apart by where they come from, and how it stands for the uses of this desk. */
@Component({
  selector: 'sd-unit-character',
  imports: [ProblemBox, RouterLink],
  template: `
    @if (loaded().problem; as p) {
      <sd-problem-box [problem]="p" />
    }
    @if (character(); as c) {
      <dl>
        <dt>Listeners say</dt>
        <dd>
          @for (w of c.heard; track w.word + w.isFree) {
            <span
              >{{ w.isFree ? '“' + w.word + '”' : w.word }} <span class="num quiet">×{{ w.count }}</span></span
            >
          } @empty {
            <span class="quiet">nothing yet: words are asked for in listening tests</span>
          }
        </dd>
        <dt>Figures say</dt>
        <dd>
          @for (m of c.measured; track m.word + m.why) {
            <span
              >{{ m.word }} <span class="quiet small">{{ m.why }}</span></span
            >
          } @empty {
            <span class="quiet">nothing: no figure that a word belongs to stands out among its kind</span>
          }
        </dd>
        <dt>Its maker says</dt>
        <dd>
          @for (w of c.maker; track w) {
            <span>{{ w }}</span>
          } @empty {
            <span class="quiet">nothing that is noted: the data sheet has a field for it</span>
          }
        </dd>
      </dl>
      @for (words of c.contradictions; track words) {
        <p class="warn">{{ words }}.</p>
      }
      @if (c.uses.length > 0) {
        <ul class="uses" aria-label="What it is for">
          @for (u of c.uses; track u.use) {
            <li>
              <strong>{{ u.use }}</strong>
              <span>{{ words(u) }}</span>
              @if (u.bestNames.length > 0) {
                <span class="small"
                  >{{ u.bestNames.length < (u.better ?? 0) ? 'Some of them' : 'Better' }}:
                  @for (b of u.bestNames; track b.id; let last = $last) {
                    <a [routerLink]="['/gear', b.id]">{{ b.name }}</a>{{ last ? '' : ', ' }}
                  }
                </span>
              }
              <span class="small quiet">{{ u.asked.join('; ') }}</span>
            </li>
          }
        </ul>
        <p class="small">
          <a routerLink="/reviews/house">What each use asks for</a>
        </p>
      } @else {
        <p class="small quiet">No use of <a routerLink="/reviews/house">this desk</a> asks for figures of this kind.</p>
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 12px;
    }
    dl {
      display: grid;
      grid-template-columns: max-content 1fr;
      gap: 4px 16px;
      margin: 0;
    }
    dt {
      color: var(--quiet);
    }
    dd {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 16px;
      margin: 0;
    }
    ul {
      display: grid;
      gap: 8px;
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: grid;
      gap: 2px;
    }
    p {
      margin: 0;
    }
    @media (max-width: 760px) {
      dl {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnitCharacter {
  readonly unit = input.required<string>();
  private readonly data = inject(ReviewData);
  protected readonly loaded = toSignal(toObservable(this.unit).pipe(switchMap((id) => this.data.character(id))), {
    initialValue: LOADING,
  });
  protected readonly character = computed(() => this.loaded().value);
  protected readonly words = useWords;
}
