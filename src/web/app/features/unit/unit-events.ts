import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import type { Problem } from '#contracts/problem';
import type { UnitEvent } from '#contracts/session-plan';
import { ChoiceField } from '../../ui/field/choice-field';
import { DateField } from '../../ui/field/date-field';
import { TextField } from '../../ui/field/text-field';
import { problemOf } from '../../data/api';
import { SessionData } from '../../data/sessions';
import { today } from '../../ui/format';
import { Refusals } from '../../ui/field/refusals';
import { ProblemBox } from '../../ui/problem-box';

const KINDS = [
  { label: 'Repaired', value: 'repair' },
  { label: 'New firmware', value: 'firmware' },
  { label: 'Has to be back', value: 'due-back' },
  { label: 'Note', value: 'note' },
] as const;

/** Repairs, firmware, days to be back: what may make another test necessary. */
@Component({
  selector: 'sd-unit-events',
  imports: [Button, ChoiceField, DateField, FormsModule, ProblemBox, RouterLink, TextField],
  template: `
    @for (e of events(); track $index) {
      <p>
        <span class="num">{{ e.day }}</span> {{ word(e.kind) }}{{ e.note ? ': ' + e.note : '' }}
        @if (e.sum !== null) {
          <a routerLink="/sums" [queryParams]="queryOf(e.sum)">The sum with its numbers</a>
        }
      </p>
    }
    @if (problem(); as p) {
      <sd-problem-box [problem]="p" />
    }
    <form (ngSubmit)="save()" aria-label="Note what happened">
      <sd-choice-field
        label="What happened"
        bare
        [options]="kinds"
        [value]="draft().kind"
        (valueChange)="change({ kind: $event })"
      />
      <sd-date-field
        label="On"
        bare
        required
        [value]="draft().day"
        (valueChange)="change({ day: $event ?? draft().day })"
      />
      <sd-text-field
        class="grow"
        label="Note"
        bare
        placeholder="Note"
        [value]="draft().note"
        (valueChange)="change({ note: $event })"
      />
      <p-button type="submit" size="small" severity="secondary" label="Note it" />
    </form>
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
    }
    :host {
      grid-template-columns: minmax(0, 1fr);
    }
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: center;
    }
    .grow {
      flex: 1;
      max-width: 360px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnitEvents {
  readonly unit = input.required<string>();
  readonly events = input.required<readonly UnitEvent[]>();

  private readonly data = inject(SessionData);
  private readonly refusals = inject(Refusals);
  protected readonly kinds = [...KINDS];
  protected readonly draft = signal<UnitEvent>({ kind: 'repair', day: today(), note: '', sum: null });
  protected readonly problem = signal<Problem | null>(null);

  protected word(kind: UnitEvent['kind']): string {
    return kind === 'sum' ? 'sum kept' : (KINDS.find((k) => k.value === kind)?.label.toLowerCase() ?? kind);
  }

  protected queryOf(sum: string): Record<string, string> {
    return Object.fromEntries(new URLSearchParams(sum));
  }

  protected change(part: Partial<UnitEvent>): void {
    this.draft.update((d) => ({ ...d, ...part }));
  }

  protected save(): void {
    if (this.refusals.stop()) return;
    this.data.noteEvent(this.unit(), this.draft()).subscribe({
      next: () => {
        this.problem.set(null);
        this.draft.set({ kind: 'repair', day: today(), note: '', sum: null });
      },
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }
}
