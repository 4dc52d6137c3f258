import type { Problem } from '#contracts/problem';

/** A thing that was asked for: still on its way, there, or refused. */
export type Loaded<T> =
  { readonly value: T; readonly problem: null } | { readonly value: null; readonly problem: Problem | null };

export const LOADING: Loaded<never> = { value: null, problem: null };
