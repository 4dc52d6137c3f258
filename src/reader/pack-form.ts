import { bytesInside } from './clip-bytes';
import { drawBelow, drawnOrder } from './deck-order';
import { element } from './element';
import { openKey, type OpenedKey } from './open-key';
import { answerCsv, moved, saidAnswer, type PackDraft } from './pack-answer';
import { Transport } from './transport';

/** What the page of a pack says of it. */
export interface PackData {
  readonly tag: string;
  readonly keySha256: string;
  readonly asks: readonly string[];
  readonly names: readonly string[];
  readonly clips: readonly { readonly name: string; readonly letter: string; readonly inside: string }[];
}

/** A clip's line: its name to play it, and what can be said of it. */
interface Line {
  readonly item: HTMLLIElement;
  readonly hear: HTMLButtonElement;
  readonly up: HTMLButtonElement;
  readonly down: HTMLButtonElement;
}

/** The form of a pack: clips to be heard, an answer, its code. */
export class PackForm {
  private readonly list = element('ol', '', { class: 'clips', 'aria-label': 'Clips' });
  private readonly told = element('p', '', { role: 'status', class: 'small' });
  private readonly listener = element('input', '', { type: 'text', maxlength: '120', autocomplete: 'nickname' });
  private readonly ordered = element('input', '', { type: 'checkbox' });
  private readonly code = element('textarea', '', { readonly: '', rows: '2', 'aria-label': 'Code of your answer' });
  private readonly copy = element('button', 'Copy the code', { type: 'button' });
  private readonly save = element('button', 'Save as CSV', { type: 'button' });
  private readonly lines = new Map<string, Line>();
  private readonly unheard: Set<string>;
  private readonly transport: Transport;
  private draft: PackDraft;

  constructor(
    private readonly host: HTMLElement,
    private readonly data: PackData,
    draw: (below: number) => number = drawBelow,
  ) {
    const { clips } = data;
    this.unheard = new Set(clips.map((c) => c.name));
    this.draft = {
      // Nobody's list begins with the same clip: what stands on top gains by it.
      order: drawnOrder(clips.length, draw).map((i) => clips[i].letter),
      isOrdered: false,
      points: {},
      names: data.asks.includes('names') ? Object.fromEntries(clips.map((c) => [c.letter, 0])) : {},
    };
    this.transport = new Transport(
      clips.map((c) => ({ source: { inside: c.inside }, map: null })),
      (words) => (this.told.textContent = words),
      (clip) => {
        this.unheard.delete(clips[clip].name);
        this.show();
      },
    );
    this.lay();
    this.show();
  }

  private lay(): void {
    for (const [i, clip] of this.data.clips.entries()) this.lines.set(clip.letter, this.lineOf(clip, i));
    const name = element('label', 'Your name, if you want to give one ');
    name.append(this.listener);
    const ordered = element('label', '');
    ordered.append(this.ordered, ' This is my order, best on top');
    const buttons = element('div', '', { class: 'row' });
    buttons.append(this.copy, this.save);
    this.ordered.addEventListener('change', () => this.change({ isOrdered: this.ordered.checked }));
    this.copy.addEventListener('click', () => void this.copyCode());
    this.save.addEventListener('click', () => this.saveCsv());
    const parts = [this.transport.row, this.list, ...(this.asks('order') ? [ordered] : []), element('h2', 'Your answer'), name, this.told, this.code, buttons]; // prettier-ignore
    this.host.append(...parts);
    this.host.hidden = false;
  }

  private asks(what: string): boolean {
    return this.data.asks.includes(what);
  }

  private lineOf(clip: PackData['clips'][number], index: number): Line {
    const item = element('li', '');
    const hear = element('button', clip.name, { type: 'button', class: 'hear', 'aria-pressed': String(index === 0) });
    const up = element('button', '↑', { type: 'button', class: 'small-button', 'aria-label': `${clip.name} up` });
    const down = element('button', '↓', { type: 'button', class: 'small-button', 'aria-label': `${clip.name} down` });
    hear.addEventListener('click', () => {
      for (const [letter, line] of this.lines) line.hear.setAttribute('aria-pressed', String(letter === clip.letter));
      void this.transport.switchTo(index);
    });
    for (const [button, by] of [
      [up, -1],
      [down, 1],
    ] as const)
      // prettier-ignore
      button.addEventListener('click', () => {
        this.ordered.checked = true;
        this.change({ order: moved(this.draft.order, clip.letter, by), isOrdered: true });
        (button.disabled ? (by < 0 ? down : up) : button).focus();
      });
    item.append(hear);
    if (this.asks('order')) item.append(up, down);
    if (this.asks('points')) item.append(this.pointsOf(clip));
    if (this.asks('names')) item.append(this.nameOf(clip));
    return { item, hear, up, down };
  }

