import type { RankedUnit } from '#core/rules/rank';
import { neighbourWords, stratumWords } from '#core/rules/stratum-words';
import type { RankingInputs } from '#contracts/ranking';
import { unitName } from '#contracts/unit-name';

/** Names of the units of a ranking. */
export type Names = RankingInputs['names'];

/** A line of the list: the head of a stratum, or a unit in it. */
export type RankingLine =
  | { readonly kind: 'stratum'; readonly stratum: number; readonly words: string }
  | { readonly kind: 'unit'; readonly unit: RankedUnit };

export const nameOf = (names: Names, id: string): string => unitName(names[id]);

/** Units and the heads of their strata as one list of lines. */
export function rankingLines(ranked: readonly RankedUnit[]): RankingLine[] {
  const lines: RankingLine[] = [];
  ranked.forEach((unit, i) => {
    if (i === 0 || ranked[i - 1].stratum !== unit.stratum) {
      const words = stratumWords(ranked, unit.stratum);
      lines.push({ kind: 'stratum', stratum: unit.stratum, words });
    }
    lines.push({ kind: 'unit', unit });
  });
  return lines;
}

/** The unit that the page asks about first: on the desk and most recently tested, but not the control unit. */
export function unitUnderTest(ranked: readonly RankedUnit[], names: Names): RankedUnit | null {
  const inHand = ranked.filter((u) => names[u.id].onDesk);
  const others = inHand.filter((u) => !names[u.id].isControl);
  const onDesk = others.length > 0 ? others : inHand;
  return onDesk.reduce<RankedUnit | null>(
    (latest, u) => (!latest || (names[u.id].lastTested ?? '') > (names[latest.id].lastTested ?? '') ? u : latest),
    null,
  );
}

/** Where a unit settles, in sentences for somebody who has never seen the page. */
export function standingSentences(
  unit: RankedUnit,
  ranked: readonly RankedUnit[],
  names: Names,
  criteria: ReadonlyMap<string, string>,
): string[] {
  const sentences = [
    `Place ${unit.place} of ${ranked.length}; with 90 % probability between ${unit.rank90[0]} and ${unit.rank90[1]}.`,
  ];
  const peers = ranked.filter((u) => u.stratum === unit.stratum && u.id !== unit.id);
  if (peers.length === 0) sentences.push(`It has stratum ${unit.stratum} to itself.`);
  else {
    const listed = peers.slice(0, 3).map((u) => nameOf(names, u.id));
    const rest = peers.length > 3 ? ` and ${peers.length - 3} more` : '';
    sentences.push(`Stratum ${unit.stratum}, which it shares with ${listed.join(', ')}${rest}.`);
  }
  sentences.push(...neighbourWords(unit, ranked, (id) => nameOf(names, id)));
  if (unit.missing.length > 0) {
    const missing = unit.missing.map((id) => criteria.get(id) ?? id).join(', ');
    sentences.push(
      `Missing: ${missing}. Until then the catalogue's average stands in, and the interval is wider for it.`,
    );
  }
  return sentences;
}

/** The unit one place above; of the first one, the one below. */
export function neighbourOf(ranked: readonly RankedUnit[], unit: RankedUnit | null): RankedUnit | null {
  if (!unit) return null;
  return ranked.at(unit.place === 1 ? 1 : unit.place - 2) ?? null;
}
