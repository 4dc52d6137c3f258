import { seededBits, uniform } from '#core/stats/random';

/** A radio link that is walked away from. */
export interface LinkModel {
  /** Where the first hole comes, and from where on it is of no use, in metres. */
  readonly firstM: number;
  readonly lostM: number;
}

/** Common practice, no source: walking pace with something in the hand. */
export const PACE_MS = 1.25;
const FIRST_HOLE_S = 0.03;
/** Between first and last use: a hole now and then. */
const SELDOM_S = 4;
const SHORT_S = 0.06;
/** Beyond it: more hole than sound. */
const OFTEN_S = 0.5;
const LONG_S = 0.3;

/**
 * Takes pieces out of a take that is made while walking straight away, in place. It begins at the receiver.
 *
 * @param samples - full scale ±1
 * @param sampleRate - in hertz
 * @param link - how far it holds
 * @param seed - the same seed loses the same pieces
 */
export function addLinkHoles(samples: Float64Array, sampleRate: number, link: LinkModel, seed: string): void {
  const bits = seededBits(`${seed}/link`);
  const hole = (atS: number, lengthS: number): void => {
    const from = Math.round(atS * sampleRate);
    samples.fill(0, from, from + Math.round(lengthS * sampleRate));
  };
  const [first, lost, end] = [link.firstM / PACE_MS, link.lostM / PACE_MS, samples.length / sampleRate];
  if (first < end) hole(first, FIRST_HOLE_S);
  for (let at = first + SELDOM_S; at < Math.min(lost, end); at += SELDOM_S * (0.75 + 0.5 * uniform(bits)))
    hole(at, SHORT_S);
  for (let at = lost; at < end; at += OFTEN_S) hole(at, LONG_S);
}
