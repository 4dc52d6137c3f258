import type { HeardWord } from '#core/rules/listening/vocabulary';
import type { NewTestDraft } from '#contracts/listening';

/**
 * Three years of listening at Tidewrack: the two residents, and whoever came by. What they prefer follows the points
 * for sound, but for one: the Commodore, the dearest of all, measures better than any other, and pleases nobody who does
 * not see its name.
 */
export interface DemoTest {
  readonly day: string;
  readonly test: Omit<NewTestDraft, 'takes' | 'yardstick'>;
  /** Units, as "model" or "model/label". */
  readonly units: readonly string[];
  readonly yardstick?: string;
  readonly listeners: readonly string[];
}

/** A listener's ears: how much chance is in their answers (1 is usual), and what they have a weakness for. */
export const DEMO_LISTENERS: Readonly<
  Record<string, { readonly chance: number; readonly likes: Readonly<Record<string, number>> }>
> = {
  'Ines, the voice': { chance: 0.8, likes: { 'Ribbon One': 0.6, 'Ribbon Two': 0.6 } },
  'Bram, the desk': { chance: 0.9, likes: { 'TH-9 Broadcast': 0.5, 'Near Reach': -0.4 } },
  'Wietske, ferry announcer': { chance: 1.3, likes: { 'TH-7': 0.7 } },
  'Tjalling, harbour choir': { chance: 1.2, likes: { 'Ribbon Two': 0.8 } },
  'Noor, who walks the dyke': { chance: 1.6, likes: {} },
};

/** Worth by ear where it is not what the points for sound say; log odds against a middling unit. */
export const DEMO_EARS: Readonly<Record<string, number>> = {
  Sedge: 1.1,
  Commodore: -1.4,
  Bosun: -0.6,
  'Italic S': -0.4,
};

/** What is said of a unit, more often than not. */
export const DEMO_WORDS: Readonly<Record<string, readonly HeardWord[]>> = {
  Italic: ['natural'],
  Pilot: ['noisy', 'harsh'],
  Nib: ['harsh', 'noisy'],
  Reed: ['boxy'],
  'Near Reach': ['sibilant', 'bright'],
  'Ribbon One': ['full', 'dull'],
  'Ribbon Two': ['full', 'natural'],
  'TH-9 Broadcast': ['natural', 'full'],
  Tidemark: ['natural'],
  'Warden Omni': ['roomy', 'natural'],
  Commodore: ['sibilant', 'bright'],
  Lantern: ['harsh', 'bright'],
  Skipper: ['roomy'],
  'Broad Nib': ['bright'],
  Sedge: ['natural'],
};

const PASSAGE = { fromS: 1, lengthS: 9 };

export const DEMO_TESTS: readonly DemoTest[] = [
  {
    day: '2023-03-18',
    test: {
      name: 'Eight for the announcer',
      design: 'heats',
      seeding: 'random',
      passage: PASSAGE,
      voice: 'low',
      use: 'announcements',
    },
    units: [
      'TH-7/serial 0412',
      'Reed',
      'Nib',
      'Broad Nib',
      'Ribbon One',
      'Near Reach',
      'Reed II',
      'Lantern/B, later batch',
    ],
    listeners: ['Ines, the voice', 'Bram, the desk', 'Wietske, ferry announcer'],
  },
  {
    day: '2023-10-14',
    test: { name: 'Five above 250', design: 'pairs', passage: PASSAGE, voice: 'low', use: 'narration' },
    units: ['Warden Omni', 'Ribbon Two', 'Italic', 'TH-9 Broadcast', 'Bulrush'],
    listeners: ['Ines, the voice', 'Bram, the desk'],
  },
  {
    day: '2024-02-10',
    test: { name: 'Lantern A against B', design: 'abx', trials: 16, passage: PASSAGE },
    units: ['Lantern/A', 'Lantern/B, later batch'],
    listeners: ['Ines, the voice', 'Noor, who walks the dyke'],
  },
  {
    day: '2024-06-15',
    test: { name: 'Is the dear one better?', design: 'heats', passage: PASSAGE, voice: 'low', use: 'narration' },
    units: ['Commodore', 'Beacon', 'Italic', 'Reed II', 'Broad Nib', 'Skipper', 'Long Reach/A'],
    yardstick: 'Warden 2',
    listeners: ['Ines, the voice', 'Bram, the desk', 'Tjalling, harbour choir'],
  },
  {
    day: '2024-10-12',
    test: { name: 'Against the Tidemark', design: 'ratings', passage: PASSAGE, voice: 'low', use: 'radio play' },
    units: ['Tidemark', 'Italic', 'Commodore', 'TH-9 Broadcast', 'Nib'],
    listeners: ['Ines, the voice', 'Bram, the desk', 'Tjalling, harbour choir', 'Noor, who walks the dyke'],
  },
  {
    day: '2025-06-07',
    test: { name: 'Sung through four', design: 'performer', voice: 'high', use: 'singing' },
    units: ['Ribbon Two', 'Tidemark', 'TH-11', 'TH-9 Broadcast'],
    listeners: ['Tjalling, harbour choir', 'Ines, the voice'],
  },
  {
    day: '2025-09-20',
    test: { name: 'The cheap sibling', design: 'heats', heatSize: 3, passage: PASSAGE, voice: 'low', use: 'narration' },
    units: ['Sedge', 'Tidemark', 'TH-11', 'Commodore', 'Bulrush', 'Italic'],
    yardstick: 'Warden 2',
    listeners: ['Ines, the voice', 'Bram, the desk'],
  },
  {
    day: '2025-11-08',
    test: { name: 'Who is who?', design: 'names', passage: PASSAGE },
    units: ['Warden 2', 'TH-9 Broadcast', 'Ribbon One', 'Pilot'],
    listeners: ['Ines, the voice', 'Bram, the desk', 'Wietske, ferry announcer'],
  },
];

/** A test that is still open. */
export const DEMO_OPEN_TEST: DemoTest = {
  day: '',
  test: { name: 'Four of this winter', design: 'heats', passage: PASSAGE, voice: 'low', use: 'narration' },
  units: ['Sedge', 'Beacon', 'Broad Nib', 'Skipper'],
  listeners: [],
};

/** Answers of a panel at the ferry fair, run on paper; brought in as CSV. */
export const DEMO_FAIR = {
  day: '2023-08-05',
  listener: 'visitors of the ferry fair',
  /** Better, worse, how often, and how often the other way round. */
  pairs: [
    ['Skipper', 'Pilot', 11, 2],
    ['Nib', 'Pilot', 9, 4],
    ['Reed', 'Nib', 8, 5],
    ['Reed II', 'Reed', 9, 4],
    ['Lantern/A', 'Nib', 6, 7],
    ['Skipper', 'Lantern/A', 7, 6],
    ['Reed II', 'Skipper', 10, 3],
  ],
} as const satisfies { day: string; listener: string; pairs: readonly (readonly [string, string, number, number])[] };

/** A comparison that was kept. */
export const DEMO_COMPARE = {
  name: 'The cheap sibling against the dear one',
  units: ['Sedge', 'Commodore', 'Reed II', 'Warden 2'],
} as const;
