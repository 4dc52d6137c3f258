/** A source of 32-bit random integers; passed in wherever chance is needed, so that results can be repeated. */
export type RandomBits = () => number;

/**
 * xoshiro128** (Blackman & Vigna 2018), seeded from a text through a 32-bit FNV-1a hash and splitmix32.
 * The same seed gives the same numbers on every machine.
 */
export class SeededWords {
  private readonly state = new Uint32Array(4);

  /** @param seed - any text */
  constructor(seed: string) {
    let hash = 0x811c9dc5;
    for (let i = 0; i < seed.length; i++) hash = Math.imul(hash ^ seed.charCodeAt(i), 0x01000193);
    for (let i = 0; i < 4; i++) {
      hash = (hash + 0x9e3779b9) | 0;
      let t = Math.imul(hash ^ (hash >>> 16), 0x21f0aaad);
      t = Math.imul(t ^ (t >>> 15), 0x735a2d97);
      this.state[i] = t ^ (t >>> 15);
    }
  }

  /** Fills an array with 32-bit words, in one tight loop. */
  fill(out: Uint32Array): void {
    let a = this.state[0] | 0;
    let b = this.state[1] | 0;
    let c = this.state[2] | 0;
    let d = this.state[3] | 0;
    for (let i = 0; i < out.length; i++) {
      const product = Math.imul(b, 5);
      out[i] = Math.imul((product << 7) | (product >>> 25), 9);
      const shifted = b << 9;
      c ^= a;
      d ^= b;
      b ^= c;
      a ^= d;
      c ^= shifted;
      d = (d << 11) | (d >>> 21);
    }
    this.state[0] = a;
    this.state[1] = b;
    this.state[2] = c;
    this.state[3] = d;
  }
}

/**
 * The words of {@link SeededWords} one by one.
 *
 * @param seed - any text
 * @returns a function that gives unsigned 32-bit integers
 */
export function seededBits(seed: string): RandomBits {
  const words = new SeededWords(seed);
  const buffer = new Uint32Array(256);
  let next = buffer.length;
  return () => {
    if (next === buffer.length) {
      words.fill(buffer);
      next = 0;
    }
    return buffer[next++];
  };
}

/** Uniform number in [0, 1) from 32 random bits. */
export const uniform = (bits: RandomBits): number => bits() / 2 ** 32;
