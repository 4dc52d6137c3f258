import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { combineLatest, map, of, switchMap } from 'rxjs';
import { categorySchema, type Category } from '#contracts/common';
import type { Problem } from '#contracts/problem';
import type { VocabularyWord, WordMeaningDraft, WordPage } from '#contracts/vocabulary';
import { problemOf } from '../../data/api';
import { Breadcrumb } from '../../data/breadcrumb';
import { kindChoices } from '../../data/choices';
import { ScreenKeys } from '../../data/keys';
import { live } from '../../data/live';
import { LOADING, type Loaded } from '../../data/loaded';
import { VocabularyData } from '../../data/vocabulary';
import { ChoiceField } from '../../ui/field/choice-field';
import { Refusals } from '../../ui/field/refusals';
import { TextField } from '../../ui/field/text-field';
import { formatNumber } from '../../ui/format';
import { ProblemBox } from '../../ui/problem-box';
import { alsoWords, shareWords, yearsOf } from './word-texts';

/** Rows that are shown at first: over ten years there are hundreds, most of them said once. */
const SHOWN = 30;

/** Words that listeners have said over the years: against units, against figures, and what counts as what. */
@Component({
  selector: 'sd-words',
  imports: [Button, ChoiceField, FormsModule, ProblemBox, RouterLink, TextField],
  templateUrl: './words.html',
  styleUrl: './words.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Words {
  readonly kind = input<string>();
  readonly word = input<string>();
  private readonly data = inject(VocabularyData);
  private readonly router = inject(Router);
  private readonly refusals = inject(Refusals);
  protected readonly kinds = kindChoices();
  protected readonly category = computed((): Category => categorySchema.safeParse(this.kind()).data ?? 'microphone');
  /** Grows when a meaning was noted: what is shown is asked for again. */
  private readonly noted = signal(0);
  private readonly asked = computed(() => ({ category: this.category(), noted: this.noted() }));
  protected readonly loaded = toSignal(
    toObservable(this.asked).pipe(switchMap(({ category }) => this.data.words(category))),
    { initialValue: LOADING },
  );
  protected readonly chosen = toSignal(
    combineLatest([toObservable(this.asked), toObservable(this.word)]).pipe(
      switchMap(([{ category }, word]) =>
        word === undefined
          ? of<Loaded<WordPage>>(LOADING)
          : live(() => this.data.word(category, word)).pipe(map((page): Loaded<WordPage> => page)),
      ),
    ),
    { initialValue: LOADING },
  );
  protected readonly problem = signal<Problem | null>(null);
  protected readonly filter = signal('');
  protected readonly showsAll = signal(false);
  protected readonly found = computed(() => {
    const filter = this.filter().trim().toLowerCase();
    return (this.loaded().value?.words ?? []).filter((w) => w.word.includes(filter) || w.also.some((a) => a.word.includes(filter))); // prettier-ignore
  });
  protected readonly rows = computed(() => (this.showsAll() ? this.found() : this.found().slice(0, SHOWN)));
  protected readonly row = computed((): VocabularyWord | null => {
    const word = this.chosen().value?.word;
    return this.loaded().value?.words.find((w) => w.word === word) ?? null;
  });
  protected readonly meaning = signal('');
  /** Words that one can count as: all others. */
  protected readonly suggestions = computed(() =>
    (this.loaded().value?.words ?? []).map((w) => w.word).filter((w) => w !== this.row()?.word),
  );

  protected readonly formatNumber = formatNumber;
  protected readonly yearsOf = yearsOf;
  protected readonly alsoWords = alsoWords;
  protected readonly shareWords = shareWords;

  constructor() {
    inject(ScreenKeys).hints.set([]);
    inject(Breadcrumb).crumbs.set([
      { label: 'Listening', link: '/listening' },
      { label: 'Words', link: null },
    ]);
    // What was typed for one word is not meant for the next.
    effect(() => {
      this.word();
      this.meaning.set('');
    });
  }

  protected setKind(kind: Category): void {
    void this.router.navigate([], { queryParams: { kind } });
  }

  protected mean(word: string, meaning: WordMeaningDraft['meaning']): void {
    if (this.refusals.stop()) return;
    this.data.mean({ word, meaning }).subscribe({
      next: () => {
        this.problem.set(null);
        this.meaning.set('');
        this.noted.update((n) => n + 1);
      },
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }
}
