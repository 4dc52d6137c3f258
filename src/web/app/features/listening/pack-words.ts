import type { PackPage, PackSettings } from '#contracts/blind-pack';

/** The line that is made known before anybody hears a clip. */
export const announcement = ({ title, revealOn }: PackSettings, { tag, keySha256, sealedOn }: PackPage): string =>
  `“${title}”, pack ${tag}: key sealed on ${sealedOn}, to be opened on ${revealOn}. SHA-256 of the key: ${keySha256}`;

/** The line that opens it. */
export const openingWords = ({ title }: PackSettings, { tag, openingCode }: PackPage): string =>
  `“${title}”, pack ${tag}: the key is opened with ${openingCode ?? ''}`;

/** Whole days from one day to another. */
const daysBetween = (from: string, to: string): number => Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000);

const days = (n: number): string => (n === 1 ? 'one day' : `${n} days`);

/** How far it is to the day of reveal, in words. */
export function revealWords(revealOn: string, today: string): { readonly words: string; readonly isDue: boolean } {
  const left = daysBetween(today, revealOn);
  if (left > 0) return { words: `The reveal was promised for ${revealOn}, in ${days(left)}.`, isDue: false };
  if (left === 0) return { words: 'The reveal was promised for today: take in the answers, then reveal.', isDue: true };
  return { words: `The reveal was promised for ${revealOn}, ${days(-left)} ago.`, isDue: true };
}

/** What revealing now means, before it is done. */
export function revealCaution(revealOn: string, today: string): string {
  const left = daysBetween(today, revealOn);
  const early = left > 0 ? `The reveal was promised for ${revealOn}: this is ${days(left)} early. ` : '';
  return `${early}Take in the answers that came back first: once the key is open, none is taken any more.`;
}

const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** What answers weigh, and why. */
export function weighingWords({ listeners, passed, failed, share, share90 }: PackPage['answers']): string {
  const all = `${listeners} ${listeners === 1 ? 'answer' : 'answers'} came back.`;
  if (passed + failed === 0)
    return `${all} None of them tells whether its listener listened: each weighs ${percent(share)} of an answer given here.`;
  return (
    `${all} ${passed} of ${passed + failed} put the copy without highs below its original, which half of those who guess do, too: ` +
    `about ${percent(share)} listened (nine times in ten between ${percent(share90[0])} and ${percent(share90[1])}). ` +
    'Who failed weighs nothing, who passed weighs by how likely it is that they listened.'
  );
}
