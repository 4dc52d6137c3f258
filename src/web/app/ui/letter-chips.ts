import { ChangeDetectionStrategy, Component, booleanAttribute, input, output } from '@angular/core';

/** A clip under a letter. */
export interface LetterChip {
  readonly code: string;
  /** What stands on the chip; the letter itself where it is left out. */
  readonly shown?: string;
  /** What it is called by those who read it out. */
  readonly spoken: string;
  /** A name below the letter, where names are shown. */
  readonly name?: string;
}

/** Clips under letters: pressed to be heard, each with a word for what plays and what was heard already. */
@Component({
  selector: 'sd-letter-chips',
  template: `
    @for (chip of chips(); track chip.code) {
      <button
        type="button"
        class="clip"
        [class.playing]="playing() === chip.code"
        [class.heard]="heard().has(chip.code)"
        [disabled]="disabled()"
        [attr.aria-pressed]="playing() === chip.code"
        (click)="hear.emit(chip.code)"
      >
        <span class="visually-hidden">{{ chip.spoken }}</span>
        <span class="code" aria-hidden="true">{{ chip.shown ?? chip.code }}</span>
        @if (chip.name) {
          <span class="small" aria-hidden="true">{{ chip.name }}</span>
        }
        <span class="small"
          ><span aria-hidden="true">{{ sign(chip.code) }}</span> {{ word(chip.code) }}</span
        >
      </button>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(96px, 1fr));
      gap: 8px;
    }
    .clip {
      display: grid;
      gap: 4px;
      place-items: center;
      min-height: 84px;
      border: 1px solid var(--quiet);
      border-radius: 2px;
      background: var(--panel);
      color: var(--ink);
      font: inherit;
      cursor: pointer;
    }
    .clip:disabled {
      color: var(--quiet);
      cursor: wait;
    }
    .clip.heard {
      border-color: var(--ink);
    }
    .clip.playing {
      background: var(--azurite);
      border-color: var(--azurite);
      color: var(--on-azurite);
    }
    .code {
      font: 650 20px/1.2 var(--sans);
    }
  `,
  host: { role: 'group', 'aria-label': 'Clips' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LetterChips {
  readonly chips = input.required<readonly LetterChip[]>();
  readonly playing = input<string | null>(null);
  readonly heard = input<ReadonlySet<string>>(new Set<string>());
  readonly disabled = input(false, { transform: booleanAttribute });
  readonly hear = output<string>();

  protected word(code: string): string {
    return this.playing() === code ? 'playing' : this.heard().has(code) ? 'heard' : 'listen';
  }

  protected sign(code: string): string {
    return { playing: '▮▮', heard: '✓', listen: '' }[this.word(code)] ?? '';
  }
}
