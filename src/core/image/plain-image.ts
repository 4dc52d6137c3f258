import { lettersAt } from './byte-pieces';
import { ImageFileError } from './image-file-error';
import { plainJpeg } from './jpeg';
import { plainPng } from './png';
import { plainWebp } from './webp';

/** A picture without what its camera wrote beside it. */
export interface PlainImage {
  readonly format: 'jpeg' | 'png' | 'webp';
  readonly bytes: Uint8Array<ArrayBuffer>;
  /** Size in pixels, as stored: a picture that is shown turned keeps its stored sides. */
  readonly widthPx: number;
  readonly heightPx: number;
}

const startsWith = (bytes: Uint8Array, text: string, at = 0): boolean => lettersAt(bytes, at, text.length) === text;

/**
 * Takes away what says where, when and by whom a picture was taken: Exif with its position, XMP, IPTC, comments, texts,
 * previews and whatever stands behind the end of the picture. The picture itself is not coded anew: its samples stay bit by
 * bit. Kept are the colour profile, and of Exif the orientation, without which it would be shown lying on its side.
 *
 * @param bytes - a whole file: JPEG (ITU-T T.81, JFIF), PNG (ISO/IEC 15948) or WebP (RFC 9649)
 * @throws ImageFileError in words, where it is none of these or not whole
 */
export function plainImage(bytes: Uint8Array): PlainImage {
  if (bytes[0] === 0xff && bytes[1] === 0xd8) return { format: 'jpeg', ...plainJpeg(bytes) };
  if (startsWith(bytes, '\u0089PNG\r\n\u001a\n')) return { format: 'png', ...plainPng(bytes) };
  if (startsWith(bytes, 'RIFF') && startsWith(bytes, 'WEBP', 8)) return { format: 'webp', ...plainWebp(bytes) };
  if (startsWith(bytes, 'ftyp', 4))
    throw new ImageFileError(
      'This is a HEIC or AVIF file (or a film), which not every browser shows; export it as JPEG.',
    );
  throw new ImageFileError('This is no picture that is known here: JPEG, PNG and WebP are taken.');
}
