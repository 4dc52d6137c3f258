import type { Design, NewTestDraft } from '#contracts/listening';
import { packOf } from './pack-draft';

/** A draft with another design: what belongs to that alone comes with it, and goes with it. */
export function withDesign(draft: NewTestDraft, design: Design, today: string): NewTestDraft {
  const isPack = design === 'pack';
  const isPanel = design === 'panel';
  return {
    ...draft,
    design,
    pack: isPack ? packOf(draft, today) : null,
    panel: isPanel ? (draft.panel ?? { source: 'performed', goOn: 1 }) : null,
    // What is sent out or held in a room is blind.
    sighted: isPack || isPanel ? false : draft.sighted,
  };
}

/** Whether units are chosen by themselves, and need no clip. */
export const isPerformed = (draft: Pick<NewTestDraft, 'panel'>): boolean => draft.panel?.source === 'performed';

/**
 * A draft as it is sent, whatever was chosen before: where names are guessed, there is no copy without highs; what is
 * performed in the room has units and no clips, everything else clips and no units.
 */
export function asSent(draft: NewTestDraft): NewTestDraft {
  const chosen = isPerformed(draft) ? { ...draft, takes: [], yardstick: null } : { ...draft, units: [] };
  return chosen.pack?.asks.includes('names') ? { ...chosen, controls: false } : chosen;
}
