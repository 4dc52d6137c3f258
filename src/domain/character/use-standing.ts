import { isQuantity, quantity, type QuantityId } from '#core/measure/registry';
import { formatNumber } from '#core/measure/figure-text';
import type { UnitFacts } from '#core/rules/criterion-points';
import { isBetterBeyondDoubt } from '#core/rules/figures-apart';
import type { Character } from '#contracts/character';
import type { House, HouseUse } from '#contracts/review';
import { unitName } from '#contracts/unit-name';
import { meets, usesOf } from '../review/proposals/for-use';
import { figureWords, inSentence, othersOf, type ReviewFacts } from '../review/review-facts';

type Want = HouseUse['wants'][number] & { readonly figure: QuantityId };
type Facts = Pick<ReviewFacts, 'own' | 'units' | 'names' | 'kind'>;

/** Names that are shown of those that are better. */
const SHOWN = 3;

const wantsOf = (use: HouseUse): Want[] => use.wants.filter((w): w is Want => isQuantity(w.figure));

/** Whether a unit meets all that a use asks for, misses something, or it is not known. */
function howAll(unit: UnitFacts, wants: readonly Want[]): 'met' | 'missed' | 'open' {
  const each = wants.map((w) => meets(w, unit.figures[w.figure]));
  if (each.includes('missed')) return 'missed';
  return each.every((how) => how === 'met') ? 'met' : 'open';
}

/** Whether of two that meet all, one is better in something that is asked and worse in nothing, beyond what both leave open. */
function surpasses(one: UnitFacts, other: UnitFacts, wants: readonly Want[]): boolean {
  const is = (a: UnitFacts, b: UnitFacts, w: Want): boolean =>
    isBetterBeyondDoubt(a.figures[w.figure], b.figures[w.figure], w.atLeast === null ? 'lower' : 'higher');
  return wants.some((w) => is(one, other, w)) && !wants.some((w) => is(other, one, w));
}

/**
 * How a unit stands for each use that the desk has limits for: whether it meets them, and how many other tested units of
 * its kind are better for it. Of units that meet a use, those are better that surpass it in what is asked; of one that
 * misses something, all that meet it. Of one that is open, nothing is said.
 */
export function useStandings(facts: Facts, house: House): Character['uses'] {
  const others = othersOf(facts);
  return usesOf(house, facts.kind).flatMap((use) => {
    const wants = wantsOf(use);
    if (wants.length === 0) return [];
    const how = howAll(facts.own, wants);
    const byHow = others.map((unit) => ({ unit, how: howAll(unit, wants) }));
    const meeting = byHow.filter((o) => o.how === 'met').map((o) => o.unit);
    const better = how === 'open' ? null : how === 'missed' ? meeting : meeting.filter((o) => surpasses(o, facts.own, wants)); // prettier-ignore
    return [
      {
        use: use.name,
        how,
        asked: wants.map((w) => askedWords(w, facts.own)),
        tested: others.length,
        meeting: meeting.length,
        unknown: byHow.filter((o) => o.how === 'open').length,
        better: better && better.length,
        bestNames: (better ?? [])
          .slice(0, SHOWN)
          .flatMap(({ id }) => (id in facts.names ? [{ id, name: unitName(facts.names[id]) }] : [])),
      },
    ];
  });
}

function askedWords(want: Want, unit: UnitFacts): string {
  const { unit: sign, decimals } = quantity(want.figure);
  const limit = formatNumber(want.atLeast ?? want.atMost ?? 0, decimals);
  const asked = `${want.atLeast === null ? 'at most' : 'at least'} ${limit} ${sign}`.trim();
  const fact = unit.figures[want.figure];
  const words = fact && fact.value !== null ? figureWords(want.figure, fact) : 'not measured';
  return `${inSentence(want.figure)}: ${words} (asked: ${asked})`;
}
