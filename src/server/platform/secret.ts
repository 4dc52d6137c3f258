import { createHash, timingSafeEqual } from 'node:crypto';

/** What a token has to be worth, as for any key that somebody could try. */
const LEAST_BITS = 128;

/** SHA-256 in hexadecimal: what is kept in place of a secret. */
export const hashOf = (secret: string): string => createHash('sha256').update(secret).digest('hex');

/** Whether two secrets are the same, in a time that says nothing of where they differ or how long they are. */
export const isSameSecret = (a: string, b: string): boolean =>
  timingSafeEqual(Buffer.from(hashOf(a), 'hex'), Buffer.from(hashOf(b), 'hex'));

/**
 * What is wrong with a token that somebody has set, in words; null where it is strong enough. Its bits are counted as
 * if each letter had been drawn from the kinds of letters that it uses (an upper bound), of which it must use more
 * than a few.
 */
export function tokenProblem(token: string): string | null {
  if (token === '') return 'it is empty';
  if (!/^[A-Za-z0-9_-]*$/.test(token))
    return 'it may hold letters, digits, "-" and "_" only, since it stands in an address';
  const kinds = [/[a-z]/, /[A-Z]/, /[0-9]/, /[_-]/];
  const sizes = [26, 26, 10, 2];
  const alphabet = kinds.reduce((sum, kind, i) => sum + (kind.test(token) ? sizes[i] : 0), 0);
  const distinct = new Set(token).size;
  const bits = token.length * Math.log2(Math.max(2, alphabet));
  if (bits < LEAST_BITS || distinct < 10)
    return `it could be guessed: with these kinds of letters it needs ${Math.ceil(LEAST_BITS / Math.log2(Math.max(2, alphabet)))} of them, at least ten different ones`;
  return null;
}
