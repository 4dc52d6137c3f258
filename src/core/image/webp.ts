import { joined, lettersAt, viewOf } from './byte-pieces';
import { ImageFileError } from './image-file-error';

const HEADER_BYTES = 12;
/** Chunks that are the picture, its transparency, its frames and its colours (RFC 9649, 2.7). */
const KEPT = ['VP8 ', 'VP8L', 'VP8X', 'ALPH', 'ANIM', 'ANMF', 'ICCP'];
/** Bits of the extended header that say that Exif and XMP are there. */
const [EXIF_BIT, XMP_BIT] = [0x08, 0x04];
const NOT_WHOLE = new ImageFileError('This WebP file is not whole: it ends before its picture does.');

/** @throws ImageFileError */
export function plainWebp(bytes: Uint8Array) {
  const view = viewOf(bytes);
  const pieces: Uint8Array[] = [];
  let size: { widthPx: number; heightPx: number } | null = null;
  const end = Math.min(bytes.length, 8 + view.getUint32(4, true));
  if (8 + view.getUint32(4, true) > bytes.length) throw NOT_WHOLE;
  for (let at = HEADER_BYTES; at + 8 <= end;) {
    const type = lettersAt(bytes, at, 4);
    const length = view.getUint32(at + 4, true);
    // Chunks have an even length; a byte of padding is not counted.
    const next = at + 8 + length + (length % 2);
    if (at + 8 + length > end) throw NOT_WHOLE;
    if (KEPT.includes(type)) {
      const chunk = bytes.slice(at, Math.min(next, end));
      if (type === 'VP8X') chunk[8] &= ~(EXIF_BIT | XMP_BIT);
      pieces.push(chunk);
      size ??= sizeIn(type, bytes.subarray(at + 8, at + 8 + length));
    }
    at = next;
  }
  if (!size) throw new ImageFileError('This WebP file says nothing of its size; it cannot be shown.');
  const body = joined(pieces);
  const header = bytes.slice(0, HEADER_BYTES);
  viewOf(header).setUint32(4, 4 + body.length, true);
  return { bytes: joined([header, body]), ...size };
}

/** Size in the headers of the extended, the lossy (RFC 6386, 9.1) and the lossless format. */
function sizeIn(type: string, body: Uint8Array): { widthPx: number; heightPx: number } | null {
  const view = viewOf(body);
  if (type === 'VP8X' && body.length >= 10) {
    const at = (i: number): number => 1 + body[i] + (body[i + 1] << 8) + (body[i + 2] << 16);
    return { widthPx: at(4), heightPx: at(7) };
  }
  if (type === 'VP8 ' && body.length >= 10)
    return { widthPx: view.getUint16(6, true) & 0x3fff, heightPx: view.getUint16(8, true) & 0x3fff };
  if (type === 'VP8L' && body.length >= 5) {
    const bits = view.getUint32(1, true);
    return { widthPx: 1 + (bits & 0x3fff), heightPx: 1 + ((bits >>> 14) & 0x3fff) };
  }
  return null;
}
