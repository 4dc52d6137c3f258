import { lettersOf, type PackEars, type Understood } from './pack-ears';

/**
 * A guess gives every clip a name of its own, since only then it can be held against chance: where one name is left for
 * one clip, it is that; anything else that is missing or twice is said.
 */
export function wholeNames(read: Understood, pack: PackEars): Understood {
  const given = Object.entries(read.names);
  if (given.length === 0 || read.problem !== null) return read;
  const twice = given.find(([, unit], i) => given.findIndex(([, other]) => other === unit) < i);
  if (twice) {
    const name = pack.units.find((u) => u.specimenId === twice[1])?.name ?? '';
    return { ...read, problem: `${name} is guessed for two clips.` };
  }
  const open = lettersOf(pack).filter((l) => !(l in read.names));
  const left = pack.units.filter((u) => !given.some(([, unit]) => unit === u.specimenId));
  if (open.length === 0) return read;
  if (open.length === 1 && left.length === 1)
    return { ...read, names: { ...read.names, [open[0]]: left[0].specimenId } };
  return { ...read, problem: `A guess needs a name for every clip: ${open.join(', ')} ${open.length === 1 ? 'has' : 'have'} none.` }; // prettier-ignore
}
