import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { EMPTY, catchError, of } from 'rxjs';
import type { CompareCandidate, CompareLane } from '#contracts/compare';
import type { ReviewDocument } from '#contracts/review';
import { ListeningData } from '../../data/listening';
import { ChoiceField } from '../../ui/field/choice-field';
import { changedAt, without } from './review-draft';

type Deck = ReviewDocument['decks'][number];
/** As the contract has it. */
const MOST_TAKES = 8;

/** What a reader hears beside each other: steps, and the takes of each. */
@Component({
  selector: 'sd-deck-picker',
  imports: [Button, ChoiceField, RouterLink],
  template: `
    <h3>Heard beside each other</h3>
    @for (deck of decks(); track $index; let i = $index) {
      <div class="line" role="group" [attr.aria-label]="'Step ' + (i + 1)">
        <strong class="grow">{{ titleOf(deck) }}</strong>
        <a
          routerLink="/compare"
          [queryParams]="{ takes: deck.takes.join(',') }"
          [attr.aria-label]="'Hear it: ' + titleOf(deck)"
          >Hear it</a
        >
        <p-button
          icon="pi pi-times"
          [text]="true"
          size="small"
          [ariaLabel]="'Take out: ' + titleOf(deck)"
          (onClick)="decksChange.emit(without(decks(), i))"
        />
        <ul>
          @for (take of deck.takes; track take; let t = $index) {
            <li>
              {{ nameOf(take) }}
              <p-button
                icon="pi pi-times"
                [text]="true"
                size="small"
                [disabled]="deck.takes.length === 1"
                [ariaLabel]="'Leave out: ' + nameOf(take)"
                (onClick)="leaveOut(i, t)"
              />
            </li>
          }
        </ul>
        @if (deck.takes.length < most) {
          <sd-choice-field
            class="wide"
            label="Add a clip"
            [options]="others(deck)"
            filter
            [value]="null"
            placeholder="Choose a clip of this step"
            (valueChange)="add(i, $event)"
          />
        }
      </div>
    } @empty {
      <p class="quiet small">Nothing yet: a reader hears nothing.</p>
    }
    @if (decks().length < 6) {
      <sd-choice-field
        class="wide"
        label="Add a step"
        [options]="stepChoices()"
        filter
        [value]="null"
        placeholder="Choose a step that this unit has a clip of"
        (valueChange)="addStep($event)"
      />
    }
  `,
  styleUrl: './lines.css',
  styles: `
    ul {
      flex: 1 1 100%;
      margin: 0;
      padding-left: 20px;
    }
    .wide {
      max-width: 420px;
    }
    .line .wide {
      flex: 1 1 100%;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DeckPicker {
  readonly decks = input.required<readonly Deck[]>();
  readonly unit = input.required<string>();
  readonly category = input.required<string>();
  readonly decksChange = output<Deck[]>();

  private readonly data = inject(ListeningData);
  protected readonly most = MOST_TAKES;
  protected readonly without = without<Deck>;
  private readonly steps = toSignal(this.data.steps().pipe(catchError(() => of([]))), { initialValue: [] });
  /** Takes of a step that can be heard, as far as they were asked for. */
  private readonly known = signal<ReadonlyMap<string, readonly CompareCandidate[]>>(new Map());
  /** Names of takes, as far as they were asked for: one with a part and one without it are of two steps. */
  private readonly lanes = signal<ReadonlyMap<string, CompareLane & { readonly stepTitle: string }>>(new Map());
  protected readonly stepChoices = computed(() =>
    this.steps()
      .filter((s) => s.category === this.category() && !this.decks().some((d) => d.step === s.step))
      .map((s) => ({ label: s.title, value: s.step, note: s.units === 1 ? '1 unit' : `${s.units} units` })),
  );

  constructor() {
    effect(() => {
      for (const deck of this.decks()) {
        this.ask(deck.step);
        this.name(deck);
      }
    });
  }

  protected titleOf(deck: Deck): string {
    return this.lanes().get(deck.takes[0])?.stepTitle ?? deck.step;
  }

  protected nameOf(take: string): string {
    const c = this.lanes().get(take);
    return c ? `${c.unit}${c.words === '' ? '' : `, ${c.words}`}, ${c.date}` : 'a take that is not there any more';
  }

  protected others(deck: Deck) {
    return (this.known().get(deck.step) ?? [])
      .filter((c) => !deck.takes.includes(c.takeId))
      .map((c) => ({ label: `${c.unit}${c.words === '' ? '' : `, ${c.words}`}`, value: c.takeId, note: c.date }));
  }

  protected add(at: number, take: string): void {
    const deck = this.decks()[at];
    this.decksChange.emit(changedAt(this.decks(), at, { ...deck, takes: [...deck.takes, take] }));
  }

  protected leaveOut(at: number, take: number): void {
    const deck = this.decks()[at];
    this.decksChange.emit(changedAt(this.decks(), at, { ...deck, takes: deck.takes.filter((_, i) => i !== take) }));
  }

  /** A step begins with the unit's own take, or with whatever there is of it. */
  protected addStep(step: string): void {
    this.ask(step, (list) => {
      const first = list.find((c) => c.specimenId === this.unit() && !c.isProcessed) ?? list.at(0);
      if (first) this.decksChange.emit([...this.decks(), { step, takes: [first.takeId] }]);
    });
  }

  private name(deck: Deck): void {
    const key = deck.takes.join(',');
    if (untracked(this.lanes).has(deck.takes[deck.takes.length - 1]) || this.asked.has(key)) return;
    this.asked.add(key);
    this.data
      .table({ takes: [...deck.takes], zero: deck.takes[0], match: 'loudness', loop: null })
      .pipe(catchError(() => EMPTY))
      .subscribe(({ lanes, stepTitle }) =>
        this.lanes.update(
          (known) => new Map([...known, ...lanes.map((l) => [l.takeId, { ...l, stepTitle }] as const)]),
        ),
      );
  }

  private readonly asked = new Set<string>();

  private ask(step: string, then?: (list: readonly CompareCandidate[]) => void): void {
    if (this.asked.has(step)) {
      const list = this.known().get(step);
      if (list) then?.(list);
      return;
    }
    this.asked.add(step);
    this.data
      .candidates(this.category(), step)
      .pipe(catchError(() => of([])))
      .subscribe((list) => {
        this.known.update((k) => new Map(k).set(step, list));
        then?.(list);
      });
  }
}
