import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { NgTemplateOutlet } from '@angular/common';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { catchError, of, switchMap, type Observable } from 'rxjs';
import type { HeardWord } from '#core/rules/listening/vocabulary';
import type { TestPage } from '#contracts/listening';
import type { Problem } from '#contracts/problem';
import { TextField } from '../../ui/field/text-field';
import { problemOf } from '../../data/api';
import { Breadcrumb } from '../../data/breadcrumb';
import { ScreenKeys } from '../../data/keys';
import { ListeningData } from '../../data/listening';
import { LOADING } from '../../data/loaded';
import { formatNumber, today } from '../../ui/format';
import { ProblemBox } from '../../ui/problem-box';
import { QrCode } from '../../ui/qr-code';
import { WordChips } from '../../ui/word-chips';
import { WorthWhisker, worthScaleAround } from '../../ui/worth-whisker';
import { revealCaution, weighingWords } from './pack-words';
import { ReturnedAnswers } from './returned-answers';
import { SentPack } from './sent-pack';
import { ATTRIBUTE_NAMES, DESIGN_NAMES, STATUS_NAMES } from './design-words';
import { CorrectionData } from '../../data/corrections';

/** Listeners that are shown at first: an audience may be hundreds. */
const SHOWN = 50;

const ROLE_NAMES = {
  unit: 'unit',
  yardstick: 'yardstick',
  reference: 'reference',
  'known-worse': 'copy without highs',
  'anchor-low': '3.5 kHz anchor',
  'anchor-mid': '7 kHz anchor',
} as const;

