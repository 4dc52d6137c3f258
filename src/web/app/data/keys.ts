import { Injectable, signal } from '@angular/core';

/** A key and what it does, for the help. */
export interface KeyHint {
  readonly keys: string;
  readonly does: string;
}

export const GLOBAL_KEYS: readonly KeyHint[] = [
  { keys: 'Ctrl K', does: 'Jump to a unit, screen or action' },
  { keys: '?', does: 'Show the keys of this screen' },
  { keys: 'Esc', does: 'Close what floats' },
  { keys: 'Tab', does: 'Go on; Shift Tab goes back' },
];

/** Keys of the screen that is shown. */
@Injectable({ providedIn: 'root' })
export class ScreenKeys {
  readonly hints = signal<readonly KeyHint[]>([]);
}

/** Whether a key press is meant for a field that is being typed into, or for a list that letters lead through. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  return target?.closest('input, textarea, select, [contenteditable], [role="combobox"], [role="listbox"]') !== null;
}
