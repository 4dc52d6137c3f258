import type { PackEars, Understood } from './pack-ears';

/** What an answer says, so that two that say the same are told to be alike. */
export function gistOf(u: Pick<Understood, 'order' | 'best' | 'points' | 'names' | 'votes'>): string {
  const sorted = (record: Readonly<Record<string, unknown>>): unknown[] =>
    Object.entries(record).sort(([a], [b]) => (a < b ? -1 : 1));
  return JSON.stringify([u.order, u.best, sorted(u.points), sorted(u.names), u.votes && sorted(u.votes)]);
}

/** What was understood, in words. */
export function answerWords(
  u: Pick<Understood, 'order' | 'best' | 'points' | 'names' | 'votes'>,
  pack: PackEars,
): string {
  const parts: string[] = [];
  if (u.order.length > 0) parts.push(`order ${u.order.join(' > ')}`);
  if (u.best !== null) parts.push(`${u.best} is the best`);
  const list = (record: Readonly<Record<string, number | string>>): string =>
    Object.keys(record)
      .sort()
      .map((letter) => `${letter} ${record[letter]}`)
      .join(', ');
  if (Object.keys(u.points).length > 0) parts.push(`points ${list(u.points)}`);
  if (u.votes !== null) parts.push(`votes ${list(u.votes)}`);
  const named = Object.keys(u.names).sort().map((l) => `${l} = ${pack.units.find((x) => x.specimenId === u.names[l])?.name ?? '?'}`); // prettier-ignore
  if (named.length > 0) parts.push(`guess ${named.join(', ')}`);
  return parts.join('; ');
}
