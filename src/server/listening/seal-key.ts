import { createCipheriv, createHash, createHmac, hkdfSync } from 'node:crypto';
import { openingCodeFrom, SEAL_INFO } from '#core/rules/listening/opening-code';
import { blindKeySchema, type BlindKey } from '#contracts/blind-pack';

const drawn = (secret: string, what: string): Buffer => createHmac('sha256', secret).update(what).digest();

/** 256 bits that make the few keys that are possible too many to try. */
export const nonceOf = (secret: string): string => drawn(secret, 'blind key: nonce').toString('hex');

/** What opens the key on the day: 128 bits as signs that can be read out. */
export const openingCodeOf = (secret: string): string =>
  openingCodeFrom(drawn(secret, 'blind key: opening code').subarray(0, 16));

/** A key as the text that is hashed and sealed, byte by byte. */
export const keyText = (key: BlindKey): string => `${JSON.stringify(blindKeySchema.parse(key), null, 2)}\n`;

/** What answers name a pack by: the first signs of its key's hash. */
export const tagOf = (keySha256: string): string => keySha256.slice(0, 6).toUpperCase();

export const sha256Of = (bytes: string | Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/**
 * A key that nobody reads without the opening code: AES-256-GCM under a key derived from the code (HKDF-SHA-256, RFC
 * 5869); 12 bytes of nonce, the ciphertext, 16 bytes of tag.
 *
 * @param text - of the key
 * @param secret - of the test: the code and the nonce come from it, so that the same seal has the same bytes
 */
export function sealedKey(text: string, secret: string): Buffer {
  const code = openingCodeOf(secret);
  const key = Buffer.from(hkdfSync('sha256', Buffer.from(code.replaceAll('-', ''), 'ascii'), Buffer.alloc(0), SEAL_INFO, 32)); // prettier-ignore
  const iv = drawn(secret, 'blind key: seal').subarray(0, 12);
  const cipher = createCipheriv('aes-256-gcm', key, iv);
  return Buffer.concat([iv, cipher.update(text, 'utf8'), cipher.final(), cipher.getAuthTag()]);
}
