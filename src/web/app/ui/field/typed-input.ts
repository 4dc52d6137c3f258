import { Directive, input } from '@angular/core';

/** What a field tells its input. */
interface Told {
  readonly id: () => string;
  readonly shown: () => string;
  readonly disabled: () => boolean;
  readonly spoken: () => string | null;
  readonly refusal: () => string;
  readonly noteId: string;
}

/** What an input of a typed field tells: what it holds, its name, and that it was refused, and why. */
@Directive({
  selector: 'input[sdTypedInput], textarea[sdTypedInput]',
  host: {
    autocomplete: 'off',
    '[id]': 'of().id()',
    '[value]': 'of().shown()',
    '[disabled]': 'of().disabled()',
    '[attr.aria-label]': 'of().spoken()',
    '[attr.aria-invalid]': "of().refusal() ? 'true' : null",
    '[attr.aria-describedby]': 'of().refusal() ? of().noteId : null',
  },
})
export class TypedInput {
  readonly of = input.required<Told>({ alias: 'sdTypedInput' });
}
