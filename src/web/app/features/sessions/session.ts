import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { switchMap } from 'rxjs';
import type { Problem } from '#contracts/problem';
import { undecidedTakes } from '#core/rules/step-takes';
import type { Plan, Slot, SlotTake } from '#contracts/session-plan';
import { problemOf } from '../../data/api';
import { Breadcrumb } from '../../data/breadcrumb';
import { ScreenKeys } from '../../data/keys';
import { CorrectionData } from '../../data/corrections';
import { LOADING } from '../../data/loaded';
import { SessionData } from '../../data/sessions';
import { ProblemBox } from '../../ui/problem-box';
import { UndecidedDialog } from './undecided-dialog';
import { RigHealthTable } from '../../ui/rig-health';
import { minutesText, tooLate } from './plan-form';
import { keptCount, PURPOSE_NAMES, stepsOf, stepState, takeOfStep } from './session-progress';

const STATE_WORDS = { kept: 'kept', open: 'to be decided', redo: 'to be redone', empty: 'not yet' } as const;

/** One session: what is still missing, who comes when, how far it is, and whether the rig is what it was. */
@Component({
  selector: 'sd-session',
  imports: [Button, ProblemBox, RigHealthTable, RouterLink, UndecidedDialog],
  templateUrl: './session.html',
  styleUrl: './session.css',
  host: { class: 'page-frame' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SessionPage {
  readonly id = input.required<string>();

  private readonly data = inject(SessionData);
  private readonly corrections = inject(CorrectionData);
  private readonly router = inject(Router);
  private readonly loaded = toSignal(toObservable(this.id).pipe(switchMap((id) => this.data.plan(id))), {
    initialValue: LOADING,
  });
  protected readonly loadProblem = computed(() => this.loaded().problem);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly plan = computed(() => this.loaded().value);
  protected readonly late = computed(() => {
    const plan = this.plan();
    return plan ? tooLate(plan.plan) : [];
  });
  protected readonly purposes = PURPOSE_NAMES;
  protected readonly stateWords = STATE_WORDS;
  protected readonly minutesText = minutesText;
  protected readonly finishing = signal<string | null>(null);
  /** A unit with takes that nobody has decided on: asked before they stay beside its run. */
  protected readonly asked = signal<{ slot: Slot; undecided: readonly SlotTake[] } | null>(null);

  constructor() {
    inject(Breadcrumb).crumbs.set([
      { label: 'Sessions', link: '/sessions' },
      { label: 'Session', link: null },
    ]);
    inject(ScreenKeys).hints.set([{ keys: 'B', does: 'Open the booth' }]);
  }

  protected steps(plan: Plan, slot: Slot) {
    return stepsOf(plan, slot).map((step) => ({
      step,
      state: stepState(slot, step),
      take: takeOfStep(slot, step.id),
      attempts: slot.takes.filter((t) => t.step === step.id).length,
    }));
  }

  protected kept(plan: Plan, slot: Slot): number {
    return keptCount(plan, slot);
  }

  protected openBooth(): void {
    const plan = this.plan();
    if (!plan) return;
    if (plan.row.status === 'running') {
      void this.router.navigate(['/booth', plan.row.id]);
      return;
    }
    this.data.move(plan.row.id, 'running').subscribe({
      next: () => void this.router.navigate(['/booth', plan.row.id]),
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }

  protected move(status: 'done' | 'cancelled' | 'planned' | 'running'): void {
    this.data.move(this.id(), status).subscribe({
      next: () => this.problem.set(null),
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }

  /** A session that nothing was made in goes from the list; the list has the way back. */
  protected remove(): void {
    this.corrections.correct({ kind: 'session-left-out', session: this.id(), isOut: true }).subscribe({
      next: () => void this.router.navigate(['/sessions']),
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }

  protected finishAsked(): void {
    const asked = this.asked();
    if (asked) this.finish(asked.slot, true);
  }

  protected finish(slot: Slot, withUndecided = false): void {
    const undecided = undecidedTakes(slot.takes);
    if (undecided.length > 0 && !withUndecided) {
      this.asked.set({ slot, undecided });
      return;
    }
    this.asked.set(null);
    this.finishing.set(slot.id);
    this.data.finishSlot(slot.id, { withUndecided }).subscribe({
      next: () => {
        this.finishing.set(null);
        this.problem.set(null);
      },
      error: (error: unknown) => {
        this.finishing.set(null);
        this.problem.set(problemOf(error));
      },
    });
  }
}
