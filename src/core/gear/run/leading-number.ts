/**
 * The number that a row of a table begins with: "48 kHz" is 48,000, "1 kΩ" 1,000, "85 %" 85.
 *
 * @returns NaN where it begins with none
 */
export function leading(text: string): number {
  const found = /^\s*([\d.,]+)\s*(k?)/i.exec(text);
  return found ? Number(found[1].replace(',', '.')) * (found[2] === '' ? 1 : 1000) : NaN;
}
