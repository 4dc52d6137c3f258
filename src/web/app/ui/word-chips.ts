import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { HEARD_WORDS, type HeardWord } from '#core/rules/listening/vocabulary';

/** Words of the short list, each pressed or not. */
@Component({
  selector: 'sd-word-chips',
  template: `
    @for (word of vocabulary; track word) {
      <button type="button" class="chip" [attr.aria-pressed]="words().includes(word)" (click)="toggle(word)">
        {{ word }}
      </button>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: center;
    }
  `,
  host: { role: 'group', 'aria-label': 'Words of the list' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WordChips {
  readonly words = input.required<readonly HeardWord[]>();
  readonly wordsChange = output<HeardWord[]>();
  protected readonly vocabulary = HEARD_WORDS;

  protected toggle(word: HeardWord): void {
    const words = this.words();
    this.wordsChange.emit(words.includes(word) ? words.filter((w) => w !== word) : [...words, word]);
  }
}
