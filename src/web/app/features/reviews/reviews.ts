import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { of, switchMap } from 'rxjs';
import type { HeldReview } from '#contracts/review';
import type { SiteReportJson } from '#contracts/site';
import { unitName } from '#contracts/unit-name';
import { Breadcrumb } from '../../data/breadcrumb';
import { CatalogueData } from '../../data/catalogue';
import { ScreenKeys } from '../../data/keys';
import { LOADING } from '../../data/loaded';
import { ReviewData } from '../../data/reviews';
import { Saving } from '../../data/saving';
import { ChoiceField } from '../../ui/field/choice-field';
import { TextField } from '../../ui/field/text-field';
import { ProblemBox } from '../../ui/problem-box';
import { ON_ONE_PAGE, shelfPage, sinceWords } from './shelf';

/** Everything that was written and published. */
@Component({
  selector: 'sd-reviews',
  imports: [Button, ChoiceField, ProblemBox, RouterLink, TextField],
  template: `
    <div class="title">
      <h1>Reviews</h1>
      <div class="actions">
        <sd-choice-field
          label="Unit to review"
          bare
          filter
          [options]="units()"
          [value]="chosen()"
          placeholder="Choose a unit"
          (valueChange)="chosen.set($event)"
        />
        <p-button
          icon="pi pi-pencil"
          label="Begin a review"
          [disabled]="!chosen() || saving.isBusy()"
          (onClick)="open()"
        />
        <a class="link" routerLink="/reviews/house">How this desk reviews</a>
      </div>
    </div>
    @if (problem(); as p) {
      <sd-problem-box [problem]="p" />
    }
    @if (saving.problem(); as p) {
      <sd-problem-box [problem]="p" />
    }
    @if (reviews(); as list) {
      @if (list.length === 0) {
        <section class="panel pad">
          <h2>What you say of a unit, and what you publish</h2>
          <p class="quiet">
            A review holds the verdict in your words, with lines that are proposed from facts. Publishing freezes an
            edition: text, figures, ranking as of that day, clips. Choose a unit above to begin.
          </p>
        </section>
      } @else {
        @if (hasPublished()) {
          <p class="site">
            <p-button
              icon="pi pi-globe"
              severity="secondary"
              [label]="writing.isBusy() ? 'Writing the site …' : 'Write the site'"
              [disabled]="writing.isBusy()"
              (onClick)="writeSite()"
            />
            @if (report(); as r) {
              <span role="status" class="small"
                >{{ r.pages }} pages in <span class="num">{{ r.folder }}</span>: {{ r.written }} files written,
                {{ r.kept }} as they were, {{ r.removed }} taken away. Put the folder on any file server.</span
              >
            } @else {
              <span class="small quiet">Everything that is published, as pages that any file server serves.</span>
            }
          </p>
          @if (writing.problem(); as p) {
            <sd-problem-box [problem]="p" />
          }
        }
        @if (list.length > onOnePage) {
          <sd-text-field label="Find" type="search" [value]="typed()" (valueChange)="find($event)" />
        }
        @let shelf = shown();
        <table class="plain-table">
          <thead>
            <tr>
              <th class="head" scope="col">Unit</th>
              <th class="head" scope="col">Headline</th>
              <th class="head" scope="col">Published</th>
              <th class="head" scope="col">Since then</th>
            </tr>
          </thead>
          <tbody>
            @for (r of shelf.rows; track r.id) {
              <tr>
                <th scope="row">
                  <a [routerLink]="['/reviews', r.id]">{{ r.unit.name }}</a>
                </th>
                <td>{{ r.headline || 'no headline yet' }}</td>
                <td class="whole">
                  @if (r.publishedOn) {
                    <span class="num">{{ r.publishedOn }}</span>, edition {{ r.editions }}
                  } @else {
                    <span class="quiet">draft since {{ r.openedOn }}</span>
                  }
                </td>
                <td>
                  @for (w of sinceWords(r, heldOf(r.id)); track w.text; let first = $first) {
                    <span [class.warn]="w.isChange" [class.quiet]="!w.isChange"
                      >{{ first ? '' : ' · ' }}{{ w.text }}</span
                    >
                  }
                </td>
              </tr>
            } @empty {
              <tr>
                <td colspan="4" class="quiet">No review holds these words.</td>
              </tr>
            }
          </tbody>
        </table>
        @if (shelf.last > 0) {
          <nav class="pages" aria-label="Pages of reviews">
            <p-button
              size="small"
              severity="secondary"
              label="Later ones"
              [disabled]="shelf.page === 0"
              (onClick)="page.set(shelf.page - 1)"
            />
            <span class="small" role="status"
              >Page {{ shelf.page + 1 }} of {{ shelf.last + 1 }}, {{ shelf.found }} reviews</span
            >
            <p-button
              size="small"
              severity="secondary"
              label="Earlier ones"
              [disabled]="shelf.page === shelf.last"
              (onClick)="page.set(shelf.page + 1)"
            />
          </nav>
        }
      }
    }
  `,
  styles: `
    .actions {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 16px;
      align-items: center;
    }
    .pages,
    .site {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 12px;
      align-items: center;
      margin: 0;
    }
    .warn {
      color: var(--ochre-text);
    }
    @media (min-width: 761px) {
      .whole,
      th[scope='row'] {
        white-space: nowrap;
      }
    }
    th[scope='row'] {
      text-align: left;
      font-weight: 400;
    }
    @media (max-width: 760px) {
      :host {
        padding: 12px 12px 48px;
      }
    }
  `,
  host: { class: 'page-frame' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Reviews {
  /** ?unit=… is offered to begin with. */
  readonly unit = input<string>();

  private readonly data = inject(ReviewData);
  private readonly router = inject(Router);
  protected readonly saving = new Saving();
  protected readonly writing = new Saving();
  protected readonly report = signal<SiteReportJson | null>(null);
  private readonly loaded = toSignal(this.data.reviews, { initialValue: LOADING });
  private readonly specimens = toSignal(inject(CatalogueData).specimens, { initialValue: LOADING });
  protected readonly problem = computed(() => this.loaded().problem);
  protected readonly reviews = computed(() => this.loaded().value);
  protected readonly onOnePage = ON_ONE_PAGE;
  protected readonly sinceWords = sinceWords;
  protected readonly typed = signal('');
  protected readonly page = signal(0);
  protected readonly shown = computed(() => shelfPage(this.reviews() ?? [], this.typed(), this.page()));
  private readonly held = toSignal(
    toObservable(
      computed(() =>
        this.shown()
          .rows.map((r) => r.id)
          .join(','),
      ),
    ).pipe(switchMap((ids) => (ids === '' ? of(LOADING) : this.data.held(ids.split(','))))),
    { initialValue: LOADING },
  );
  protected readonly hasPublished = computed(() => (this.reviews() ?? []).some((r) => r.editions > 0));
  protected readonly units = computed(() => (this.specimens().value ?? []).map((u) => ({ label: unitName(u), value: u.id }))); // prettier-ignore
  protected readonly chosen = linkedSignal<string | null>(() => this.unit() ?? null);

  constructor() {
    inject(Breadcrumb).crumbs.set([{ label: 'Reviews', link: null }]);
    inject(ScreenKeys).hints.set([]);
  }

  protected find(words: string): void {
    this.typed.set(words);
    this.page.set(0);
  }

  protected heldOf(id: string): HeldReview | null {
    return this.held().value?.find((h) => h.id === id) ?? null;
  }

  protected writeSite(): void {
    this.writing.run(this.data.publishSite(), (report) => this.report.set(report));
  }

  protected open(): void {
    const unit = this.chosen();
    if (unit) this.saving.run(this.data.open(unit), ({ id }) => void this.router.navigate(['/reviews', id]));
  }
}