/** A test as the operator sees it: how far it is, who listens, and, once revealed, what may be concluded. */
@Component({
  selector: 'sd-test',
  imports: [Button, FormsModule, NgTemplateOutlet, ProblemBox, QrCode, ReturnedAnswers, RouterLink, SentPack, TextField, WordChips, WorthWhisker], // prettier-ignore
  templateUrl: './test.html',
  styleUrl: './listening.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Test {
  readonly id = input.required<string>();
  private readonly data = inject(ListeningData);
  private readonly corrections = inject(CorrectionData);
  private readonly router = inject(Router);
  private readonly newest = signal<TestPage | null>(null);
  private readonly loaded = toSignal(toObservable(this.id).pipe(switchMap((id) => this.data.test(id))), {
    initialValue: LOADING,
  });
  protected readonly loadProblem = computed(() => this.loaded().problem);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly page = computed(() => this.newest() ?? this.loaded().value);
  private readonly addresses = toSignal(
    this.data.addresses().pipe(catchError(() => of({ addresses: [] as string[] }))),
  );
  protected readonly isLocal = computed(() => (this.addresses()?.addresses.length ?? 0) === 0);
  protected readonly links = computed(() => {
    const page = this.page();
    const bases = this.addresses()?.addresses ?? [];
    return page
      ? (bases.length > 0 ? bases : [location.origin]).map((base) => `${base}/listen/join/${page.invitation}`)
      : [];
  });
  protected readonly asksReveal = signal(false);
  protected readonly leaving = signal<{ id: string; reason: string } | null>(null);
  protected readonly performer = signal('');
  protected readonly order = signal<readonly string[]>([]);
  protected readonly words = signal<Readonly<Record<string, { words: HeardWord[]; free: string }>>>({});

  protected readonly designs = DESIGN_NAMES;
  protected readonly attributes = ATTRIBUTE_NAMES;
  protected readonly statuses = STATUS_NAMES;
  protected readonly roles = ROLE_NAMES;
  protected readonly formatNumber = formatNumber;

  protected readonly units = computed(() => (this.page()?.items ?? []).filter((i) => i.role === 'unit' || i.role === 'yardstick' || i.role === 'reference')); // prettier-ignore
  protected readonly scale = computed(() => worthScaleAround(this.page()?.result?.worths ?? []));

  constructor() {
    inject(ScreenKeys).hints.set([]);
    const crumbs = inject(Breadcrumb).crumbs;
    effect(() =>
      crumbs.set([
        { label: 'Listening', link: '/listening' },
        { label: this.page()?.row.name ?? '…', link: null },
      ]),
    );
    // Whatever the server tells later is newer than the answer to a button.
    effect(() => {
      if (this.loaded().value) this.newest.set(null);
    });
  }

  /** What revealing a pack means today. */
  protected readonly caution = computed(() => revealCaution(this.page()?.settings.pack?.revealOn ?? today(), today()));
  /** What the list of clips is called: what is performed in the room has none, and is no secret to whoever leads. */
  protected readonly inside = computed(() => {
    const page = this.page();
    if (!page) return '';
    const isLive = page.row.design === 'performer' || page.settings.panel?.source === 'performed';
    if (isLive) return `Units of this test (${page.items.length})`;
    return `Clips of this test (${page.items.length})${page.row.isRevealed ? '' : ': looking spoils your own listening'}`;
  });
  protected readonly showsAll = signal(false);
  protected readonly sittings = computed(() =>
    (this.page()?.sittings ?? []).slice(0, this.showsAll() ? undefined : SHOWN),
  );
  protected readonly weighing = computed(() => {
    const answers = this.page()?.pack?.answers;
    return answers ? weighingWords(answers) : '';
  });

  /** The page as it stands now: answers were kept. */
  protected again(): void {
    this.run(this.data.testNow(this.id()));
  }

  private run(question: ReturnType<ListeningData['reveal']>, then: () => void = () => undefined): void {
    question.subscribe({
      next: (page) => {
        this.newest.set(page);
        this.problem.set(null);
        then();
      },
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }

  /** The screen of whoever leads a live panel; once it is over, how it went. */
  protected lead(): void {
    void this.router.navigate(['/listening', this.id(), 'panel']);
  }

  protected listen(): void {
    // In a page of its own: this one knows what is what.
    window.open(`/listen/join/${this.page()?.invitation ?? ''}`, '_blank', 'noopener');
  }

  protected close(): void {
    this.run(this.data.close(this.id()));
  }

  protected reveal(): void {
    this.run(this.data.reveal(this.id()), () => this.asksReveal.set(false));
  }

  /** A test that nobody has sat goes from the list; the page Archive has the way back. */
  protected remove(): void {
    this.corrections.correct({ kind: 'test-left-out', test: this.id(), isOut: true }).subscribe({
      next: () => void this.router.navigate(['/listening']),
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }

  protected prepareAgain(): void {
    this.data.prepareAgain(this.id()).subscribe({ error: (e: unknown) => this.problem.set(problemOf(e)) });
  }

  protected leaveOut(id: string, reason: string | null): void {
    this.run(this.data.leaveOut(this.id(), id, reason), () => this.leaving.set(null));
  }

  protected forget(listener: string): void {
    this.andReload(this.data.forgetAbout(listener));
  }

  /** @param as - record of the same person; empty for nobody */
  protected same(listener: string, as: string): void {
    this.andReload(this.data.sameListener(listener, as === '' ? null : as));
  }

  private andReload(change: Observable<unknown>): void {
    change.subscribe({
      next: () => this.run(this.data.testNow(this.id())),
      error: (e: unknown) => this.problem.set(problemOf(e)),
    });
  }

  protected addToOrder(id: string): void {
    this.order.update((order) => (order.includes(id) ? order.filter((x) => x !== id) : [...order, id]));
  }

  protected nameOf(id: string): string {
    return this.units().find((u) => u.id === id)?.name ?? '';
  }

  protected setWords(id: string, words: HeardWord[]): void {
    this.words.update((all) => ({ ...all, [id]: { words, free: '' } }));
  }

  protected sendPerformed(): void {
    const answer = { listener: this.performer().trim(), order: [...this.order()], words: { ...this.words() } };
    this.run(this.data.performed(this.id(), answer), () => {
      this.performer.set('');
      this.order.set([]);
      this.words.set({});
    });
  }
}
