import { ChangeDetectionStrategy, Component, computed, effect, input, output, signal, untracked } from '@angular/core';
import { Button } from 'primeng/button';

/**
 * An order of letters, given by pressing the best first; or, where one more goes into a table, the gap that it goes
 * into. Pressing a letter again takes it, and what came after it, out.
 */
@Component({
  selector: 'sd-letter-order',
  imports: [Button],
  template: `
    @if (kind() === 'place') {
      <p class="ask">
        Where does <strong>{{ newcomer() }}</strong> go? {{ table().at(0) }} is the best of the table,
        {{ table().at(-1) }} the last.
      </p>
      <div class="gaps">
        @for (gap of gaps(); track gap.at) {
          <p-button
            size="small"
            [label]="gap.name"
            [severity]="placedAt() === gap.at ? 'primary' : 'secondary'"
            [attr.aria-pressed]="placedAt() === gap.at"
            (onClick)="placedAt.set(gap.at)"
          />
        }
      </div>
    } @else {
      <p class="ask">
        {{ order().length === 0 ? 'Press the best first, then the next best, to the last.' : ordered() }}
      </p>
      <div class="letters" role="group" aria-label="Best first">
        @for (letter of letters(); track letter) {
          <p-button
            [label]="order().includes(letter) ? order().indexOf(letter) + 1 + '. ' + letter : letter"
            [severity]="order().includes(letter) ? 'primary' : 'secondary'"
            [attr.aria-pressed]="order().includes(letter)"
            (onClick)="press(letter)"
          />
        }
      </div>
    }
    <div class="letters">
      <p-button size="small" [label]="button()" [disabled]="!isWhole()" (onClick)="give()" />
      @if (given(); as g) {
        <span class="small quiet" role="status">{{ givenWords(g) }}</span>
      }
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .letters,
    .gaps {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: center;
    }
    .gaps {
      display: grid;
      justify-items: start;
    }
    .ask {
      margin: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LetterOrder {
  readonly kind = input.required<'heat' | 'place'>();
  /** Of a place, the table best first, and then the one that goes into it. */
  readonly letters = input.required<readonly string[]>();
  /** The order that was given before; null for none. */
  readonly given = input<readonly string[] | null>(null);
  readonly button = input('That is my order');
  readonly orderGiven = output<string[]>();
  readonly placeGiven = output<number>();

  /** Of the turn; heats of one panel have the same letters. */
  readonly turn = input.required<number>();
  private readonly turnKey = computed(() => `${this.turn()} ${this.given()?.join() ?? ''}`);
  protected readonly order = signal<readonly string[]>([]);
  protected readonly placedAt = signal<number | null>(null);
  protected readonly newcomer = computed(() => this.letters().at(-1) ?? '');
  protected readonly table = computed(() => this.letters().slice(0, -1));
  protected readonly gaps = computed(() =>
    this.letters().map((_, at) => ({ at, name: gapOf(this.table(), this.newcomer(), at) })),
  );
  protected readonly ordered = computed(() =>
    this.isWhole() ? `Best first: ${this.order().join(', ')}.` : `So far ${this.order().join(', ')}.`,
  );
  protected readonly isWhole = computed(() =>
    this.kind() === 'place' ? this.placedAt() !== null : this.order().length === this.letters().length,
  );

  constructor() {
    // Another turn begins afresh; what was given before stands there to be changed. A page that asks again and again
    // gets the same answer as another list: half an order that was pressed stays.
    effect(() => {
      this.turnKey();
      untracked(() => {
        const given = this.given();
        const isOfThis = given !== null && [...given].sort().join() === [...this.letters()].sort().join();
        this.order.set(isOfThis && this.kind() === 'heat' ? given : []);
        this.placedAt.set(isOfThis && this.kind() === 'place' ? given.indexOf(this.newcomer()) : null);
      });
    });
  }

  protected press(letter: string): void {
    this.order.update((order) => (order.includes(letter) ? order.slice(0, order.indexOf(letter)) : [...order, letter]));
  }

  protected givenWords(given: readonly string[]): string {
    return this.kind() === 'place'
      ? `Given: ${gapOf(this.table(), this.newcomer(), given.indexOf(this.newcomer()))}.`
      : `Given: ${given.join(', ')}.`;
  }

  protected give(): void {
    const at = this.placedAt();
    if (this.kind() === 'heat') this.orderGiven.emit([...this.order()]);
    else if (at !== null) this.placeGiven.emit(at);
  }
}

/** Where one goes in a table: before the first, between two, behind the last. */
export function gapOf(table: readonly string[], newcomer: string, at: number): string {
  if (at <= 0) return `${newcomer} is better than ${table[0]}`;
  if (at >= table.length) return `${newcomer} goes behind ${table[table.length - 1]}`;
  return `${newcomer} goes between ${table[at - 1]} and ${table[at]}`;
}
