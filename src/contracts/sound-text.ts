// A database keeps no NUL, and UTF-8 has no half of a surrogate pair.
const NUL = '\u0000';

/** More values than any request of ours holds; checking each would keep everybody else waiting. */
const MOST_VALUES = 20_000;

/**
 * The first thing in a value (of any depth, keys included) that could not be stored and read again as it is.
 *
 * @param value - parsed JSON, or parameters of a request
 * @returns where it is and what is wrong, or null
 */
export function unsoundText(value: unknown): { field: string | null; message: string } | null {
  const waiting: { path: string; value: unknown }[] = [{ path: '', value }];
  let seen = 0;
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    if (++seen > MOST_VALUES) return { field: null, message: `holds more than ${MOST_VALUES} values` };
    const { path, value: at } = next;
    const field = path || null;
    if (typeof at === 'string') {
      const message = problemOf(at);
      if (message) return { field, message };
    } else if (Array.isArray(at)) {
      if (at.length > MOST_VALUES) return { field, message: `holds ${at.length} entries, more than ${MOST_VALUES}` };
      at.forEach((inner: unknown, i) => waiting.push({ path: path ? `${path}.${i}` : String(i), value: inner }));
    } else if (typeof at === 'object' && at !== null && !ArrayBuffer.isView(at)) {
      for (const [key, inner] of Object.entries(at)) {
        if (problemOf(key)) return { field, message: 'holds a name with a character that cannot be kept' };
        waiting.push({ path: path ? `${path}.${key}` : key, value: inner });
      }
    }
  }
  return null;
}

function problemOf(text: string): string | null {
  if (text.includes(NUL)) return 'must not hold the character NUL';
  return isWellFormed(text) ? null : 'holds half of a character (a lone surrogate)';
}

/** String.prototype.isWellFormed of ES2024, where there is one; it is much quicker. */
function isWellFormed(text: string): boolean {
  const { isWellFormed: native } = text as { isWellFormed?: () => boolean };
  return native
    ? native.call(text)
    : !/[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/.test(text);
}
