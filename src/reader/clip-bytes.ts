/** Where a clip lies: in the page itself, or in a file beside it. */
export type ClipSource = { readonly inside: string } | { readonly file: string };

/** Bytes that stand in the page as text. */
export function bytesInside(id: string): Uint8Array<ArrayBuffer> {
  const text = atob(document.getElementById(id)?.textContent ?? '');
  const bytes = new Uint8Array(text.length);
  for (let i = 0; i < text.length; i++) bytes[i] = text.charCodeAt(i);
  return bytes;
}

/** Bytes of a clip. */
export async function clipBytes(source: ClipSource): Promise<ArrayBuffer> {
  if ('inside' in source) return bytesInside(source.inside).buffer;
  const answer = await fetch(source.file);
  if (!answer.ok) throw new Error(`the clip could not be loaded (${answer.status})`);
  return answer.arrayBuffer();
}
