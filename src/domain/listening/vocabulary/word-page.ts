import { formatNumber } from '#core/measure/figure-text';
import { timesIn } from '#core/rules/listening/plain-words';
import { LEAST_ASSOCIATED, type BestAssociation } from '#core/stats/best-association';
import { shareInterval } from '#core/stats/share-interval';
import type { WordPage } from '#contracts/vocabulary';
import type { SpokenWord } from './collect-words';

/** A unit that was heard, or said something of. */
export interface HeardUnitOfWords {
  readonly id: string;
  readonly name: string;
  /** In how many answers words could have been said of it. */
  readonly heard: number;
}

/** What was measured of units: by quantity, one value per unit. */
export interface MeasuredQuantity {
  readonly id: string;
  readonly title: string;
  readonly values: ReadonlyMap<string, number>;
}

/** Of a unit: how often a word was said of how many times it could have been. */
export type WordOfUnit = WordPage['units'][number];

/**
 * One word against units.
 *
 * @param word - as it counts
 * @param spoken - all words that were said of the kind
 * @param units - of the kind
 */
export function wordOfUnits(
  word: string,
  spoken: readonly SpokenWord[],
  units: readonly HeardUnitOfWords[],
): WordOfUnit[] {
  return units
    .map(({ id, name, heard }) => {
      const said = spoken.filter((s) => s.word === word && s.specimenId === id).length;
      // Words of a panel may be said oftener than answers are given: a share is at most all.
      const hits = Math.min(said, heard);
      return {
        id,
        name,
        said,
        heard,
        share: heard === 0 ? null : hits / heard,
        share90: heard === 0 ? null : shareInterval(hits, heard, 0.9),
      };
    })
    .filter((row) => row.said > 0 || row.heard > 0);
}

/** How often a word is said of units, with what was measured of them: what a figure is looked for in. */
export function wordAgainstFigures(rows: readonly WordOfUnit[], quantities: readonly MeasuredQuantity[]) {
  const compared = rows.filter((row) => row.share !== null);
  return {
    shares: compared.map((row) => row.share ?? 0),
    figures: quantities.map(({ id, values }) => ({ id, values: compared.map((row) => values.get(row.id) ?? null) })),
  };
}

/**
 * A word against units, and against the figure that goes best with it.
 *
 * @param found - of `wordAgainstFigures`; null where nothing could be held against it
 */
export function wordPage(
  word: string,
  rows: readonly WordOfUnit[],
  quantities: readonly MeasuredQuantity[],
  found: BestAssociation<string> | null,
): WordPage {
  const titleOf = (id: string): string => quantities.find((q) => q.id === id)?.title ?? id;
  const figure = found && {
    quantity: found.id,
    title: titleOf(found.id),
    rho: found.rho,
    count: found.count,
    looked: found.looked,
    p: found.p,
    others: found.all.slice(1, 5).map(({ id, rho, count }) => ({ title: titleOf(id), rho, count })),
  };
  return {
    word,
    units: rows.filter((row) => row.said > 0).sort((a, b) => (b.share ?? 0) - (a.share ?? 0) || b.said - a.said),
    figure,
    sentence: sentenceOf(word, figure),
  };
}

function sentenceOf(word: string, figure: WordPage['figure']): string {
  if (figure === null)
    return `No figure can be held against “${word}”: that needs ${LEAST_ASSOCIATED} units that were both heard with words and measured, and that differ.`;
  const { title, rho, count, looked, p } = figure;
  const best = `${title} goes best with it (rank correlation ${formatNumber(rho, 2)} over ${count} units)`;
  const chance = `the best of ${looked} ${looked === 1 ? 'figure' : 'figures'} goes as well by chance ${timesIn(p)}`;
  if (p > 0.05) return `No figure is shown to go with “${word}”. ${best}, but ${chance}.`;
  return `Where “${word}” is said more often, ${title.toLowerCase()} is ${rho > 0 ? 'higher' : 'lower'}: ${best}, and ${chance}. That they go together does not say that one makes the other.`;
}
