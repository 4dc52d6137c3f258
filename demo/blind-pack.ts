import type { NewTestDraft } from '#contracts/listening';

/** A pack that went out to the desk's audience and whose answers are coming back. */
export const DEMO_PACK = {
  day: '2025-12-06',
  test: {
    name: 'Four for the winter desk',
    design: 'pack',
    passage: { fromS: 1.6, lengthS: 6 },
    voice: 'low',
    use: 'narration',
    pack: {
      title: 'Four microphones for a winter desk',
      note: 'One voice, one room, one evening. Headphones, if you have some.',
      asks: ['order', 'points'],
      revealOn: '2025-12-20',
    },
  } satisfies Omit<NewTestDraft, 'takes'>,
  units: ['Tidemark', 'Reed II', 'Skipper', 'Nib'],
} as const;

interface Listener {
  readonly name: string;
  /** Whether what they say has to do with what they heard. */
  readonly listens: boolean;
  readonly writes: (order: readonly string[]) => string;
}

const arrows = (order: readonly string[]): string => order.join(' > ');
const numbered = (order: readonly string[]): string => order.map((letter, i) => `${i + 1}. ${letter}`).join(' ');
const points = (order: readonly string[]): string => order.map((letter, i) => `${letter} ${9 - 1.5 * i}`).join(', ');
const listener = (name: string, writes: Listener['writes'], listens = true): Listener => ({ name, listens, writes });

export const DEMO_AUDIENCE: readonly Listener[] = [
  listener('saltmarsh_fm', arrows),
  listener('Jorrit from the lock', numbered),
  listener('the night ferry', points),
  listener('Ada K', arrows),
  listener('reedcutter', (order) => order.join('')),
  listener('Pieke', arrows),
  listener('two ears one mind', numbered),
  listener('first!', arrows, false),
  listener('Oda', points),
  listener('low tide radio', arrows),
  listener('phone speaker', arrows, false),
  listener('Hidde', (order) => order.join(', ')),
];
