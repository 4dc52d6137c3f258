import type { HeardWord } from '#core/rules/listening/vocabulary';
import type { NewTestDraft } from '#contracts/listening';

/** A panel that is being held: a heat is closed, and a fifth is being put into its table. */
export const DEMO_PANEL = {
  test: {
    name: 'Sung in the boathouse',
    design: 'panel',
    // Not preference, which the ranking counts: an evening that is not over moves no place.
    attribute: 'natural',
    voice: 'high',
    use: 'singing',
    takes: [],
    panel: { source: 'performed' },
  } satisfies NewTestDraft,
  units: ['Ribbon Two', 'Tidemark', 'TH-11', 'Sedge', 'Bulrush'],
  listeners: ['Tjalling, harbour choir', 'Ines, the voice', 'Bram, the desk'],
} as const;

interface Said {
  /** Place of the unit in {@link DEMO_PANEL}. */
  readonly unit: number;
  /** Place of the listener; null for nobody in particular. */
  readonly by: number | null;
  readonly words: readonly HeardWord[];
  readonly free: string;
}

export const DEMO_PANEL_WORDS: readonly Said[] = [
  { unit: 0, by: 0, words: ['full'], free: 'like a warm coat' },
  { unit: 1, by: 1, words: ['natural'], free: '' },
  { unit: 2, by: 2, words: ['boxy'], free: 'a biscuit tin' },
  { unit: 3, by: 0, words: ['sibilant'], free: 'spits on every s' },
  { unit: 1, by: null, words: [], free: 'one hears the room breathe' },
];
