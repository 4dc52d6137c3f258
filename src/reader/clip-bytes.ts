/** Where a clip lies: in the page itself, in a file beside it, or in a script beside it. */
export type ClipSource = { readonly inside: string } | { readonly file: string } | { readonly script: string };

function bytesOf(base64: string): Uint8Array<ArrayBuffer> {
  const text = atob(base64);
  const bytes = new Uint8Array(text.length);
  for (let i = 0; i < text.length; i++) bytes[i] = text.charCodeAt(i);
  return bytes;
}

/** Bytes that stand in the page as text. */
export const bytesInside = (id: string): Uint8Array<ArrayBuffer> =>
  bytesOf(document.getElementById(id)?.textContent ?? '');

/** Bytes of a clip. */
export async function clipBytes(source: ClipSource): Promise<ArrayBuffer> {
  if ('inside' in source) return bytesInside(source.inside).buffer;
  if ('script' in source) return bytesOfScript(source.script);
  const answer = await fetch(source.file);
  if (!answer.ok) throw new Error(`the clip could not be loaded (${answer.status})`);
  return answer.arrayBuffer();
}

/** Who waits for a clip that comes as a script. */
const waiting = new Map<string, (base64: string) => void>();

/**
 * A page that was opened from a disk may not read the files beside it, but may run them: a clip there is a script of one
 * line, which hands its bytes over.
 */
async function bytesOfScript(href: string): Promise<ArrayBuffer> {
  Object.assign(window, { sedimentClip: (of: string, base64: string) => waiting.get(of)?.(base64) });
  const script = document.createElement('script');
  try {
    const base64 = await new Promise<string>((resolve, reject) => {
      waiting.set(href, resolve);
      script.addEventListener('error', () => reject(new Error(`${href} is missing beside this page`)));
      script.addEventListener('load', () => reject(new Error(`${href} is not the clip it should be`)));
      script.src = href;
      document.head.append(script);
    });
    return bytesOf(base64).buffer;
  } finally {
    waiting.delete(href);
    script.remove();
  }
}
