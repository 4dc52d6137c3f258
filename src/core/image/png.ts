import { joined, lettersAt, viewOf } from './byte-pieces';
import { ImageFileError } from './image-file-error';

/** Ancillary chunks that say how colours are shown, or move the picture (ISO/IEC 15948, 4.8; APNG). */
const KEPT = ['tRNS', 'gAMA', 'cHRM', 'sRGB', 'iCCP', 'cICP', 'sBIT', 'pHYs', 'bKGD', 'acTL', 'fcTL', 'fdAT'];
const SIGNATURE_BYTES = 8;
/** Length, type and checksum of a chunk. */
const AROUND = 12;

/** @throws ImageFileError */
export function plainPng(bytes: Uint8Array) {
  const view = viewOf(bytes);
  const pieces = [bytes.subarray(0, SIGNATURE_BYTES)];
  let size: { widthPx: number; heightPx: number } | null = null;
  for (let at = SIGNATURE_BYTES; ;) {
    if (at + AROUND > bytes.length) throw new ImageFileError('This PNG is not whole: it ends before its picture does.');
    const type = lettersAt(bytes, at + 4, 4);
    const end = at + AROUND + view.getUint32(at);
    if (end > bytes.length) throw new ImageFileError('This PNG is not whole: it ends before its picture does.');
    if (type === 'IHDR') size = { widthPx: view.getUint32(at + 8), heightPx: view.getUint32(at + 12) };
    // A capital first letter: nothing can be shown without it.
    if (/^[A-Z]/.test(type) || KEPT.includes(type)) pieces.push(bytes.subarray(at, end));
    if (type === 'IEND') break;
    at = end;
  }
  if (!size || size.widthPx === 0 || size.heightPx === 0)
    throw new ImageFileError('This PNG says nothing of its size; it cannot be shown.');
  return { bytes: joined(pieces), ...size };
}
