/** Pieces of bytes as one array. */
export function joined(pieces: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(pieces.reduce((sum, piece) => sum + piece.length, 0));
  let at = 0;
  for (const piece of pieces) {
    bytes.set(piece, at);
    at += piece.length;
  }
  return bytes;
}

/** The bytes as numbers of any width: of their own part of a buffer, however large the whole is. */
export const viewOf = (bytes: Uint8Array): DataView => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);

/** Letters at a place, one byte each. */
export const lettersAt = (bytes: Uint8Array, at: number, count: number): string =>
  String.fromCharCode(...bytes.subarray(at, at + count));

/** Letters as bytes, one each. */
export const letterBytes = (text: string): Uint8Array<ArrayBuffer> => Uint8Array.from(text, (c) => c.charCodeAt(0));
