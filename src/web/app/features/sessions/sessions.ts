import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { switchMap } from 'rxjs';
import type { Recording } from '#contracts/recording';
import type { PlanRow } from '#contracts/session-plan';
import type { Problem } from '#contracts/problem';
import { problemOf } from '../../data/api';
import { Breadcrumb } from '../../data/breadcrumb';
import { CatalogueData } from '../../data/catalogue';
import { ScreenKeys } from '../../data/keys';
import { LOADING } from '../../data/loaded';
import { SessionData } from '../../data/sessions';
import { daysBetween, formatTime, momentText, today } from '../../ui/format';
import { Hatch } from '../../ui/hatch';
import { ProblemBox } from '../../ui/problem-box';
import { toldApart } from '../../ui/told-apart';

/** Days held that are listed; older ones are in the core log. */
const MOST_HELD = 12;

/** Sessions ahead, running and held; what a crash has left; what should be tested again. */
@Component({
  selector: 'sd-sessions',
  imports: [Button, Hatch, ProblemBox, RouterLink],
  templateUrl: './sessions.html',
  styleUrl: './sessions.css',
  host: { class: 'page-frame' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Sessions {
  protected readonly momentText = momentText;
  private readonly data = inject(SessionData);
  private readonly loaded = toSignal(this.data.plans, { initialValue: LOADING });
  private readonly loadedDue = toSignal(this.data.due, { initialValue: LOADING });
  private readonly days = toSignal(inject(CatalogueData).sessions, { initialValue: LOADING });
  private readonly again = signal(0);
  private readonly recordings = toSignal(toObservable(this.again).pipe(switchMap(() => this.data.recordings())), {
    initialValue: [] as Recording[],
  });
  protected readonly problem = signal<Problem | null>(null);
  protected readonly kept = signal<string | null>(null);
  protected readonly loadProblem = computed(() => this.loaded().problem);
  protected readonly all = computed(() => this.loaded().value ?? []);
  /** What tells sessions of one title and day apart. */
  protected readonly apart = computed(() =>
    toldApart(this.all().map(({ id, title, day }) => ({ id, name: title, day }))),
  );
  protected readonly running = computed(() => this.all().filter((p) => p.status === 'running'));
  protected readonly planned = computed(() =>
    this.all()
      .filter((p) => p.status === 'planned')
      .sort((a, b) => (a.day < b.day ? -1 : 1)),
  );
  protected readonly past = computed(() => this.all().filter((p) => p.status === 'done' || p.status === 'cancelled'));
  protected readonly due = computed(() => this.loadedDue().value ?? []);
  protected readonly held = computed(() =>
    (this.days().value ?? []).slice(0, MOST_HELD).map((day) => ({
      ...day,
      // A control unit that opened and closed the day is one unit.
      units: day.units.filter((u, i) => day.units.findIndex((x) => x.id === u.id) === i),
    })),
  );
  protected readonly left = computed(() => this.recordings().filter((r) => !r.isActive));
  protected readonly isEmpty = computed(
    () => this.loaded().value?.length === 0 && this.days().value?.length === 0 && this.due().length === 0,
  );

  constructor() {
    inject(Breadcrumb).crumbs.set([{ label: 'Sessions', link: null }]);
    inject(ScreenKeys).hints.set([{ keys: 'Enter', does: 'Open a session' }]);
  }

  protected when(plan: PlanRow): string {
    const days = daysBetween(today(), plan.day);
    if (days === 0) return 'today';
    if (days === 1) return 'tomorrow';
    return days > 0 ? `in ${days} days` : `${-days} days ago`;
  }

  protected lasts(recording: Recording): string {
    return formatTime(recording.durationS);
  }

  /** Keeps what a crash has left as a clip of the archive. */
  protected keep(recording: Recording): void {
    this.data.finishRecording(recording.id, null).subscribe({
      next: ({ clip }) => {
        this.kept.set(`Kept as ${clip.name}, ${formatTime(clip.format.durationS)}. Open its session to use it.`);
        this.again.update((n) => n + 1);
      },
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }

  protected discard(recording: Recording): void {
    this.data.discardRecording(recording.id).subscribe({
      next: () => this.again.update((n) => n + 1),
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }
}
