/** A text that was understood, or empty (null), or refused with words that say what would be taken. */
export type Reading<T> =
  { readonly isUnderstood: true; readonly value: T | null } | { readonly isUnderstood: false; readonly why: string };
