/**
 * The text of a file whose encoding nobody says: as its mark says, else UTF-8, else what older spreadsheets write. (An
 * encoding is not guessed from words: a byte that UTF-8 cannot have decides.)
 */
export function decodedText(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    // Not UTF-8: no byte is refused by this one.
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
