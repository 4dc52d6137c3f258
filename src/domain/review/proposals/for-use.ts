import { capital } from '#core/text/capital';
import { isQuantity, quantity } from '#core/measure/registry';
import type { MeasuredFact } from '#core/rules/criterion-points';
import { COVERAGE, spreadOf } from '#core/rules/figures-apart';
import { formatNumber } from '#core/measure/figure-text';
import type { House, HouseUse } from '#contracts/review';
import { figureWords, inSentence, plainProposal, type ProposingRule } from '../review-facts';

type Want = HouseUse['wants'][number];

/** How a figure stands to what is wanted: met or missed by more than it leaves open, or neither. */
export function meets(want: Want, fact: MeasuredFact | undefined): 'met' | 'missed' | 'open' {
  if (!fact || fact.value === null) return 'open';
  const limit = want.atLeast ?? want.atMost ?? 0;
  const over = want.atLeast === null ? limit - fact.value : fact.value - limit;
  const margin = COVERAGE * spreadOf(fact);
  const [good, bad] = want.atLeast === null ? (['at-most', 'at-least'] as const) : (['at-least', 'at-most'] as const);
  if (over >= margin && (fact.bound === 'exact' || fact.bound === good)) return 'met';
  if (over < -margin && (fact.bound === 'exact' || fact.bound === bad)) return 'missed';
  return 'open';
}

/** Uses of the house that are asked of a kind and ask for something. */
export const usesOf = (house: House, kind: { readonly id: string; readonly like?: string }): HouseUse[] =>
  house.uses.filter(
    (u) => u.wants.length > 0 && (u.kinds.length === 0 || u.kinds.some((k) => k === kind.id || k === kind.like)),
  );

/** For a use where it meets all that the use asks for, not for it where it misses something; else nothing is said. */
export const forUse: ProposingRule = ({ own, kind }, house) =>
  usesOf(house, kind).flatMap((use) => {
    const held = use.wants.flatMap((want) => {
      const { figure: id } = want;
      if (!isQuantity(id)) return [];
      const fact = own.figures[id];
      const words = fact ? figureWords(id, fact) : 'not measured';
      const { unit } = quantity(id);
      const limit =
        `${want.atLeast === null ? 'at most' : 'at least'} ${formatNumber(want.atLeast ?? want.atMost ?? 0, quantity(id).decimals)} ${unit}`.trim();
      return [
        {
          how: meets(want, fact),
          text: `${inSentence(id)} ${words}`,
          asked: `${inSentence(id)} ${words} (asked: ${limit})`,
        },
      ];
    });
    const missed = held.filter((h) => h.how === 'missed');
    const isFor = held.length > 0 && held.every((h) => h.how === 'met');
    if (!isFor && missed.length === 0) return [];
    const told = (isFor ? held : missed).map((h) => h.text).join(', ');
    return [
      {
        ...plainProposal(
          'uses',
          'for-use',
          use.name,
          capital(told),
          held.map((h) => h.asked).join('; '),
          'measured',
          `${isFor ? 'for' : 'not for'} ${told}`,
        ),
        use: use.name,
        suits: isFor ? ('for' as const) : ('not for' as const),
      },
    ];
  });
