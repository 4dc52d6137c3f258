import { letterOf } from '#core/rules/listening/letters';
import type { PlayedClip } from './transport';
import { Transport } from './transport';
import { drawBelow, drawnOrder, guessWords } from './deck-order';
import { element } from './element';

/** A clip as the page names it. */
export interface DeckLane extends PlayedClip {
  readonly name: string;
  readonly words: string;
  readonly date: string;
  readonly role: string;
}

/** Makes one deck of a page: buttons by letters, switching without a gap, a guess, then the names. */
export class Deck {
  private readonly lanes: readonly DeckLane[];
  private readonly buttons: HTMLButtonElement[];
  private readonly told = element('p', '', { role: 'status', class: 'small' });
  private readonly guess = element('button', '', { type: 'button' });
  private readonly transport: Transport;
  private active = 0;
  private isTold = false;

  constructor(
    private readonly host: HTMLElement,
    lanes: readonly DeckLane[],
    draw: (below: number) => number = drawBelow,
  ) {
    this.lanes = drawnOrder(lanes.length, draw).map((i) => lanes[i]);
    this.buttons = this.lanes.map((_, i) => element('button', letterOf(i), { type: 'button', 'aria-pressed': String(i === 0) })); // prettier-ignore
    this.transport = new Transport(this.lanes, (words) => (this.told.textContent = words));
    this.lay();
  }

  private lay(): void {
    const lanes = element('div', '', { class: 'lanes', role: 'group', 'aria-label': 'Clips' });
    lanes.append(...this.buttons);
    this.host.append(this.transport.row, lanes, this.guess, this.told);
    this.host.hidden = false;
    this.guess.hidden = !this.lanes.some((l) => l.role === 'this unit') || this.lanes.length < 2;
    this.nameGuess();
    this.buttons.forEach((button, i) => button.addEventListener('click', () => void this.switchTo(i)));
    this.guess.addEventListener('click', () => this.reveal());
    this.host.addEventListener('keydown', (event) => {
      const lane = Number(event.key) - 1;
      if (Number.isInteger(lane) && lane >= 0 && lane < this.lanes.length && !event.ctrlKey && !event.metaKey)
        void this.switchTo(lane);
    });
  }

  private nameGuess(): void {
    const own = this.lanes.find((l) => l.role === 'this unit');
    this.guess.textContent = `${letterOf(this.active)} is ${own?.name ?? ''}: that is my guess`;
  }

  private reveal(): void {
    this.isTold = true;
    this.told.textContent = guessWords(this.active, this.lanes);
    this.guess.hidden = true;
    this.buttons.forEach((button, i) => {
      const { name, words } = this.lanes[i];
      button.textContent = `${letterOf(i)} · ${name}${words === '' ? '' : `, ${words}`}`;
    });
  }

  private async switchTo(lane: number): Promise<void> {
    this.active = lane;
    this.buttons.forEach((button, i) => button.setAttribute('aria-pressed', String(i === lane)));
    if (!this.isTold) this.nameGuess();
    await this.transport.switchTo(lane);
  }
}
