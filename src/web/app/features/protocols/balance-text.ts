import type { PhonemeBalanceJson } from '#contracts/protocol-page';
import { formatNumber } from '../../ui/format';

/** What the counter says of a text, in a sentence. */
export function balanceText(b: PhonemeBalanceJson): string {
  const size = `${b.words} words, ${b.phonemes} sounds`;
  const off = `${formatNumber(b.distance, 1)} % of them would have to be exchanged to match running English; chance alone makes ${formatNumber(b.chance, 1)} %`;
  const absent = b.absent.length > 0 ? ` Not in it: ${b.absent.join(', ')}.` : '';
  const unknown = b.unknown.length > 0 ? ` Not in the dictionary: ${b.unknown.join(', ')}.` : '';
  const verdict = {
    balanced: 'Phonetically balanced',
    uneven: 'Not phonetically balanced',
    'too-short': 'Too short to be phonetically balanced',
  }[b.verdict];
  return `${verdict}: ${size}; ${off}.${absent}${unknown}`;
}
