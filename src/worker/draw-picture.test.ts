import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { inflateSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import drawPicture from './tasks/draw-picture';

const into = join(mkdtempSync(join(tmpdir(), 'sediment-picture-')), 'a.png');

/** Size, and rows of pixels as red, green, blue, alpha, of a PNG of 8 bits without interlace (PNG, 3rd edition, 9 and 11). */
function readPng(bytes: Buffer): { width: number; height: number; at: (x: number, y: number) => number[] } {
  expect(bytes.subarray(0, 8)).toEqual(Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]));
  const [width, height] = [bytes.readUInt32BE(16), bytes.readUInt32BE(20)];
  expect([bytes[24], bytes[25], bytes[28]]).toEqual([8, 6, 0]);
  const parts: Buffer[] = [];
  for (let i = 8; i < bytes.length; i += 12 + bytes.readUInt32BE(i))
    if (bytes.toString('latin1', i + 4, i + 8) === 'IDAT') parts.push(bytes.subarray(i + 8, i + 8 + bytes.readUInt32BE(i))); // prettier-ignore
  const raw = inflateSync(Buffer.concat(parts));
  const stride = 4 * width;
  const pixels = Buffer.alloc(stride * height);
  for (let y = 0; y < height; y++) {
    const filter = raw[y * (stride + 1)];
    for (let x = 0; x < stride; x++) {
      const left = x < 4 ? 0 : pixels[y * stride + x - 4];
      const up = y === 0 ? 0 : pixels[(y - 1) * stride + x];
      const corner = x < 4 || y === 0 ? 0 : pixels[(y - 1) * stride + x - 4];
      const guess = [0, left, up, (left + up) >> 1, paeth(left, up, corner)][filter];
      pixels[y * stride + x] = (raw[y * (stride + 1) + 1 + x] + guess) & 255;
    }
  }
  return { width, height, at: (x, y) => [...pixels.subarray(y * stride + 4 * x, y * stride + 4 * x + 4)] };
}

function paeth(a: number, b: number, c: number): number {
  const [pa, pb, pc] = [Math.abs(b - c), Math.abs(a - c), Math.abs(a + b - 2 * c)];
  return pa <= pb && pa <= pc ? a : pb <= pc ? b : c;
}

describe('a picture drawn by the server', () => {
  it('has the size that it names, its colours where they are, and letters of the font that ships', async () => {
    const svg = (text: string, weight: number): string =>
      `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 50" width="200" height="100"><style>.ground{fill:#fbfcfa}.ink{fill:#1e2529}</style><rect class="ground" width="100" height="50"/><text class="ink" font-family="system-ui, sans-serif" font-weight="${weight}" font-size="20" x="5" y="30">${text}</text></svg>`; // prettier-ignore
    const dark = async (text: string, weight: number): Promise<number> => {
      await drawPicture({ svg: svg(text, weight), into });
      const { width, height, at } = readPng(readFileSync(into));
      expect([width, height]).toEqual([200, 100]);
      expect(at(199, 99)).toEqual([0xfb, 0xfc, 0xfa, 255]);
      let count = 0;
      for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) if (at(x, y)[0] < 100) count++;
      return count;
    };
    const plain = await dark('Äß−', 400);
    expect(plain).toBeGreaterThan(100);
    // Bold letters have more ink, letters of other alphabets that ship are there, an empty text has none.
    expect(await dark('Äß−', 700)).toBeGreaterThan(1.15 * plain);
    expect(await dark('Łőę', 400)).toBeGreaterThan(100);
    expect(await dark('', 400)).toBe(0);
  });

  it('says what is wrong with what is no picture', async () => {
    await expect(drawPicture({ svg: '<svg', into })).rejects.toThrow();
  });
});
