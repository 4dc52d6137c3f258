import { gcm } from '@noble/ciphers/aes.js';
import { hkdf } from '@noble/hashes/hkdf.js';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { readOpeningCode, SEAL_INFO } from '#core/rules/listening/opening-code';

/** A key that was opened, or why it stays shut. */
export type OpenedKey =
  | {
      readonly kind: 'open';
      readonly clips: readonly {
        readonly letter: string;
        readonly name: string;
        readonly unit: string;
        readonly part: string;
      }[];
    }
  | { readonly kind: 'shut'; readonly words: string };

/**
 * Opens a sealed key, and holds it against the hash that was made known before. A page that was opened from a disk may
 * have no cryptography of the browser's own: it is brought along.
 *
 * @param sealed - 12 bytes of nonce, ciphertext, 16 bytes of tag
 * @param typed - opening code
 * @param keySha256 - that the text has to have
 */
export function openKey(sealed: Uint8Array, typed: string, keySha256: string): OpenedKey {
  const code = readOpeningCode(typed);
  if (code === null) return { kind: 'shut', words: 'An opening code has 26 letters and digits.' };
  const key = hkdf(sha256, utf8ToBytes(code), new Uint8Array(0), utf8ToBytes(SEAL_INFO), 32);
  let text: Uint8Array;
  try {
    text = gcm(key, sealed.subarray(0, 12)).decrypt(sealed.subarray(12));
  } catch {
    return { kind: 'shut', words: 'This code does not open the key of this pack.' };
  }
  if (bytesToHex(sha256(text)) !== keySha256)
    return { kind: 'shut', words: 'The key has another SHA-256 than the one that was made known: it was changed.' };
  // It has the hash of the text that the same program wrote: its shape is known.
  const { clips } = JSON.parse(new TextDecoder().decode(text)) as Extract<OpenedKey, { kind: 'open' }>;
  return { kind: 'open', clips };
}
