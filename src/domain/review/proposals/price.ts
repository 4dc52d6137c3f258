import type { PricedUnit } from '#core/rules/price-frontier';
import { unitName } from '#contracts/unit-name';
import { plainProposal, type ProposingRule, type ReviewFacts } from '../review-facts';

/** A cheaper unit is said to be better from this probability on; that of the beaten favourites. Common practice, no source. */
const CLEARLY = 0.9;

interface Priced {
  readonly own: PricedUnit;
  readonly all: readonly PricedUnit[];
  readonly currency: string;
}

function priced({ own, rubric, standing }: ReviewFacts): Priced | null {
  const rule = rubric?.criteria.find((c) => c.kind === 'price');
  const mine = standing.frontier.find((u) => u.id === own.id);
  return rule && mine ? { own: mine, all: standing.frontier, currency: rule.currency } : null;
}

const money = (amount: number, currency: string): string => `${Math.round(amount * 100) / 100} ${currency}`;

/** Whether no unit that costs as much or less has as many points, the price left out. */
export const frontier: ProposingRule = (facts, house) => {
  const found = priced(facts);
  if (!found || found.all.length < house.leastUnits) return [];
  const { own, currency } = found;
  const percent = Math.round(100 * own.probability);
  const chance = percent < 1 ? 'less than 1' : percent > 99 ? 'more than 99' : String(percent);
  const fact = (what: string): string => `${what} at ${money(own.price, currency)}; ${chance} % sure that none is as good for as much or less`; // prettier-ignore
  if (own.isOnFrontier && own.probability >= CLEARLY)
    return [plainProposal('pros', 'frontier', 'price', `Nothing tested is as good for ${money(own.price, currency)} or less`, fact('On the price frontier'), 'prices', money(own.price, currency))]; // prettier-ignore
  if (!own.isOnFrontier && own.probability <= 1 - CLEARLY)
    return [plainProposal('cons', 'frontier', 'price', `At ${money(own.price, currency)}, something tested is as good for as much or less`, fact('Behind the price frontier'), 'prices', money(own.price, currency))]; // prettier-ignore
  return [];
};

/** Units that cost as much or less and have more points, the price left out: the best of them. */
export const betterBuy: ProposingRule = (facts) => {
  const found = priced(facts);
  if (!found) return [];
  const { own, all, currency } = found;
  const rivals = all
    .filter((u) => u.id !== own.id && u.price <= own.price && u.composite90[0] > own.composite)
    .sort((a, b) => b.composite - a.composite);
  return rivals.slice(0, 2).map((rival) => {
    const name = unitName(facts.names[rival.id]);
    const less = Math.round((own.price - rival.price) * 100) / 100;
    const cost = less === 0 ? 'the same price' : `${money(less, currency)} less`;
    return {
      ...plainProposal(
        'alternatives',
        'better-buy',
        rival.id,
        `Better by the rules for ${cost}`,
        `${rival.composite.toFixed(1)} points (90 %: ${rival.composite90[0].toFixed(1)} to ${rival.composite90[1].toFixed(1)}) against ${own.composite.toFixed(1)}, the price left out; ${money(rival.price, currency)} against ${money(own.price, currency)}`,
        'points',
        cost,
      ),
      unit: { id: rival.id, name },
    };
  });
};

/** The price at which it would change sides of the price frontier. */
export const turningPrice: ProposingRule = (facts) => {
  const found = priced(facts);
  if (!found) return [];
  const { own, all, currency } = found;
  const asGood = all.filter((u) => u.id !== own.id && u.composite >= own.composite).sort((a, b) => a.price - b.price);
  const next = asGood.at(0);
  if (!next) return [];
  const name = unitName(facts.names[next.id]);
  const text = own.isOnFrontier
    ? `From ${money(next.price, currency)} on, ${name} is as good for as much or less`
    : `Below ${money(next.price, currency)}, nothing tested would be as good for as much or less; that is what ${name} costs`;
  return [
    {
      ...plainProposal('turningPrice', 'turning-price', 'price', text, `${name}: ${next.composite.toFixed(1)} points for ${money(next.price, currency)}; this unit: ${own.composite.toFixed(1)} for ${money(own.price, currency)}, the price left out of the points`, 'prices', text), // prettier-ignore
      price: { amount: next.price, currency },
    },
  ];
};
