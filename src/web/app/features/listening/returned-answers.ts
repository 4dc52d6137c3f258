import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { Button } from 'primeng/button';
import type { ReturnedAnswer } from '#contracts/blind-pack';
import type { TestPage } from '#contracts/listening';
import type { Problem } from '#contracts/problem';
import { answerWords } from '#domain/listening/returned/same-answer';
import { problemOf } from '../../data/api';
import { ListeningData } from '../../data/listening';
import { Refusals } from '../../ui/field/refusals';
import { TextField } from '../../ui/field/text-field';
import { TickField } from '../../ui/field/tick-field';
import { ProblemBox } from '../../ui/problem-box';
import { canBeKept, choiceOf, foundWords, keptLines, withChoice, type AnswerChoice, type Choices } from './returned-choice'; // prettier-ignore

/** More lines than anybody looks through at once. */
const SHOWN = 200;

/** Answers that came back: pasted or from files, read, looked at, kept. */
@Component({
  selector: 'sd-returned-answers',
  imports: [Button, ProblemBox, TextField, TickField],
  templateUrl: './returned-answers.html',
  styleUrl: './returned-answers.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReturnedAnswers {
  readonly page = input.required<TestPage>();
  /** Answers were kept. */
  readonly kept = output();
  private readonly data = inject(ListeningData);
  private readonly refusals = inject(Refusals);
  protected readonly text = signal('');
  protected readonly problem = signal<Problem | null>(null);
  protected readonly isBusy = signal(false);
  protected readonly told = signal('');
  /** What was read, of which text; null before. */
  protected readonly read = signal<{ readonly of: string; readonly answers: readonly ReturnedAnswer[] } | null>(null);
  protected readonly choices = signal<Choices>(new Map());
  protected readonly isAll = signal(false);

  protected readonly answers = computed(() => this.read()?.answers ?? []);
  protected readonly shown = computed(() => (this.isAll() ? this.answers() : this.answers().slice(0, SHOWN)));
  protected readonly found = computed(() => foundWords(this.answers()));
  protected readonly lines = computed(() => keptLines(this.answers(), this.choices()));
  /** What was read belongs to another text than the one that stands there now. */
  protected readonly isStale = computed(() => this.read() !== null && this.read()?.of !== this.text());
  protected readonly canBeKept = canBeKept;

  protected words(answer: ReturnedAnswer): string {
    const { pack, items } = this.page();
    const units = items.map((i) => ({ specimenId: i.specimenId, name: i.name }));
    return answerWords(answer, { tag: pack?.tag ?? '', clips: pack?.clips ?? [], units });
  }

  protected choice(answer: ReturnedAnswer): AnswerChoice {
    return choiceOf(this.choices(), answer);
  }

  protected change(answer: ReturnedAnswer, part: Partial<AnswerChoice>): void {
    this.choices.update((all) => withChoice(all, answer, part));
  }

  protected look(): void {
    const text = this.text();
    if (text.trim() === '') return;
    this.isBusy.set(true);
    this.told.set('');
    this.data.readReturned(this.page().row.id, text).subscribe({
      next: ({ answers }) => {
        this.read.set({ of: text, answers });
        this.choices.set(new Map());
        this.done(null);
      },
      error: (error: unknown) => this.done(problemOf(error)),
    });
  }

  protected keep(): void {
    const read = this.read();
    if (!read || this.isStale() || this.refusals.stop()) return;
    this.isBusy.set(true);
    this.data.keepReturned(this.page().row.id, { text: read.of, kept: this.lines() }).subscribe({
      next: ({ kept, skipped }) => {
        this.told.set(`${kept} ${kept === 1 ? 'answer' : 'answers'} kept${skipped > 0 ? `, ${skipped} were there already` : ''}.`); // prettier-ignore
        // What is left is what was not kept: it stays to be looked at.
        const isLeft = read.answers.some((a) => a.problem === null && !a.isThere && !this.lines().some((l) => l.line === a.line)); // prettier-ignore
        this.read.set(null);
        if (!isLeft) this.text.set('');
        this.done(null);
        this.kept.emit();
        if (isLeft) this.look();
      },
      error: (error: unknown) => this.done(problemOf(error)),
    });
  }

  protected async files(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const texts = await Promise.all([...(field.files ?? [])].map((f) => f.text()));
    field.value = '';
    const before = this.text().trim();
    this.text.set([...(before === '' ? [] : [before]), ...texts.map((t) => t.trim())].join('\n'));
    this.look();
  }

  private done(problem: Problem | null): void {
    this.isBusy.set(false);
    this.problem.set(problem);
  }
}
