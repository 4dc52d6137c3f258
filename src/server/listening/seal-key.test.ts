import { createHash, randomBytes } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { openKey } from '../../reader/open-key';
import { keyText, openingCodeOf, sealedKey, sha256Of } from './seal-key';

describe('the sealed key', () => {
  const text = keyText({ format: 'sediment-blind-key/1', title: 'Four', question: 'Which?', sealedOn: '2026-01-01', revealOn: '2026-01-08', nonce: 'ab', clips: [{ letter: 'A', name: 'Alder', unit: 'Thole Quiet', part: '', sha256: 'x' }] }); // prettier-ignore
  const secret = randomBytes(16).toString('hex');
  const sealed = new Uint8Array(sealedKey(text, secret));
  const code = openingCodeOf(secret);

  // Sealed by the cryptography of Node (OpenSSL), opened by another implementation.
  it('opens with its code, however that was typed, and says which clip was what', () => {
    expect(openKey(sealed, code, sha256Of(text))).toMatchObject({ kind: 'open', clips: [{ letter: 'A', name: 'Alder', unit: 'Thole Quiet' }] }); // prettier-ignore
    expect(openKey(sealed, code.toLowerCase().replaceAll('-', ' '), sha256Of(text)).kind).toBe('open');
  });

  it('stays shut with another code, a changed byte, or another hash than was made known', () => {
    const other = openingCodeOf('another secret');
    expect(openKey(sealed, other, sha256Of(text))).toMatchObject({ kind: 'shut', words: expect.stringContaining('does not open') as string }); // prettier-ignore
    expect(openKey(sealed, 'AB', sha256Of(text))).toMatchObject({ kind: 'shut', words: expect.stringContaining('26') as string }); // prettier-ignore
    for (const at of [0, 13, sealed.length - 1]) {
      const changed = Uint8Array.from(sealed, (b, i) => (i === at ? b ^ 1 : b));
      expect(openKey(changed, code, sha256Of(text)).kind).toBe('shut');
    }
    const wrong = createHash('sha256').update(`${text} `).digest('hex');
    expect(openKey(sealed, code, wrong)).toMatchObject({ kind: 'shut', words: expect.stringContaining('it was changed') as string }); // prettier-ignore
  });

  it('is the same for the same test, and says nothing in plain', () => {
    expect(Buffer.from(sealedKey(text, secret)).equals(Buffer.from(sealed))).toBe(true);
    expect(Buffer.from(sealed).includes('Thole')).toBe(false);
    expect(code).toMatch(/^([0-9A-HJKMNP-TV-Z]{5}-){5}[0-9A-HJKMNP-TV-Z]$/);
  });
});
