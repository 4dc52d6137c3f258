import { readAnswerCode } from '#core/rules/listening/answer-code';
import { lettersOf, NOTHING, refused, type PackEars, type Understood } from './pack-ears';

/** What a code that the pack's own page made says. */
export function understandCode(code: string, pack: PackEars): Understood {
  const read = readAnswerCode(code);
  if (read.kind === 'damaged') return refused(`The code ${code} cannot be read: ${read.why}.`);
  if (read.pack !== pack.tag)
    return refused(`The code belongs to another pack (${read.pack}; this one is ${pack.tag}).`);
  const letters = lettersOf(pack);
  const { order, points, names } = read.answer;
  const foreign = [...order, ...Object.keys(points), ...Object.keys(names)].find((l) => !letters.includes(l));
  if (foreign !== undefined) return refused(`The code names a clip ${foreign}, which this pack has not.`);
  const units = Object.entries(names).map(([letter, n]) => [letter, pack.units.at(n - 1)?.specimenId] as const);
  if (units.some(([, unit]) => unit === undefined)) return refused('The code names a unit that this pack has not.');
  return { ...NOTHING, order, points, names: Object.fromEntries(units.map(([l, u]) => [l, u ?? ''])) };
}
