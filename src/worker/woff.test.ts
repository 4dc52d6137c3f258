import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { describe, expect, it } from 'vitest';
import { sfntOf } from './woff';

const fontFile = (name: string): Uint8Array =>
  readFileSync(createRequire(import.meta.url).resolve(`@fontsource/archivo/files/${name}.woff`));

/** Sum of 32-bit words, as OpenType counts checksums: what is missing to a whole word is zero. */
function checksum(bytes: Uint8Array): number {
  let sum = 0;
  for (let i = 0; i < bytes.length; i += 4)
    sum = (sum + (((bytes[i] << 24) | ((bytes[i + 1] ?? 0) << 16) | ((bytes[i + 2] ?? 0) << 8) | (bytes[i + 3] ?? 0)) >>> 0)) >>> 0; // prettier-ignore
  return sum;
}

describe('a font that was packed for browsers', () => {
  // OpenType 1.9, "Calculating checksums": every table sums to what the directory says, the table "head" without its
  // adjustment. (The sum of the whole is that of the file before it was packed, which these do not say rightly.)
  it.each(['archivo-latin-400-normal', 'archivo-latin-700-normal', 'archivo-latin-ext-400-normal'])(
    '%s: the sums of OpenType hold',
    (name) => {
      const font = sfntOf(fontFile(name));
      const view = new DataView(font.buffer);
      const tables = view.getUint16(4);
      const tags: string[] = [];
      for (let i = 0; i < tables; i++) {
        const at = 12 + 16 * i;
        const tag = String.fromCharCode(...font.subarray(at, at + 4));
        tags.push(tag);
        const [sum, offset, length] = [4, 8, 12].map((field) => view.getUint32(at + field));
        const bytes = font.slice(offset, offset + length);
        if (tag === 'head') bytes.fill(0, 8, 12);
        expect([tag, checksum(bytes)]).toEqual([tag, sum]);
        expect(offset % 4).toBe(0);
      }
      expect(tags).toEqual(expect.arrayContaining(['cmap', 'glyf', 'head', 'hhea', 'hmtx', 'loca', 'maxp', 'name']));
      expect([...tags].sort()).toEqual(tags);
    },
  );

  it('is refused where it is none, or ends too early', () => {
    const woff = fontFile('archivo-latin-400-normal');
    expect(() => sfntOf(new Uint8Array(10))).toThrow(/no font/);
    expect(() => sfntOf(sfntOf(woff))).toThrow(/no font/);
    expect(() => sfntOf(woff.subarray(0, woff.length / 2))).toThrow(/ends within/);
  });
});