  private pointsOf({ letter, name }: PackData['clips'][number]): HTMLElement {
    const label = element('label', 'Points ');
    const input = element('input', '', { type: 'text', inputmode: 'decimal', size: '4', 'aria-label': `Points for ${name}, 0 to 10` }); // prettier-ignore
    input.addEventListener('input', () => this.change({ points: { ...this.draft.points, [letter]: input.value } }));
    label.append(input);
    return label;
  }

  private nameOf({ letter, name }: PackData['clips'][number]): HTMLElement {
    const label = element('label', 'is ');
    const select = element('select', '', { 'aria-label': `Which unit is ${name}?` });
    for (const [i, unit] of ['–', ...this.data.names].entries()) select.append(element('option', unit, { value: String(i) })); // prettier-ignore
    select.addEventListener('change', () => this.change({ names: { ...this.draft.names, [letter]: Number(select.value) } })); // prettier-ignore
    label.append(select);
    return label;
  }

  private change(part: Partial<PackDraft>): void {
    this.draft = { ...this.draft, ...part };
    this.show();
  }

  private show(): void {
    const { order } = this.draft;
    // Lines move only where the order did: a field that is typed into keeps its place and its cursor.
    const shown = [...this.list.children];
    const wanted = order.flatMap((letter) => this.lines.get(letter)?.item ?? []);
    if (wanted.some((item, i) => shown.at(i) !== item)) this.list.replaceChildren(...wanted);
    order.forEach((letter, i) => {
      const line = this.lines.get(letter);
      if (line) [line.up.disabled, line.down.disabled] = [i === 0, i === order.length - 1];
    });
    const said = saidAnswer(this.draft, this.data.tag);
    const unheard = this.unheard.size > 0 ? ` Not heard yet: ${[...this.unheard].join(', ')}.` : '';
    this.told.classList.toggle('warn', said.kind === 'fault');
    const without =
      this.asks('order') && !this.draft.isOrdered ? ' Your order is not in it: say that it is meant.' : '';
    this.told.textContent =
      said.kind === 'answer' ? `Paste this code as a comment, or send the CSV.${without}${unheard}` : said.kind === 'fault' ? said.words : `Nothing is said yet.${unheard}`; // prettier-ignore
    this.code.value = said.kind === 'answer' ? said.code : '';
    this.copy.disabled = this.save.disabled = said.kind !== 'answer';
  }

  private async copyCode(): Promise<void> {
    this.code.select();
    try {
      await navigator.clipboard.writeText(this.code.value);
      this.told.textContent = 'Copied.';
    } catch {
      this.told.textContent = 'The code is marked: copy it with the keys of your device.';
    }
  }

  private saveCsv(): void {
    const said = saidAnswer(this.draft, this.data.tag);
    if (said.kind !== 'answer') return;
    const csv = answerCsv(said.answer, { ...this.data, listener: this.listener.value.trim() });
    const link = element('a', '', { download: `answer-${this.data.tag}.csv`, href: URL.createObjectURL(new Blob([csv], { type: 'text/csv' })) }); // prettier-ignore
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
  }
}

/** Where the key is opened on the day. */
export function keyForm(host: HTMLElement, data: PackData): void {
  const code = element('input', '', { type: 'text', size: '34', autocomplete: 'off', spellcheck: 'false' });
  const label = element('label', 'Opening code ');
  label.append(code);
  const open = element('button', 'Open the key', { type: 'button' });
  const told = element('div', '', { role: 'status' });
  const row = element('div', '', { class: 'row' });
  row.append(label, open);
  host.append(row, told);
  host.hidden = false;
  open.addEventListener('click', () => {
    const key = openKey(bytesInside('sealed-key'), code.value, data.keySha256);
    told.replaceChildren(...keyWords(key));
  });
}

function keyWords(key: OpenedKey): HTMLElement[] {
  if (key.kind === 'shut') return [element('p', key.words, { class: 'warn' })];
  const list = element('ul', '', { class: 'lines plain' });
  for (const { letter, name, unit, part } of key.clips)
    list.append(element('li', `${letter} · ${name} was ${part === '' ? '' : `${part}: `}${unit}`));
  return [element('p', 'The key has the SHA-256 that was made known. It says:'), list];
}
