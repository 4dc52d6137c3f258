import { plainProposal, type ProposingRule } from '../review-facts';

/** What a line holds; the fact has the rest. */
const MOST_LINE = 400;
const MOST_SUBJECT = 200;

/** Answers of Sums that were kept with the unit, the newest first; each once, however often it was kept. */
export const keptSums: ProposingRule = ({ sheet }) => {
  const notes = new Map<string, string>();
  for (const { kind, note, day } of sheet.events) if (kind === 'sum' && note !== '') notes.set(note, day);
  return [...notes]
    .map(([note, day]) =>
      plainProposal('sums', 'sum', note.slice(0, MOST_SUBJECT), wholeParts(note), `${note} (${day})`, 'events', note),
    ) // prettier-ignore
    .reverse();
};

/** As many of its parts as a line holds: none is cut. */
function wholeParts(note: string): string {
  let text = note;
  while (text.length > MOST_LINE && text.includes('; ')) text = text.slice(0, text.lastIndexOf('; '));
  return text.length > MOST_LINE ? `${text.slice(0, MOST_LINE - 2)} …` : text;
}
