import type { DecideTake, SlotTake } from '#contracts/session-plan';

/** Reasons that are being typed, by check. */
export type Reasons = Readonly<Partial<Record<string, string>>>;

/** What "keep" means for a take: on to the next step, reasons first, or a decision that is sent. */
export type KeepMove = 'go-on' | 'ask-reasons' | 'keep';

export function keepMove(take: Pick<SlotTake, 'state' | 'findings'>): KeepMove {
  if (take.state === 'kept') return 'go-on';
  return take.findings.some((f) => f.weight === 'redo') ? 'ask-reasons' : 'keep';
}

/** Whether each finding that says "redo" has a reason; those that ask for a look need none. */
export const isOverruled = (take: Pick<SlotTake, 'findings'>, reasons: Reasons): boolean =>
  take.findings.filter((f) => f.weight === 'redo').every((f) => reasonOf(reasons, f.check) !== '');

/** The decision to keep a take, with the reasons against its findings and what was typed while it was looked at. */
export const keeping = (take: Pick<SlotTake, 'findings' | 'note'>, reasons: Reasons, typed: string): DecideTake => ({
  state: 'kept',
  overruled: take.findings.flatMap(({ check }) => {
    const reason = reasonOf(reasons, check);
    return reason === '' ? [] : [{ check, reason }];
  }),
  note: joined(take.note, typed.trim()),
});

/** The decision to put a take aside. What is typed by then is about the next one. */
export const retaking = ({ overruled, note }: Pick<SlotTake, 'overruled' | 'note'>): DecideTake => ({
  state: 'retaken',
  overruled,
  note,
});

const reasonOf = (reasons: Reasons, check: string): string => (reasons[check] ?? '').trim();

const joined = (note: string, typed: string): string =>
  typed === '' || typed === note ? note : [note, typed].filter((n) => n !== '').join('; ');
