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
  const rivals = rivalsOf(facts);
  const measured = run.takes.filter((t) => t.summary !== null);
  // Words first: a tone says little to a reader.
  const spoken = measured.filter((t) => isSpoken(t));
  for (const { step } of [...spoken, ...measured.filter((t) => !isSpoken(t))]) {
    const usable = (await candidatesOf(step)).filter((c) => !c.isProcessed);
    const mine = newestOf(usable, facts.own.id);
    if (!mine) continue;
    // The same voice at the same place, where there is any: else the voice would be compared, not the unit.
    const alike = usable.filter((c) => c.words === mine.words);
    const heard = [alike, usable].map((list) => beside(rivals, list)).find((takes) => takes.length > 0);
    if (heard) return { step, takes: [mine.takeId, ...heard] };
  }
  return null;
}

const newestOf = (candidates: readonly CompareCandidate[], unit: string): CompareCandidate | undefined =>
  candidates
    .filter((c) => c.specimenId === unit)
    .sort((a, b) => (a.date < b.date ? 1 : -1))
    .at(0);

/** Whether somebody speaks or sings in it. */
const isSpoken = ({ summary }: Pick<Take, 'summary'>): boolean => (summary?.noise.speech.length ?? 0) > 0;

interface Rivals {
  readonly units: readonly string[];
  readonly yardsticks: readonly string[];
}

/** Takes of the first rivals that have one, and of one yardstick. */
function beside({ units, yardsticks }: Rivals, candidates: readonly CompareCandidate[]): string[] {
  const takes = (ids: readonly string[], most: number): string[] =>
    ids.flatMap((id) => newestOf(candidates, id)?.takeId ?? []).slice(0, most);
  return [...takes(units, MOST_RIVALS), ...takes(yardsticks, 1)];
}

/** The best unit that costs no more first, then the nearest in the ranking; yardsticks by themselves. */
function rivalsOf(facts: ReviewFacts): Rivals {
  const { own, names, standing } = facts;
  const { ranked, frontier } = standing;
  const isYardstick = (id: string): boolean => (names[id] as { isControl: boolean } | undefined)?.isControl === true;
  const placeOf = (id: string): number => ranked.find((u) => u.id === id)?.place ?? Infinity;
  const price = frontier.find((u) => u.id === own.id)?.price ?? 0;
  const best = frontier
    .filter((u) => u.id !== own.id && u.price <= price)
    .sort((a, b) => b.composite - a.composite)
    .slice(0, 1);
  const others = othersOf(facts).map((u) => u.id);
  const nearest = [...others].sort((a, b) => distance(placeOf(a), placeOf(own.id)) - distance(placeOf(b), placeOf(own.id))); // prettier-ignore
  return {
    units: [...new Set([...best.map((u) => u.id), ...nearest])].filter((id) => !isYardstick(id)),
    yardsticks: others.filter(isYardstick),
  };
}

/** Units without a place are all equally far. */
const distance = (a: number, b: number): number => (Number.isFinite(a) && Number.isFinite(b) ? Math.abs(a - b) : 1e9);
