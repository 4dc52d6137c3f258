import type { ElementRef } from '@angular/core';
import {
  DestroyRef,
  Directive,
  booleanAttribute,
  computed,
  effect,
  inject,
  input,
  output,
  viewChild,
} from '@angular/core';
import type { Reading } from '#core/text/reading';
import { Entry } from './entry';
import { LabelledField } from './labelled-field';
import { Refusals } from './refusals';

/**
 * A field into which something is typed that is understood or refused. Each kind says how a text is read, how a value is
 * shown, and what an empty field stands for.
 */
@Directive()
export abstract class TypedField<V> extends LabelledField {
  readonly value = input.required<V>();
  readonly valueChange = output<V>();
  readonly placeholder = input('');
  /** An empty field is refused. */
  readonly required = input(false, { transform: booleanAttribute });

  protected readonly field = viewChild.required<ElementRef<HTMLInputElement | HTMLTextAreaElement>>('field');
  private readonly entry = new Entry<NonNullable<V>>(inject(Refusals), { focus: () => this.focus() }, () => ({
    read: (text) => this.read(text),
    needed: this.required() ? `${this.accepted()} is needed here.` : '',
  }));
  readonly refusal = this.entry.refusal;
  readonly shown = computed(() => this.entry.typed() ?? this.show(this.value()));

  focus(): void {
    const element = this.field().nativeElement;
    // What is folded away cannot take the keys.
    for (let at = element.closest('details'); at; at = at.parentElement?.closest('details') ?? null) at.open = true;
    element.focus();
  }

  isFocused(): boolean {
    return document.activeElement === this.field().nativeElement;
  }

  /** What an empty field stands for. */
  protected abstract readonly nothing: V;
  /** What the field takes, in words. */
  protected abstract readonly accepted: () => string;
  /** Keyboard of a phone. */
  protected readonly keyboard = (): string => 'text';

  constructor() {
    super();
    effect(() => {
      this.value();
      this.entry.accept();
    });
    inject(DestroyRef).onDestroy(() => this.entry.leave());
  }

  protected abstract read(text: string): Reading<NonNullable<V>>;
  protected abstract show(value: V): string;

  /** What the arrow keys turn the value to; undefined where they do not. */
  protected readonly turned: ((way: 1 | -1) => V | undefined) | null = null;

  protected turn(event: Event, way: 1 | -1): void {
    const next = this.turned?.(way);
    if (next === undefined) return;
    event.preventDefault();
    this.valueChange.emit(next);
  }

  protected take(text: string): void {
    const read = this.entry.take(text);
    if (read === undefined) return;
    const value = read ?? this.nothing;
    // The same value in other words: the field shows it as it keeps it.
    if (this.show(value) === this.show(this.value())) this.field().nativeElement.value = this.shown();
    else this.valueChange.emit(value);
  }
}
