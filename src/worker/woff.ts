import { inflateSync } from 'node:zlib';

const SIGNATURE = 0x774f4646;
const HEADER = 44;
const ENTRY = 20;
const SFNT_HEADER = 12;
const SFNT_ENTRY = 16;

/**
 * A font as it ships for browsers, unpacked to the file that everything else reads: TrueType or OpenType.
 *
 * @param woff - a WOFF file, version 1
 * @returns the font, its tables in the order of their tags, each at a multiple of four bytes
 * @throws RangeError for a file that is no WOFF, or that ends too early
 * @see W3C, WOFF File Format 1.0 (2012), sections 3 to 5; OpenType 1.9, chapter "OpenType Font File"
 */
export function sfntOf(woff: Uint8Array): Uint8Array {
  const view = new DataView(woff.buffer, woff.byteOffset, woff.byteLength);
  if (woff.length < HEADER || view.getUint32(0) !== SIGNATURE) throw new RangeError('this is no font in the form WOFF');
  const count = view.getUint16(12);
  const tables = Array.from({ length: count }, (_, i) => {
    const at = HEADER + i * ENTRY;
    const [tag, offset, packed, length, checksum] = [0, 4, 8, 12, 16].map((field) => view.getUint32(at + field));
    if (offset + packed > woff.length) throw new RangeError('the font ends within one of its tables');
    const bytes = woff.subarray(offset, offset + packed);
    // A table that would not get shorter stands as it is.
    return { tag, checksum, bytes: packed < length ? inflateSync(bytes) : bytes };
  });
  const size = tables.reduce((sum, t) => sum + padded(t.bytes.length), SFNT_HEADER + SFNT_ENTRY * count);
  const out = new Uint8Array(size);
  const into = new DataView(out.buffer);
  const power = Math.floor(Math.log2(count));
  into.setUint32(0, view.getUint32(4));
  into.setUint16(4, count);
  into.setUint16(6, 2 ** power * 16);
  into.setUint16(8, power);
  into.setUint16(10, count * 16 - 2 ** power * 16);
  let offset = SFNT_HEADER + SFNT_ENTRY * count;
  for (const [i, { tag, checksum, bytes }] of tables.entries()) {
    const at = SFNT_HEADER + i * SFNT_ENTRY;
    [tag, checksum, offset, bytes.length].forEach((value, field) => into.setUint32(at + 4 * field, value));
    out.set(bytes, offset);
    offset += padded(bytes.length);
  }
  return out;
}

const padded = (length: number): number => Math.ceil(length / 4) * 4;
