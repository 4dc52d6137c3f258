import type { SlotTake } from '#contracts/session-plan';

/** A word, its colour and its sign: never one of them alone. */
export interface VerdictLook {
  readonly word: string;
  readonly tone: 'kept' | SlotTake['verdict'];
  readonly icon: string;
}

const LOOKS: Readonly<Record<VerdictLook['tone'], VerdictLook>> = {
  kept: { word: 'Kept', tone: 'kept', icon: 'pi pi-check-circle' },
  keep: { word: 'Keep', tone: 'keep', icon: 'pi pi-check' },
  look: { word: 'Have a look', tone: 'look', icon: 'pi pi-question-circle' },
  redo: { word: 'Redo', tone: 'redo', icon: 'pi pi-replay' },
};

/** What a take is shown as: what was decided stands before what was advised. */
export const verdictLook = ({ state, verdict }: Pick<SlotTake, 'state' | 'verdict'>): VerdictLook =>
  LOOKS[state === 'kept' ? 'kept' : verdict];

/** A new verdict, as it is told to those who do not look at the screen. */
export const spokenVerdict = ({ verdict, findings }: Pick<SlotTake, 'verdict' | 'findings'>): string =>
  [`${LOOKS[verdict].word}.`, ...findings.map((f) => f.what)].join(' ');

export const stateWords = { open: 'undecided', kept: 'kept', retaken: 'put aside' } as const;
