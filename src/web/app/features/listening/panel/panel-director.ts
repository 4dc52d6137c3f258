import { ChangeDetectionStrategy, Component, DestroyRef, HostListener, computed, effect, inject, input, signal } from '@angular/core'; // prettier-ignore
import { NgTemplateOutlet } from '@angular/common';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { catchError, of, switchMap } from 'rxjs';
import { SAME_TIME } from '#core/audio/phrase-alignment';
import { lettersOf } from '#core/rules/listening/letters';
import type { HeardWord } from '#core/rules/listening/vocabulary';
import type { PanelCommandDraft, PanelPage, PanelTurnPage } from '#contracts/live-panel';
import type { Problem } from '#contracts/problem';
import { unitName } from '#contracts/unit-name';
import { HeardClips } from '../../../audio/heard-clips';
import type { LanePlayer } from '../../../audio/lane-player';
import { problemOf } from '../../../data/api';
import { Breadcrumb } from '../../../data/breadcrumb';
import { CatalogueData } from '../../../data/catalogue';
import { isTyping, ScreenKeys } from '../../../data/keys';
import { ListeningData } from '../../../data/listening';
import { LOADING } from '../../../data/loaded';
import { newer } from '../../../data/newest';
import { ChoiceField } from '../../../ui/field/choice-field';
import { Refusals } from '../../../ui/field/refusals';
import { TextField } from '../../../ui/field/text-field';
import { TickField } from '../../../ui/field/tick-field';
import { LetterOrder } from '../../../ui/letter-order';
import { ProblemBox } from '../../../ui/problem-box';
import { QrCode } from '../../../ui/qr-code';
import { WordChips } from '../../../ui/word-chips';
import { closingDoubts, drawWords, meanText, noteMoment, placeText } from './panel-words';

