import { SAME_TIME, type TimeMap } from '#core/audio/phrase-alignment';
import { LanePlayer } from '../web/app/audio/lane-player';
import { drawBelow, drawnOrder, guessWords, letterOf } from './deck-order';

/** A clip as the page names it. */
export interface DeckLane {
  readonly name: string;
  readonly words: string;
  readonly date: string;
  readonly role: string;
  readonly map: TimeMap | null;
  readonly source: { readonly inside: string } | { readonly file: string };
}

const element = <K extends keyof HTMLElementTagNameMap>(
  name: K,
  text: string,
  attributes: Readonly<Record<string, string>> = {},
): HTMLElementTagNameMap[K] => {
  const made = document.createElement(name);
  made.textContent = text;
  for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, value);
  return made;
};

/** Bytes of a clip: from the page itself, or from a file beside it. */
async function bytesOf(source: DeckLane['source']): Promise<ArrayBuffer> {
  if ('file' in source) {
    const answer = await fetch(source.file);
    if (!answer.ok) throw new Error(`the clip could not be loaded (${answer.status})`);
    return answer.arrayBuffer();
  }
  const text = atob(document.getElementById(source.inside)?.textContent ?? '');
  const bytes = new Uint8Array(text.length);
  for (let i = 0; i < text.length; i++) bytes[i] = text.charCodeAt(i);
  return bytes.buffer;
}

/** Makes one deck of a page: buttons by letters, switching without a gap, a guess, then the names. */
export class Deck {
  private readonly lanes: readonly DeckLane[];
  private readonly buttons: HTMLButtonElement[];
  private readonly play = element('button', 'Play', { type: 'button' });
  private readonly at = element('input', '', { type: 'range', min: '0', max: '1', step: '0.01', value: '0', 'aria-label': 'Place in the clip' }); // prettier-ignore
  private readonly volume = element('input', '', { type: 'range', min: '-40', max: '0', step: '1', value: '-12', 'aria-label': 'Volume, decibels below the level of the clips' }); // prettier-ignore
  private readonly told = element('p', '', { role: 'status', class: 'small' });
  private readonly guess = element('button', '', { type: 'button' });
  private player: LanePlayer | null = null;
  private active = 0;
  private isTold = false;

  constructor(
    private readonly host: HTMLElement,
    lanes: readonly DeckLane[],
    draw: (below: number) => number = drawBelow,
  ) {
    this.lanes = drawnOrder(lanes.length, draw).map((i) => lanes[i]);
    this.buttons = this.lanes.map((_, i) => element('button', letterOf(i), { type: 'button', 'aria-pressed': String(i === 0) })); // prettier-ignore
    this.lay();
  }

  private lay(): void {
    const row = element('div', '', { class: 'row' });
    const at = element('label', 'Place ');
    at.append(this.at);
    const volume = element('label', 'Volume ');
    volume.append(this.volume);
    row.append(this.play, at, volume);
    const lanes = element('div', '', { class: 'lanes', role: 'group', 'aria-label': 'Clips' });
    lanes.append(...this.buttons);
    this.host.append(row, lanes, this.guess, this.told);
    this.host.hidden = false;
    this.guess.hidden = !this.lanes.some((l) => l.role === 'this unit') || this.lanes.length < 2;
    this.nameGuess();
    this.buttons.forEach((button, i) => button.addEventListener('click', () => void this.switchTo(i)));
    this.play.addEventListener('click', () => void this.toggle());
    this.guess.addEventListener('click', () => this.reveal());
    this.at.addEventListener('input', () => this.player?.seek(Number(this.at.value) * this.player.lengthS));
    this.volume.addEventListener('input', () => this.player?.setVolume(Number(this.volume.value)));
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
    if (this.player) this.player.switchTo(lane);
    else await this.toggle();
  }

  private async toggle(): Promise<void> {
    const player = await this.ready();
    if (!player) return;
    if (player.isPlaying) player.pause();
    else player.play();
    this.show();
  }

  private show(): void {
    const playing = this.player?.isPlaying === true;
    this.play.textContent = playing ? 'Pause' : 'Play';
    if (!this.player) return;
    this.at.value = String(this.player.positionS() / (this.player.lengthS || 1));
    if (playing) requestAnimationFrame(() => this.show());
  }

  /** The player with all clips decoded; loaded when somebody first wants to hear. */
  private async ready(): Promise<LanePlayer | null> {
    if (this.player) return this.player;
    if (this.play.disabled) return null;
    this.play.disabled = true;
    this.play.textContent = 'Loading …';
    try {
      const context = new AudioContext();
      const buffers = await Promise.all(
        this.lanes.map(async (lane) => context.decodeAudioData(await bytesOf(lane.source))),
      );
      const player = new LanePlayer(context);
      player.setVolume(Number(this.volume.value));
      player.setLanes(buffers.map((buffer, i) => ({ buffer, gain: 1, map: this.lanes[i].map ?? SAME_TIME })));
      player.switchTo(this.active);
      await context.resume();
      this.player = player;
      return player;
    } catch (error) {
      this.told.textContent = `These clips cannot be heard here: ${error instanceof Error ? error.message : 'the browser refused them'}.`;
      return null;
    } finally {
      this.play.disabled = false;
      this.play.textContent = 'Play';
    }
  }
}
