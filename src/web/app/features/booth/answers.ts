import type { Slot, SlotTake } from '#contracts/session-plan';

/** A take as the server has just answered it. */
export interface Answer {
  readonly slot: string;
  readonly take: SlotTake;
}

/**
 * A turn with what the server has answered since the turn was fetched: a verdict that is a moment old must not stand
 * beside a take that has been replaced.
 */
export function withAnswers(slot: Slot, answers: readonly Answer[]): Slot {
  return answers.reduce((current, { slot: id, take }) => {
    if (id !== slot.id) return current;
    const known = current.takes.find((t) => t.id === take.id);
    // What was fetched later knows more than an open answer.
    if (known && known.state !== 'open') return current;
    const others = current.takes
      .filter((t) => t.id !== take.id)
      .map((t) =>
        t.step === take.step && t.state === 'open' && t.attempt < take.attempt
          ? { ...t, state: 'retaken' as const }
          : t,
      );
    return { ...current, takes: [...others, take].sort((a, b) => Number(a.id) - Number(b.id)) };
  }, slot);
}
