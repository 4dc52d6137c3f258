import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Button } from 'primeng/button';
import { map, merge, scan, Subject, switchMap } from 'rxjs';
import type { HeardWord } from '#core/rules/listening/vocabulary';
import type { PanelSeat, SeatCommandDraft } from '#contracts/live-panel';
import type { Problem } from '#contracts/problem';
import { problemOf } from '../../data/api';
import { asked, NOT_ASKED, type Asked } from '../../data/asked';
import { newer } from '../../data/newest';
import { SittingData } from '../../data/sitting';
import { Refusals } from '../../ui/field/refusals';
import { TextField } from '../../ui/field/text-field';
import { LetterOrder } from '../../ui/letter-order';
import { ProblemBox } from '../../ui/problem-box';
import { WordChips } from '../../ui/word-chips';

/** A listener’s place in a live panel, on their own phone: the letter that is heard, their order, words, wishes. */
@Component({
  selector: 'sd-panel-seat',
  imports: [Button, LetterOrder, ProblemBox, TextField, WordChips],
  templateUrl: './panel-seat.html',
  styleUrl: './sitting.css',
  host: { class: 'part' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PanelSeatPage {
  readonly key = input.required<string>();
  /** The panel is over. */
  readonly isOver = output();
  private readonly data = inject(SittingData);
  private readonly refusals = inject(Refusals);
  private readonly answers = new Subject<PanelSeat>();
  private readonly page = toSignal(
    toObservable(this.key).pipe(
      switchMap((key) =>
        merge(
          asked(() => this.data.seat(key)),
          this.answers.pipe(map((value): Asked<PanelSeat> => ({ value, problem: null }))),
        ).pipe(
          scan((before, now) => ({
            value: now.value === null ? before.value : newer(before.value, now.value),
            problem: now.problem,
          })),
        ),
      ),
    ),
    { initialValue: NOT_ASKED },
  );
  protected readonly seat = computed(() => this.page().value);
  protected readonly lost = computed(() => this.page().problem);
  protected readonly problem = signal<Problem | null>(null);
  /** What words are being written about: it stays the same when another turn begins meanwhile. */
  protected readonly wordsOf = signal<{
    readonly turn: number;
    readonly title: string;
    readonly letter: string;
  } | null>(null);
  protected readonly words = signal<readonly HeardWord[]>([]);
  protected readonly free = signal('');

  constructor() {
    effect(() => {
      if (this.seat()?.isOpen === false) this.isOver.emit();
    });
  }

  /** Begins words about a letter, or closes them; what was typed stays. */
  protected writeOf(turn: { readonly number: number; readonly title: string }, letter: string): void {
    const open = this.wordsOf();
    const isOpen = open?.letter === letter && open.turn === turn.number;
    this.wordsOf.set(isOpen ? null : { turn: turn.number, title: turn.title, letter });
  }

  protected say(): void {
    const of = this.wordsOf();
    if (of === null || this.refusals.stop()) return;
    const { turn, letter } = of;
    this.send({ kind: 'said', turn, letter, words: [...this.words()], free: this.free().trim() }, () => {
      this.words.set([]);
      this.free.set('');
      this.wordsOf.set(null);
    });
  }

  protected send(command: SeatCommandDraft, then: () => void = () => undefined): void {
    this.data.sit(this.key(), command).subscribe({
      next: (seat) => {
        this.answers.next(seat);
        this.problem.set(null);
        then();
      },
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }
}
