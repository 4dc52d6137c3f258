import { expect, it } from 'vitest';
import { decodedText } from './decoded-text';

const TEXT = '1 kΩ\t−3,5 €';
const utf16 = (text: string, isLittle: boolean): Uint8Array => {
  const units = Uint16Array.from({ length: text.length + 1 }, (_, i) => (i === 0 ? 0xfeff : text.charCodeAt(i - 1)));
  return Uint8Array.from([...units].flatMap((u) => (isLittle ? [u & 0xff, u >> 8] : [u >> 8, u & 0xff])));
};

it('a file of numbers is read as spreadsheets write it', () => {
  expect(decodedText(new TextEncoder().encode(TEXT))).toBe(TEXT);
  // The mark at the beginning belongs to no cell.
  expect(decodedText(new TextEncoder().encode(`\uFEFF${TEXT}`))).toBe(TEXT);
  expect(decodedText(utf16(TEXT, true))).toBe(TEXT);
  expect(decodedText(utf16(TEXT, false))).toBe(TEXT);
  // "20 °C;±1" as bytes of Windows-1252: ° is B0, ± is B1, neither of which stands alone in UTF-8.
  expect(decodedText(Uint8Array.from([0x32, 0x30, 0x20, 0xb0, 0x43, 0x3b, 0xb1, 0x31]))).toBe('20 °C;±1');
  expect(decodedText(new Uint8Array())).toBe('');
});
