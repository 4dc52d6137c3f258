/** A source of 32-bit random integers; passed in wherever chance is needed, so that results can be repeated. */
export type RandomBits = () => number;

/**
 * xoshiro128** (Blackman & Vigna 2018), seeded from a text through a 32-bit FNV-1a hash and splitmix32.
 * The same seed gives the same numbers on every machine.
 *
 * @param seed - any text
 * @returns a function that gives unsigned 32-bit integers
 */
export function seededBits(seed: string): RandomBits {
  let hash = 0x811c9dc5;
  for (let i = 0; i < seed.length; i++) hash = Math.imul(hash ^ seed.charCodeAt(i), 0x01000193);
  const next = (): number => {
    hash = (hash + 0x9e3779b9) | 0;
    let t = Math.imul(hash ^ (hash >>> 16), 0x21f0aaad);
    t = Math.imul(t ^ (t >>> 15), 0x735a2d97);
    return (t ^ (t >>> 15)) >>> 0;
  };
  let a = next();
  let b = next();
  let c = next();
  let d = next();
  return () => {
    const product = Math.imul(b, 5);
    const result = Math.imul((product << 7) | (product >>> 25), 9) >>> 0;
    const shifted = b << 9;
    c ^= a;
    d ^= b;
    b ^= c;
    a ^= d;
    c ^= shifted;
    d = (d << 11) | (d >>> 21);
    return result;
  };
}

/** Uniform number in [0, 1) from 32 random bits. */
export const uniform = (bits: RandomBits): number => bits() / 2 ** 32;
