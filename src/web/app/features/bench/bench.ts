import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { quantity, type QuantityId } from '#core/measure/registry';
import type { Problem } from '#contracts/problem';
import { STAGES, type SpecimenRow, type Stage } from '#contracts/specimen';
import { problemOf } from '../../data/api';
import { Breadcrumb } from '../../data/breadcrumb';
import { CatalogueData } from '../../data/catalogue';
import { LOADING } from '../../data/loaded';
import { ScreenKeys } from '../../data/keys';
import { SessionData } from '../../data/sessions';
import { Figure } from '../../ui/figure';
import { STAGE_NAMES, daysBetween, formatPrice, today } from '../../ui/format';
import { ProblemBox } from '../../ui/problem-box';
import { dueSentence, nextSession, nextStep, stalePrices } from './next-step';

/** What is on the desk now, how far each unit has come, and what is next. */
@Component({
  selector: 'sd-bench',
  imports: [Button, Figure, ProblemBox, RouterLink],
  templateUrl: './bench.html',
  styleUrl: './bench.css',
  host: { class: 'page-frame' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Bench {
  private readonly data = inject(CatalogueData);
  private readonly router = inject(Router);
  private readonly loaded = toSignal(this.data.specimens, { initialValue: LOADING });
  protected readonly problem = computed(() => this.loaded().problem);
  protected readonly isLoading = computed(() => this.loaded().value === null && this.problem() === null);
  protected readonly all = computed(() => this.loaded().value ?? []);
  protected readonly strips = computed(() =>
    this.all()
      .filter((r) => r.onDesk)
      .sort((a, b) => (b.lastTested ?? '').localeCompare(a.lastTested ?? ''))
      .map((row) => ({ row, next: nextStep(row) })),
  );
  protected readonly failed = computed(() => this.all().filter((r) => !r.onDesk && r.failedAnalyses > 0));
  private readonly plans = toSignal(inject(SessionData).plans, { initialValue: LOADING });
  private readonly due = toSignal(inject(SessionData).due, { initialValue: LOADING });
  /** Running sessions, else the next one; and what is due for another test. */
  protected readonly session = computed(() => nextSession(this.plans().value ?? []));
  protected readonly dueText = computed(() => dueSentence(this.due().value ?? []));
  protected readonly stale = computed(() => stalePrices(this.all(), today()));
  protected readonly actionProblem = signal<Problem | null>(null);
  protected readonly putAway = signal<SpecimenRow | null>(null);

  protected readonly stages = STAGES;
  protected readonly stageNames = STAGE_NAMES;
  protected readonly price = formatPrice;
  protected readonly shortName = (id: QuantityId): string => quantity(id).shortName ?? quantity(id).name;

  constructor() {
    inject(Breadcrumb).crumbs.set([{ label: 'Bench', link: null }]);
    inject(ScreenKeys).hints.set([
      { keys: '↑ ↓', does: 'Walk the units in hand' },
      { keys: 'Enter', does: 'Do the next step' },
    ]);
  }

  protected reached(row: SpecimenRow, stage: Stage): boolean {
    // Where there are no rules, nothing is scored, however far it came.
    if (stage === 'scored' && !row.hasRules) return false;
    return STAGES.indexOf(row.stage) >= STAGES.indexOf(stage);
  }

  protected age(row: SpecimenRow): number {
    return row.price ? daysBetween(row.price.date, today()) : 0;
  }

  protected go(row: SpecimenRow): void {
    const { to } = nextStep(row);
    if ('review' in to) void this.router.navigate(['/reviews', to.review]);
    else if ('screen' in to) void this.router.navigate([to.screen], { queryParams: { unit: row.id } });
    else void this.router.navigate(['/gear', row.id], to);
  }

  protected setOnDesk(row: SpecimenRow, onDesk: boolean): void {
    this.actionProblem.set(null);
    this.data.setOnDesk(row.id, onDesk).subscribe({
      next: () => this.putAway.set(onDesk ? null : row),
      error: (error: unknown) => this.actionProblem.set(problemOf(error)),
    });
  }

  protected walk(event: KeyboardEvent): void {
    const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (by === 0) return;
    event.preventDefault();
    const strips = [...(event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('.strip')];
    const at = strips.findIndex((s) => s.contains(document.activeElement));
    strips[Math.max(0, Math.min(strips.length - 1, at + by))]?.querySelector<HTMLElement>('.next button')?.focus();
  }
}
