import type { Character } from '#contracts/character';

type Use = Character['uses'][number];

const HOW = { met: 'For it', missed: 'Not for it', open: 'Not known' } as const;

const units = (n: number): string => `${n} ${n === 1 ? 'unit' : 'units'}`;

/** How a unit stands for a use, in words that are counted from the figures beside them. */
export function useWords({ how, tested, meeting, unknown, better }: Use): string {
  const open = unknown > 0 ? `; of ${unknown} not all is known` : '';
  if (tested === 0) return `${HOW[how]}. No other of its kind is tested.`;
  const among = `of ${tested} other${tested === 1 ? '' : 's'} tested`;
  if (how === 'open') return `${HOW.open}. ${units(meeting)} ${among} ${meeting === 1 ? 'meets' : 'meet'} what is asked${open}.`; // prettier-ignore
  if (how === 'missed') return `${HOW.missed}. ${units(meeting)} ${among} ${meeting === 1 ? 'does' : 'do'} it${open}.`;
  return `${HOW.met}. ${better === 0 ? 'None' : units(better ?? 0)} ${among} ${better === 1 || better === 0 ? 'is' : 'are'} better for it${open}.`; // prettier-ignore
}
