import type { CompareCandidate } from '#contracts/compare';
import type { ReviewDocument } from '#contracts/review';
import type { Take } from '#contracts/specimen';
import { countingRun } from '../catalogue/counting-run';
import { othersOf, type ReviewFacts } from './review-facts';

type Deck = ReviewDocument['decks'][number];
/** More are hard to keep apart by ear (common practice, no source). */
const MOST_RIVALS = 3;

/**
 * With whom a unit is heard first: of a part the take with it and the one without it; of others the units one place above
 * and below, a better buy, and the yardstick.
 *
 * @param facts - of the unit
 * @param candidatesOf - takes of a step that can be heard
 * @returns null where nothing of it can be heard beside anything
 */
export async function proposeDeck(
  facts: ReviewFacts,
  candidatesOf: (step: string) => Promise<readonly CompareCandidate[]>,
): Promise<Deck | null> {
  const run = countingRun(facts.sheet.runs)?.run;
  if (!run) return null;
  const pair = run.curves.pairs.at(0)?.takes.at(0);
  if (pair) {
    const step = run.takes.find((t) => t.id === pair.fitted)?.step ?? '';
    return { step, takes: [pair.fitted, pair.without] };
  }
  const wanted = rivalsOf(facts);
  const measured = run.takes.filter((t) => t.summary !== null);
  // Words first: a tone says little to a reader.
  const spoken = measured.filter((t) => isSpoken(t));
  for (const { step } of [...spoken, ...measured.filter((t) => !isSpoken(t))]) {
    const usable = (await candidatesOf(step)).filter((c) => !c.isProcessed);
    // Newest first: of each unit the take that counts.
    const newestOf = (unit: string): string[] => {
      const own = usable.filter((c) => c.specimenId === unit).sort((a, b) => (a.date < b.date ? 1 : -1));
      return own.slice(0, 1).map((c) => c.takeId);
    };
    const [mine, rivals] = [newestOf(facts.own.id), wanted.flatMap(newestOf)];
    if (mine.length > 0 && rivals.length > 0) return { step, takes: [...mine, ...rivals] };
  }
  return null;
}

/** Whether somebody speaks or sings in it. */
const isSpoken = ({ summary }: Pick<Take, 'summary'>): boolean => (summary?.noise.speech.length ?? 0) > 0;

/** Neighbours in the ranking, the best unit that costs no more, and the yardstick: each once. */
function rivalsOf({ own, standing, names, units }: ReviewFacts): string[] {
  const { ranked, frontier } = standing;
  const at = ranked.findIndex((u) => u.id === own.id);
  const beside = at < 0 ? [] : [ranked.at(at - 1), ranked.at(at + 1)].filter((u) => u !== undefined && u.id !== own.id);
  const price = frontier.find((u) => u.id === own.id)?.price;
  const cheaper = frontier.filter((u) => u.id !== own.id && price !== undefined && u.price <= price);
  const best = cheaper.reduce<(typeof cheaper)[number] | null>((b, u) => (b && b.composite >= u.composite ? b : u), null); // prettier-ignore
  const first = [best?.id, ...(at === 0 ? [ranked.at(1)?.id] : beside.map((u) => u?.id))];
  const ids = [...first, ...othersOf({ own, units }).map((u) => u.id)].filter((id) => id !== undefined);
  const isYardstick = (id: string): boolean => (names[id] as { isControl: boolean } | undefined)?.isControl === true;
  const rivals = [...new Set(ids)].filter((id) => !isYardstick(id)).slice(0, MOST_RIVALS);
  return [
    ...rivals,
    ...Object.keys(names)
      .filter((id) => isYardstick(id) && id !== own.id)
      .slice(0, 1),
  ];
}