/** The screen of the one who leads a panel: what is heard, who said what, who goes on. */
@Component({
  selector: 'sd-panel-director',
  imports: [Button, ChoiceField, FormsModule, LetterOrder, NgTemplateOutlet, ProblemBox, QrCode, RouterLink, TextField, TickField, WordChips], // prettier-ignore
  templateUrl: './panel-director.html',
  styleUrls: ['../listening.css', './panel-director.css'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PanelDirector {
  readonly id = input.required<string>();
  private readonly data = inject(ListeningData);
  private readonly clips = inject(HeardClips);
  private readonly refusals = inject(Refusals);
  private player: LanePlayer | null = null;
  /** Turn whose clips are loaded. */
  private readonly loadedTurn = signal(0);

  private fetching = 0;

  private readonly newest = signal<PanelPage | null>(null);
  private readonly loaded = toSignal(toObservable(this.id).pipe(switchMap((id) => this.data.panel(id))), {
    initialValue: LOADING,
  });
  protected readonly loadProblem = computed(() => this.loaded().problem);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly page = this.newest.asReadonly();
  protected readonly turn = computed(() => this.page()?.turns.find((t) => t.status === 'open') ?? null);
  protected readonly isPlayed = computed(() => this.page()?.settings.source === 'played');
  protected readonly letters = computed(() => {
    const turn = this.turn();
    return turn ? lettersOf(turn.items) : [];
  });
  protected readonly doubts = computed(() => {
    const [page, turn] = [this.page(), this.turn()];
    return page && turn ? closingDoubts(turn, page.listeners, this.isPlayed()) : [];
  });
  /** Who plays clips may listen too: then the screen must not tell. Who performs has to know what to put up. */
  private readonly wantsNames = signal<boolean | null>(null);
  protected readonly showsNames = computed(() => this.wantsNames() ?? !this.isPlayed());
  protected readonly isReady = computed(() => !this.isPlayed() || this.loadedTurn() === this.turn()?.number);
  protected readonly volume = this.clips.volumeDb;

  private readonly addresses = toSignal(
    this.data.addresses().pipe(catchError(() => of({ addresses: [] as string[] }))),
  );
  protected readonly links = computed(() => {
    const bases = this.addresses()?.addresses ?? [];
    const key = this.page()?.invitation ?? '';
    return (bases.length > 0 ? bases : [location.origin]).map((base) => ({ join: `${base}/listen/join/${key}` }));
  });
  protected readonly screenLink = computed(() => `/listen/screen/${this.page()?.invitation ?? ''}`);

  protected readonly newListener = signal('');
  protected readonly orderOf = signal<string | null>(null);
  protected readonly dropReason = signal<string | null>(null);
  protected readonly asksClose = signal(false);

  protected readonly said = signal<{
    readonly turn: number;
    readonly letter: string;
    readonly sitting: string | null;
    readonly words: readonly HeardWord[];
    readonly free: string;
  }>({ turn: 0, letter: '', sitting: null, words: [], free: '' });
  /** The turn that words are written about: the open one, or the last one while the next is being made ready. */
  protected readonly talkedOf = computed(
    () =>
      this.turn() ??
      this.page()
        ?.turns.filter((t) => t.status === 'closed')
        .at(-1) ??
      null,
  );
  protected readonly talkedLetters = computed(() => {
    const turn = this.talkedOf();
    return turn ? lettersOf(turn.items) : [];
  });
  protected readonly speakers = computed(() => [
    { value: null as string | null, label: 'not noted' },
    ...(this.page()?.listeners ?? []).map((l) => ({ value: l.sitting, label: l.name })),
  ]);

  protected readonly placeInto = signal<number | null>(null);
  protected readonly placeItem = signal<string | null>(null);
  protected readonly placeTables = computed(() =>
    (this.page()?.offers.place ?? []).map((p) => ({ value: p.into, label: this.titleOf(p.into) })),
  );
  protected readonly into = computed(() => this.placeInto() ?? this.placeTables().at(-1)?.value ?? null);
  protected readonly placeItems = computed(() => {
    const offers = this.page()?.offers;
    const items = offers?.place.find((p) => p.into === this.into())?.items ?? [];
    return items.map((value) => ({ value, label: this.nameOf(value) }));
  });
  protected readonly item = computed(() => {
    const [chosen, lone, items] = [this.placeItem(), this.page()?.offers.lone, this.placeItems()];
    return items.find((i) => i.value === chosen)?.value ?? items.find((i) => i.value === lone)?.value ?? null;
  });

  private readonly gear = toSignal(inject(CatalogueData).specimens, { initialValue: LOADING });
  protected readonly addable = computed(() => {
    const page = this.page();
    return (this.gear().value ?? [])
      .filter((u) => u.category === page?.category && !page.items.some((i) => i.specimenId === u.id))
      .map((u) => ({ value: u.id, label: unitName(u) }));
  });
  protected readonly added = signal<string | null>(null);

  protected readonly drawWords = drawWords;
  protected readonly noteMoment = noteMoment;
  protected readonly placeText = placeText;
  protected readonly meanText = meanText;
  protected readonly notes = computed(() => [...(this.page()?.notes ?? [])].reverse());
  protected readonly closedTurns = computed(() => [...(this.page()?.turns ?? [])].reverse().filter((t) => t.status !== 'open')); // prettier-ignore

  constructor() {
    inject(ScreenKeys).hints.set([
      { keys: 'A … F', does: 'Put that letter on' },
      { keys: '0', does: 'Nothing is on' },
    ]);
    const crumbs = inject(Breadcrumb).crumbs;
    effect(() =>
      crumbs.set([
        { label: 'Listening', link: '/listening' },
        { label: this.page()?.name ?? '…', link: `/listening/${this.id()}` },
        { label: 'Panel', link: null },
      ]),
    );
    effect(() => {
      const page = this.loaded().value;
      if (page) this.take(page);
    });
    effect(() => {
      const turn = this.turn();
      if (turn && this.isPlayed()) void this.load(turn);
      else this.player?.pause();
    });
    effect(() => this.player?.setVolume(this.volume()));
    inject(DestroyRef).onDestroy(() => this.player?.close());
  }

  private take(page: PanelPage): void {
    this.newest.update((before) => (before?.testId === page.testId ? newer(before, page) : page));
  }

  protected hideNames(hides: boolean): void {
    this.wantsNames.set(!hides);
  }

  protected nameOf(item: string): string {
    return this.page()?.items.find((i) => i.id === item)?.name ?? 'a unit that was taken out';
  }

  protected titleOf(turn: number): string {
    return this.page()?.turns.find((t) => t.number === turn)?.title ?? '';
  }

  protected listenerName(sitting: string | null): string {
    return this.page()?.listeners.find((l) => l.sitting === sitting)?.name ?? '';
  }

  /** Letters of an order, best first, under which its items were heard in a turn. */
  protected lettersIn(turn: PanelTurnPage, items: readonly string[]): string[] {
    return items.map((item) => lettersOf(turn.items)[turn.items.indexOf(item)] ?? '?');
  }

  protected orderBy(turn: PanelTurnPage, sitting: string): readonly string[] | null {
    const order = turn.orders.find((o) => o.sitting === sitting);
    return order ? this.lettersIn(turn, order.items) : null;
  }

  protected wishesFor(turn: PanelTurnPage, letter: string): number {
    return turn.wishes.filter((w) => w.letter === letter).length;
  }

  protected act(command: PanelCommandDraft, then: () => void = () => undefined): void {
    this.data.lead(this.id(), command).subscribe({
      next: (page) => {
        this.take(page);
        this.problem.set(null);
        then();
      },
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }

  @HostListener('document:keydown', ['$event'])
  protected onKey(event: KeyboardEvent): void {
    if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey || !this.turn()) return;
    const letter = event.key.toUpperCase();
    if (event.key === '0') this.putOn(null);
    else if (letter.length === 1 && this.letters().includes(letter)) this.putOn(letter);
    else return;
    event.preventDefault();
  }

  /** Puts a letter on, or nothing: where clips are played, they sound from their beginning. */
  protected putOn(letter: string | null): void {
    const turn = this.turn();
    if (!turn || (letter !== null && !this.isReady())) return;
    if (letter === null && turn.now === null) return;
    this.act({ kind: 'now', letter });
    if (this.isPlayed()) void this.sound(letter);
  }

  private async sound(letter: string | null): Promise<void> {
    const player = this.player;
    if (!player) return;
    player.pause();
    if (letter === null || !(await this.clips.ready())) return;
    player.switchTo(this.letters().indexOf(letter));
    player.seek(0);
    player.play();
  }

  private async load(turn: PanelTurnPage): Promise<void> {
    // A page that is told of an order while its clips are on their way asks for them once.
    if (this.loadedTurn() === turn.number || this.fetching === turn.number) return;
    this.fetching = turn.number;
    this.player?.pause();
    this.clips.forget();
    try {
      const buffers = await Promise.all(
        // The number of the turn keeps a browser from taking the clips of the turn before.
        lettersOf(turn.items).map((l) =>
          this.clips.clip(`/api/listening/${this.id()}/panel/clips/${l}?turn=${turn.number}`),
        ),
      );
      if (this.turn()?.number !== turn.number) return;
      this.player ??= this.clips.player();
      this.player.setLanes(buffers.map((buffer) => ({ buffer, gain: 1, map: SAME_TIME })));
      this.loadedTurn.set(turn.number);
    } catch (error) {
      // A turn that was over before its clips came has none.
      if (this.turn()?.number === turn.number) this.problem.set(problemOf(error));
    } finally {
      if (this.fetching === turn.number) this.fetching = 0;
    }
  }

  protected close(): void {
    if (this.doubts().length > 0 && !this.asksClose()) this.asksClose.set(true);
    else this.act({ kind: 'close' }, () => this.afterTurn());
  }

  protected drop(): void {
    if (this.refusals.stop()) return;
    this.act({ kind: 'drop', reason: this.dropReason()?.trim() ?? '' }, () => this.afterTurn());
  }

  private afterTurn(): void {
    this.asksClose.set(false);
    this.dropReason.set(null);
    this.orderOf.set(null);
  }

  protected came(): void {
    if (this.refusals.stop()) return;
    this.act({ kind: 'came', name: this.newListener().trim() }, () => this.newListener.set(''));
  }

  /** Words are about what they were begun with, even when another turn has begun meanwhile. */
  protected sayOf(letter: string): void {
    const turn = this.talkedOf()?.number ?? 0;
    this.said.update((s) => ({ ...s, turn, letter }));
  }

  protected changeSaid(part: Partial<{ sitting: string | null; words: HeardWord[]; free: string }>): void {
    this.said.update((s) => ({ ...s, ...part }));
  }

  protected say(): void {
    if (this.refusals.stop()) return;
    const { turn, letter, sitting, words, free } = this.said();
    const isSounding = this.isPlayed() && this.player?.isPlaying === true && this.turn()?.now === letter;
    const clipS = isSounding ? (this.player?.positionS() ?? null) : null;
    this.act({ kind: 'said', sitting, turn, letter, words: [...words], free: free.trim(), clipS }, () =>
      this.said.update((s) => ({ ...s, words: [], free: '' })),
    );
  }

  protected place(): void {
    const [into, item] = [this.into(), this.item()];
    if (into !== null && item !== null) this.act({ kind: 'place', into, item }, () => this.placeItem.set(null));
  }

  protected takeChoices(item: PanelPage['items'][number]): { value: string | null; label: string }[] {
    return [{ value: null, label: 'none' }, ...item.takes.map((t) => ({ value: t.id, label: t.name }))];
  }

  protected add(): void {
    const specimen = this.added();
    if (specimen !== null) this.act({ kind: 'add', specimen }, () => this.added.set(null));
  }
}
