import { Injectable, effect, signal } from '@angular/core';

export type Theme = 'chalk' | 'basalt';
const KEY = 'sediment.theme';

/** Follows the system until the person chooses. */
@Injectable({ providedIn: 'root' })
export class ThemeChoice {
  readonly theme = signal<Theme>(this.initial());

  constructor() {
    effect(() => document.documentElement.setAttribute('data-theme', this.theme()));
    matchMedia('(prefers-color-scheme: dark)').addEventListener('change', (e) => {
      if (localStorage.getItem(KEY) === null) this.theme.set(e.matches ? 'basalt' : 'chalk');
    });
  }

  toggle(): void {
    this.theme.update((t) => (t === 'chalk' ? 'basalt' : 'chalk'));
    localStorage.setItem(KEY, this.theme());
  }

  private initial(): Theme {
    const stored = localStorage.getItem(KEY);
    if (stored === 'chalk' || stored === 'basalt') return stored;
    return matchMedia('(prefers-color-scheme: dark)').matches ? 'basalt' : 'chalk';
  }
}
