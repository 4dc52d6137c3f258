import { capital } from '#core/text/capital';
import { signal } from '@angular/core';
import type { Reading } from '#core/text/reading';
import type { RefusedField, Refusals } from './refusals';

/** Longer than a press of a button takes. */
const FADE_MS = 400;

/** What a field takes. */
export interface EntryRules<T> {
  readonly read: (text: string) => Reading<T>;
  /** What an empty field is told where it must not be empty; '' where it may. */
  readonly needed: string;
}

/**
 * What a person has typed into one field: taken as it is meant, or kept as it was typed and refused with words. While it
 * is refused, the field stands in the list of refusals, and nothing of the page is saved.
 */
export class Entry<T> {
  /** What was typed, as long as it is refused. */
  readonly typed = signal<string | null>(null);
  /** Why it is refused; '' where it is not. */
  readonly refusal = signal('');
  private fading: ReturnType<typeof setTimeout> | null = null;

  /**
   * @param refusals - of the page
   * @param field - what is brought into view when the page is to be saved all the same
   * @param rules - asked at each entry, so that a field may change its unit
   */
  constructor(
    private readonly refusals: Refusals,
    private readonly field: RefusedField,
    private readonly rules: () => EntryRules<T>,
  ) {}

  /** @returns what was understood (null for an empty field), or undefined where the text is refused */
  take(text: string): T | null | undefined {
    const { read, needed } = this.rules();
    const reading = read(text);
    if (reading.isUnderstood && (reading.value !== null || needed === '')) {
      this.accept();
      return reading.value;
    }
    this.stay();
    this.typed.set(text);
    this.refusal.set(capital(reading.isUnderstood ? needed : reading.why));
    this.refusals.note(this.field);
    return undefined;
  }

  /** A value from elsewhere (another step, a reading) takes the place of what was refused. */
  accept(): void {
    this.typed.set(null);
    this.refusals.forget(this.field);
    // What stands below moves up when the words go: not while the press that left the field is still on its way.
    this.stay();
    this.fading = setTimeout(() => this.refusal.set(''), FADE_MS);
  }

  /** The field is gone, and with it what was typed. */
  leave(): void {
    this.refusals.forget(this.field);
    this.stay();
  }

  private stay(): void {
    if (this.fading !== null) clearTimeout(this.fading);
    this.fading = null;
  }
}
