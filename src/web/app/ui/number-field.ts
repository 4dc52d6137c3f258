import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  booleanAttribute,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { InputText } from 'primeng/inputtext';
import { acceptedText, numberText, readNumber, type NumberSheet } from '#core/text/read-number';
import { Refusals } from './refusals';

let made = 0;
/** Longer than a press of a button takes. */
const FADE_MS = 400;

/**
 * A field for a number: either decimal sign, groups of three, units. It takes what is typed as it is meant, once the
 * field is left, or refuses it beside the field; it never rounds or brings a number into the range.
 */
@Component({
  selector: 'sd-number-field',
  imports: [InputText],
  template: `
    <input
      #field
      pInputText
      type="text"
      autocomplete="off"
      [attr.inputmode]="(sheet().least ?? -1) < 0 ? 'text' : 'decimal'"
      [attr.id]="inputId() || null"
      [value]="shown()"
      [disabled]="disabled()"
      [attr.aria-label]="label() || null"
      [attr.aria-invalid]="refusal() ? 'true' : null"
      [attr.aria-describedby]="refusal() ? noteId : null"
      [placeholder]="placeholder()"
      [title]="accepted()"
      (change)="take(field.value)"
      (keydown.arrowup)="turn($event, 1)"
      (keydown.arrowdown)="turn($event, -1)"
    />
    @if (refusal()) {
      <span class="refusal small" role="alert" [id]="noteId">{{ refusal() }}</span>
    }
  `,
  styles: `
    :host {
      display: inline-grid;
      gap: 2px;
      width: 112px;
    }
    input {
      width: 100%;
      min-width: 0;
      font-variant-numeric: tabular-nums;
    }
    input[aria-invalid] {
      border-color: var(--cinnabar);
    }
    .refusal {
      color: var(--cinnabar-text);
      min-width: 180px;
      white-space: normal;
      overflow-wrap: anywhere;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NumberField {
  readonly value = input.required<number | null>();
  readonly valueChange = output<number | null>();
  readonly sheet = input.required<NumberSheet>();
  readonly inputId = input('');
  /** Name for those who do not see a label beside it. */
  readonly label = input('');
  readonly placeholder = input('');
  readonly disabled = input(false, { transform: booleanAttribute });
  /** An empty field is refused. */
  readonly required = input(false, { transform: booleanAttribute });
  /** What the arrow keys turn it by; 0: they do not. */
  readonly step = input(0);

  private readonly refusals = inject(Refusals);
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');
  protected readonly refusal = signal('');
  /** What was typed, as long as it is refused. */
  private readonly typed = signal<string | null>(null);
  protected readonly noteId = `number-note-${++made}`;
  protected readonly shown = computed(() => {
    const value = this.value();
    return this.typed() ?? (value === null ? '' : numberText(value, this.sheet()));
  });
  protected readonly accepted = computed(() => acceptedText(this.sheet()));
  private fading: ReturnType<typeof setTimeout> | null = null;
  private readonly entry = { focus: () => this.field().nativeElement.focus() };

  constructor() {
    // A value from elsewhere (another step, a reading) takes the place of what was refused.
    effect(() => {
      this.value();
      this.accept();
    });
    inject(DestroyRef).onDestroy(() => {
      this.refusals.forget(this.entry);
      if (this.fading !== null) clearTimeout(this.fading);
    });
  }

  protected take(text: string): void {
    const read = readNumber(text, this.sheet());
    if (!read.isUnderstood || (read.value === null && this.required())) {
      if (this.fading !== null) clearTimeout(this.fading);
      this.typed.set(text);
      this.refusal.set(read.isUnderstood ? `${capital(this.accepted())} is needed here.` : capital(read.why));
      this.refusals.note(this.entry);
      return;
    }
    this.accept();
    // The same value in other words: the field shows it as it keeps it.
    if (read.value === this.value()) this.field().nativeElement.value = this.shown();
    else this.valueChange.emit(read.value);
  }

  protected turn(event: Event, way: 1 | -1): void {
    const read = readNumber(this.field().nativeElement.value, this.sheet());
    if (this.step() === 0 || !read.isUnderstood || read.value === null) return;
    event.preventDefault();
    const next = readNumber(String(read.value + way * this.step()), this.sheet());
    if (next.isUnderstood) this.valueChange.emit(next.value);
  }

  private accept(): void {
    this.typed.set(null);
    this.refusals.forget(this.entry);
    // What stands below moves up when the words go: not while the press that left the field is still on its way.
    if (this.fading !== null) clearTimeout(this.fading);
    this.fading = setTimeout(() => this.refusal.set(''), FADE_MS);
  }
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
