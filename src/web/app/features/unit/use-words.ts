import type { Character } from '#contracts/character';

type Use = Character['uses'][number];

const HOW = { met: 'For it', missed: 'Not for it', open: 'Not known' } as const;

/** How many of them, and whether one or many do something. */
const counted = (n: number, one: string, many: string, among: string): string =>
  `${n === 0 ? 'None' : n === 1 ? '1 unit' : `${n} units`} ${among} ${n <= 1 ? one : many}`;

/** How a unit stands for a use, in words that are counted from the figures beside them. */
export function useWords({ how, tested, meeting, unknown, better }: Use): string {
  if (tested === 0) return `${HOW[how]}. No other of its kind is tested.`;
  const among = `of ${tested} other${tested === 1 ? '' : 's'} tested`;
  const words = {
    open: () => counted(meeting, 'meets what is asked', 'meet what is asked', among),
    missed: () => counted(meeting, 'does it', 'do it', among),
    met: () => counted(better ?? 0, 'is better for it', 'are better for it', among),
  };
  return `${HOW[how]}. ${words[how]()}${unknown > 0 ? `; of ${unknown} not all is known` : ''}.`;
}
