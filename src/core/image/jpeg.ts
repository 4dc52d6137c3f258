import { joined, letterBytes, lettersAt, viewOf } from './byte-pieces';
import { ImageFileError } from './image-file-error';

// Markers of ITU-T T.81, table B.1.
const [SOI, EOI, SOS, APP0, APP1, APP2, APP14, APP15, COM] = [0xd8, 0xd9, 0xda, 0xe0, 0xe1, 0xe2, 0xee, 0xef, 0xfe];
/** Frames: all kinds of coding but the tables that stand between their numbers. */
const isFrame = (marker: number): boolean => marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker);
/** Markers without a length: restarts, and the one for private use. */
const isBare = (marker: number): boolean => (marker >= 0xd0 && marker <= 0xd7) || marker === 0x01;

const EXIF = 'Exif\0\0';
const ICC = 'ICC_PROFILE\0';
/** What an APP14 segment begins with that says how colours were turned into the three channels (ITU-T T.872; from memory). */
const COLOUR_TRANSFORM = [0x41, 0x64, 0x6f, 0x62, 0x65];
const ORIENTATION_TAG = 0x0112;
const NOT_WHOLE = new ImageFileError('This JPEG is not whole: it ends before its picture does.');

/** @throws ImageFileError */
export function plainJpeg(bytes: Uint8Array) {
  const view = viewOf(bytes);
  const pieces: Uint8Array[] = [];
  let size: { widthPx: number; heightPx: number } | null = null;
  let orientation = 1;
  let at = 2;
  for (;;) {
    if (at + 1 >= bytes.length) throw NOT_WHOLE;
    if (bytes[at] !== 0xff) throw new ImageFileError('This JPEG is damaged: something stands between its parts.');
    const marker = bytes[at + 1];
    if (marker === 0xff) {
      // Fill bytes may stand before any marker.
      at++;
      continue;
    }
    if (marker === EOI) break;
    if (isBare(marker)) {
      pieces.push(bytes.subarray(at, at + 2));
      at += 2;
      continue;
    }
    if (at + 4 > bytes.length) throw NOT_WHOLE;
    const end = at + 2 + view.getUint16(at + 2);
    if (end > bytes.length) throw NOT_WHOLE;
    const segment = bytes.subarray(at, end);
    if (isFrame(marker)) size = { heightPx: view.getUint16(at + 5), widthPx: view.getUint16(at + 7) };
    if (marker === APP1) orientation = orientationIn(segment.subarray(4)) ?? orientation;
    if (isKept(marker, segment)) pieces.push(segment);
    at = end;
    if (marker === SOS) {
      const scanEnd = endOfScan(bytes, at);
      pieces.push(bytes.subarray(at, scanEnd));
      at = scanEnd;
    }
  }
  if (!size || size.widthPx === 0 || size.heightPx === 0)
    throw new ImageFileError('This JPEG says nothing of its size; it cannot be shown.');
  const start = new Uint8Array([0xff, SOI]);
  const turned = orientation === 1 ? [] : [exifOf(orientation)];
  return { bytes: joined([start, ...turned, ...pieces, new Uint8Array([0xff, EOI])]), ...size };
}

/** What a picture is decoded by: everything but what applications and people wrote beside it. */
function isKept(marker: number, segment: Uint8Array): boolean {
  if (marker === COM) return false;
  if (marker < APP0 || marker > APP15) return true;
  if (marker === APP0) return lettersAt(segment, 4, 5) === 'JFIF\0';
  if (marker === APP2) return lettersAt(segment, 4, ICC.length) === ICC;
  return marker === APP14 && COLOUR_TRANSFORM.every((byte, i) => segment[4 + i] === byte);
}

/** Where the coded samples of a scan end: at the next marker that is none of theirs. */
function endOfScan(bytes: Uint8Array, from: number): number {
  for (let at = from; at + 1 < bytes.length; at++) {
    if (bytes[at] !== 0xff) continue;
    const next = bytes[at + 1];
    // A stuffed zero, or a restart.
    if (next === 0x00 || (next >= 0xd0 && next <= 0xd7)) at++;
    else if (next !== 0xff) return at;
  }
  throw NOT_WHOLE;
}

/** How a picture is to be turned (Exif 2.3, tag 0x0112); null where the segment does not say. */
function orientationIn(body: Uint8Array): number | null {
  const tiff = EXIF.length;
  if (body.length < tiff + 8 || lettersAt(body, 0, EXIF.length) !== EXIF) return null;
  const view = viewOf(body);
  const isLittle = lettersAt(body, tiff, 2) === 'II';
  const directory = tiff + view.getUint32(tiff + 4, isLittle);
  if (directory + 2 > body.length) return null;
  const count = view.getUint16(directory, isLittle);
  for (let i = 0; i < count; i++) {
    const entry = directory + 2 + 12 * i;
    if (entry + 12 > body.length) return null;
    if (view.getUint16(entry, isLittle) !== ORIENTATION_TAG) continue;
    const value = view.getUint16(entry + 8, isLittle);
    return value >= 1 && value <= 8 ? value : null;
  }
  return null;
}

/** A segment that says how the picture is turned, and nothing else. */
function exifOf(orientation: number): Uint8Array {
  const bytes = new Uint8Array(2 + 2 + EXIF.length + 8 + 2 + 12 + 4);
  const view = viewOf(bytes);
  const tiff = 4 + EXIF.length;
  view.setUint16(0, 0xff00 | APP1);
  view.setUint16(2, bytes.length - 2);
  bytes.set(letterBytes(EXIF), 4);
  view.setUint32(tiff, 0x4d4d002a);
  view.setUint32(tiff + 4, 8);
  view.setUint16(tiff + 8, 1);
  view.setUint16(tiff + 10, ORIENTATION_TAG);
  // One short number.
  view.setUint16(tiff + 12, 3);
  view.setUint32(tiff + 14, 1);
  view.setUint16(tiff + 18, orientation);
  return bytes;
}
