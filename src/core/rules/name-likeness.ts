/** What tells a unit from all others. */
export interface UnitNames {
  readonly maker: string;
  readonly model: string;
  readonly label: string;
}

/** Of names this long, one letter in so many may differ; shorter ones have to be equal but for case and signs. */
const LETTERS_PER_SLIP = 6;

/** A name as it sounds: lower case, without marks, spaces and signs. */
export const bareName = (name: string): string =>
  name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, '');

/**
 * Letters to insert, leave out, change or exchange with their neighbour to get from one word to the other (optimal
 * string alignment: Damerau 1964 with each pair exchanged once).
 *
 * @example
 *   editDistance('kitten', 'sitting'); // => 3
 */
export function editDistance(a: string, b: string): number {
  let [before, last]: number[][] = [[], Array.from({ length: b.length + 1 }, (_, j) => j)];
  for (let i = 1; i <= a.length; i++) {
    const row = [i];
    for (let j = 1; j <= b.length; j++) {
      const change = last[j - 1] + (a[i - 1] === b[j - 1] ? 0 : 1);
      row[j] = Math.min(last[j] + 1, row[j - 1] + 1, change);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        row[j] = Math.min(row[j], before[j - 2] + 1);
    }
    [before, last] = [last, row];
  }
  return last[b.length];
}

const isAlike = (a: string, b: string): boolean => {
  const [x, y] = [bareName(a), bareName(b)];
  if (x === y) return true;
  const slips = Math.floor(Math.min(x.length, y.length) / LETTERS_PER_SLIP);
  // Figures tell models apart: "C 40" is no slip of "C 41".
  return x.replace(/\D/gu, '') === y.replace(/\D/gu, '') && editDistance(x, y) <= slips;
};

/**
 * Known units that a typed name may mean though it is written otherwise: other case, signs or spaces, maker and model
 * run together, a letter wrong. A name that is known as it is means that unit, and nothing is asked.
 *
 * @param typed - as typed; parts that are still empty match none
 * @param known - units of the archive
 */
export function alikeUnits<T extends UnitNames>(typed: UnitNames, known: readonly T[]): T[] {
  const [maker, model, label] = [typed.maker, typed.model, typed.label].map((t) => t.trim());
  if (maker === '' || model === '') return [];
  const isSame = (u: UnitNames): boolean => u.maker === maker && u.model === model;
  if (known.some((u) => isSame(u) && (label === '' || u.label === label))) return [];
  return known.filter(
    (u) =>
      (isSame(u) || isAlike(`${u.maker} ${u.model}`, `${maker} ${model}`)) &&
      (label === '' || bareName(u.label) === bareName(label)),
  );
}
