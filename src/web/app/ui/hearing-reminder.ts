import { Injectable, signal } from '@angular/core';

const KEY = 'sediment.hearing-reminder';

/** Asks once per session of the browser before anything is played. */
@Injectable({ providedIn: 'root' })
export class HearingReminder {
  readonly isOpen = signal(false);
  private waiting: ((ok: boolean) => void)[] = [];

  /** True as soon as the reminder has been read (now or before); false where the person went away from it. */
  acknowledged(): Promise<boolean> {
    if (sessionStorage.getItem(KEY) !== null) return Promise.resolve(true);
    this.isOpen.set(true);
    return new Promise((resolve) => this.waiting.push(resolve));
  }

  answer(ok: boolean): void {
    if (ok) sessionStorage.setItem(KEY, 'read');
    this.isOpen.set(false);
    this.waiting.forEach((resolve) => resolve(ok));
    this.waiting = [];
  }
}
