import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import type { SiteReportJson } from '#contracts/site';
import { unitName } from '#contracts/unit-name';
import { Breadcrumb } from '../../data/breadcrumb';
import { CatalogueData } from '../../data/catalogue';
import { ScreenKeys } from '../../data/keys';
import { LOADING } from '../../data/loaded';
import { ReviewData } from '../../data/reviews';
import { Saving } from '../../data/saving';
import { ChoiceField } from '../../ui/field/choice-field';
import { ProblemBox } from '../../ui/problem-box';

/** Everything that was written and published. */
@Component({
  selector: 'sd-reviews',
  imports: [Button, ChoiceField, ProblemBox, RouterLink],
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
            @for (r of list; track r.id) {
              <tr>
                <th scope="row">
                  <a [routerLink]="['/reviews', r.id]">{{ r.unit.name }}</a>
                </th>
                <td>{{ r.headline || 'no headline yet' }}</td>
                <td>
                  @if (r.publishedOn) {
                    <span class="num">{{ r.publishedOn }}</span>, edition {{ r.editions }}
                  } @else {
                    <span class="quiet">draft since {{ r.openedOn }}</span>
                  }
                </td>
                <td>
                  @if (r.since?.length) {
                    <span class="warn">{{
                      r.since?.length === 1 ? r.since?.[0]?.text : r.since?.length + ' changes'
                    }}</span>
                  } @else if (r.publishedOn && r.since !== null) {
                    <span class="quiet">nothing</span>
                  } @else if (r.since === null) {
                    <span class="quiet">open it to see</span>
                  }
                  @if (r.marks) {
                    <span class="warn small">
                      · {{ r.marks === 1 ? 'one line rests' : r.marks + ' lines rest' }} on changed facts</span
                    >
                  }
                </td>
              </tr>
            }
          </tbody>
        </table>
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 12px;
      align-content: start;
      padding: 16px 24px 48px;
    }
    .actions {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 16px;
      align-items: center;
    }
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
  protected readonly hasPublished = computed(() => (this.reviews() ?? []).some((r) => r.editions > 0));
  protected readonly units = computed(() => (this.specimens().value ?? []).map((u) => ({ label: unitName(u), value: u.id }))); // prettier-ignore
  protected readonly chosen = linkedSignal<string | null>(() => this.unit() ?? null);

  constructor() {
    inject(Breadcrumb).crumbs.set([{ label: 'Reviews', link: null }]);
    inject(ScreenKeys).hints.set([]);
  }

  protected writeSite(): void {
    this.writing.run(this.data.publishSite(), (report) => this.report.set(report));
  }

  protected open(): void {
    const unit = this.chosen();
    if (unit) this.saving.run(this.data.open(unit), ({ id }) => void this.router.navigate(['/reviews', id]));
  }
}
