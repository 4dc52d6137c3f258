/** A page that grows with what happens. */
interface Growing {
  readonly length: number;
}

/**
 * The newer of two answers about one thing. What was asked before something was done may arrive after the answer to the
 * doing, and would take it back for a moment.
 */
export const newer = <T extends Growing>(before: T | null, now: T): T =>
  before === null || now.length >= before.length ? now : before;
