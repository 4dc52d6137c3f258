import { CROCKFORD } from './crockford';

/** What the key of a seal is derived for (HKDF's info). */
export const SEAL_INFO = 'sediment-blind-key/1';

const BYTES = 16;
const SIGNS = 26;

/**
 * An opening code for 128 bits: 26 signs in groups.
 *
 * @param bytes - 16 of them
 * @throws RangeError for another number of bytes
 */
export function openingCodeFrom(bytes: Uint8Array): string {
  if (bytes.length !== BYTES) throw new RangeError(`an opening code has ${BYTES} bytes, not ${bytes.length}`);
  let value = bytes.reduce((sum, b) => (sum << 8n) | BigInt(b), 0n);
  let signs = '';
  for (let i = 0; i < SIGNS; i++) {
    signs = CROCKFORD[Number(value & 31n)] + signs;
    value >>= 5n;
  }
  return signs.match(/.{1,5}/g)?.join('-') ?? signs;
}

/**
 * A code as somebody typed it, in the one form in which it opens: I and L are 1, O is 0, spaces and strokes nothing.
 *
 * @returns without strokes; null for what is no opening code
 */
export function readOpeningCode(typed: string): string | null {
  const plain = typed.toUpperCase().replaceAll(/[\s-]/g, '').replaceAll(/[IL]/g, '1').replaceAll('O', '0');
  return plain.length === SIGNS && Array.from(plain).every((c) => CROCKFORD.includes(c)) ? plain : null;
}
