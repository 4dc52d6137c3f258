/** Pieces of numbers end to end. */
export function joinedFloats(pieces: readonly Float64Array[]): Float64Array<ArrayBuffer> {
  const whole = new Float64Array(pieces.reduce((sum, piece) => sum + piece.length, 0));
  let at = 0;
  for (const piece of pieces) {
    whole.set(piece, at);
    at += piece.length;
  }
  return whole;
}
