import { randomUUID } from 'node:crypto';

/** A list as it goes out: JSON in UTF-8, and the tag by which a page knows that it has it already. */
export interface WrittenList {
  readonly body: Buffer;
  /** Weak entity tag, RFC 9110 8.8.3; that of another process differs. */
  readonly tag: string;
}

const [OPEN, COMMA, CLOSE] = ['[', ',', ']'].map((sign) => Buffer.from(sign));

/**
 * JSON of long lists, of which most rows are the very objects of the last time: each is written once, and its bytes kept
 * as long as the row. A list that is the very object of the last time is not put together again.
 */
export class RowTexts {
  private readonly written = new WeakMap<object, Buffer>();
  private last: { readonly rows: readonly object[]; readonly list: WrittenList } | null = null;
  private readonly process = randomUUID();
  private lists = 0;

  /** @param rows - objects that nobody changes, in a list that nobody changes */
  of(rows: readonly object[]): WrittenList {
    if (this.last?.rows === rows) return this.last.list;
    const parts: Buffer[] = [OPEN];
    for (const [i, row] of rows.entries()) {
      if (i > 0) parts.push(COMMA);
      parts.push(this.bytesOf(row));
    }
    parts.push(CLOSE);
    const list = { body: Buffer.concat(parts), tag: `W/"${this.process}-${++this.lists}"` };
    this.last = { rows, list };
    return list;
  }

  private bytesOf(row: object): Buffer {
    const known = this.written.get(row);
    if (known !== undefined) return known;
    const bytes = Buffer.from(JSON.stringify(row));
    this.written.set(row, bytes);
    return bytes;
  }
}
