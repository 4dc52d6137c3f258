import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, effect, input, output, signal, viewChild } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { InputText } from 'primeng/inputtext';
import { DIALOG } from './dialog/dialog';

/** Something the palette can jump to or do. */
export interface PaletteEntry {
  readonly label: string;
  readonly hint: string;
  readonly run: () => void;
}

const MOST_SHOWN = 12;

/** Entries that hold every word that was typed, those that begin with it first. */
export function matchEntries(entries: readonly PaletteEntry[], typed: string): PaletteEntry[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const matches = entries.filter((e) => words.every((w) => e.label.toLowerCase().includes(w)));
  const starts = (e: PaletteEntry): number => (words.length > 0 && e.label.toLowerCase().startsWith(words[0]) ? 0 : 1);
  return matches.sort((a, b) => starts(a) - starts(b)).slice(0, MOST_SHOWN);
}

/** Jump to any unit, screen or action by typing. */
@Component({
  selector: 'sd-palette',
  imports: [DIALOG, FormsModule, InputText],
  template: `
    <p-dialog
      header="Jump to"
      [visible]="open()"
      (visibleChange)="openChange.emit($event)"
      [modal]="true"
      [dismissableMask]="true"
      position="top"
      [style]="{ width: '560px', 'max-width': '96vw' }"
    >
      <input
        #box
        pInputText
        type="text"
        role="combobox"
        aria-label="Unit, screen or action"
        aria-expanded="true"
        aria-controls="palette-list"
        [attr.aria-activedescendant]="matches().length > 0 ? 'palette-' + active() : null"
        placeholder="Type a unit, a screen or an action"
        [ngModel]="typed()"
        (ngModelChange)="type($event)"
        (keydown)="key($event)"
      />
      <ul id="palette-list" role="listbox" aria-label="Matches">
        @for (entry of matches(); track entry.label + entry.hint; let i = $index) {
          <li
            role="option"
            [id]="'palette-' + i"
            [attr.aria-selected]="i === active()"
            [class.active]="i === active()"
            (click)="choose(i)"
            (mouseenter)="active.set(i)"
          >
            <span>{{ entry.label }}</span><span class="quiet small">{{ entry.hint }}</span>
          </li>
        } @empty {
          <li class="quiet">Nothing is called that.</li>
        }
      </ul>
    </p-dialog>
  `,
  styles: `
    input {
      width: 100%;
    }
    ul {
      list-style: none;
      margin: 8px 0 0;
      padding: 0;
    }
    li {
      display: flex;
      justify-content: space-between;
      gap: 16px;
      padding: 6px 8px;
      cursor: pointer;
      border-radius: 2px;
    }
    li.active {
      background: var(--azurite-soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Palette {
  readonly open = input.required<boolean>();
  readonly openChange = output<boolean>();
  readonly entries = input.required<readonly PaletteEntry[]>();

  private readonly box = viewChild<ElementRef<HTMLInputElement>>('box');
  protected readonly typed = signal('');
  protected readonly active = signal(0);
  protected readonly matches = computed(() => matchEntries(this.entries(), this.typed()));

  constructor() {
    effect(() => {
      if (!this.open()) return;
      this.type('');
      setTimeout(() => this.box()?.nativeElement.focus());
    });
  }

  protected type(text: string): void {
    this.typed.set(text);
    this.active.set(0);
  }

  protected key(event: KeyboardEvent): void {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step !== 0) {
      event.preventDefault();
      const count = this.matches().length;
      if (count > 0) this.active.update((i) => (i + step + count) % count);
    } else if (event.key === 'Enter') {
      event.preventDefault();
      this.choose(this.active());
    }
  }

  protected choose(index: number): void {
    const entry = this.matches().at(index);
    if (!entry) return;
    this.openChange.emit(false);
    entry.run();
  }
}
