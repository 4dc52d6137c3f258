import { computed, signal } from '@angular/core';
import { shuffled } from '#core/stats/shuffle';

/** A lane by its place in the comparison, and by the place at which it is shown. */
export interface ShownLane {
  readonly index: number;
  readonly shown: number;
}

/**
 * Names of lanes: shown → hidden (in another order, to be guessed) → revealed → shown. While they are hidden nothing may
 * tell which lane is which.
 */
export class HiddenNames {
  /** Lanes by their places, in the order in which they are shown; null for their own order. */
  private readonly order = signal<readonly number[] | null>(null);
  readonly isRevealed = signal(false);
  readonly isHidden = computed(() => this.order() !== null && !this.isRevealed());
  /** Names were hidden: there are guesses to make, or to look at. */
  readonly isGuessed = computed(() => this.order() !== null);
  /** Guesses by lane. */
  readonly guesses = signal<Readonly<Record<number, string>>>({});

  /** @param draw - a seed for the order; another one each time */
  constructor(private readonly draw: () => string = () => `${Date.now()}/${Math.random()}`) {}

  /** Lanes as they are shown. */
  lanes(count: number): ShownLane[] {
    const order = this.order() ?? Array.from({ length: count }, (_, i) => i);
    return order.map((index, shown) => ({ index, shown }));
  }

  /** The number under which a lane is shown, from 1. */
  numberOf(index: number): number {
    return (this.order()?.indexOf(index) ?? index) + 1;
  }

  /**
   * Hides names, or reveals them where they are hidden.
   *
   * @returns the lane that is to be heard now, where names were hidden: what sounded must not tell which it is
   */
  toggle(count: number): number | null {
    if (count < 2) return null;
    if (this.isHidden()) {
      this.isRevealed.set(true);
      return null;
    }
    const order = shuffled(
      Array.from({ length: count }, (_, i) => i),
      this.draw(),
    );
    this.order.set(order);
    this.isRevealed.set(false);
    this.guesses.set({});
    return order[0];
  }

  /** Back to names in their own order; also where other lanes come in. */
  show(): void {
    this.order.set(null);
    this.isRevealed.set(false);
    this.guesses.set({});
  }

  guess(index: number, unit: string): void {
    this.guesses.update((all) => ({ ...all, [index]: unit }));
  }

  /** @param units - by lane */
  right(units: readonly string[]): number {
    return units.filter((unit, i) => this.guesses()[i] === unit).length;
  }
}
