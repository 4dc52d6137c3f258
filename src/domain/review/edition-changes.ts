import { formatNumber } from '#core/measure/figure-text';
import { isQuantity, quantity } from '#core/measure/registry';
import { COVERAGE } from '#core/rules/figures-apart';
import type { Edition, FrozenFigure } from '#contracts/edition';
import type { EditionChange, ReviewDocument, ReviewLine } from '#contracts/review';

/** What an edition says that facts can change. */
export type EditionFacts = Pick<Edition, 'figures' | 'price' | 'ranking' | 'made'>;

/** What is written otherwise in an edition than in the one before: facts, text, clips. */
export function editionChanges(before: Edition, after: Edition): EditionChange[] {
  return [...factChanges(before, after), ...textChanges(before.text, after.text), ...clipChanges(before, after)];
}

/** What facts say otherwise: figures, price, place, rules. */
export function factChanges(before: EditionFacts, after: EditionFacts): EditionChange[] {
  return [
    ...figureChanges(before.figures, after.figures),
    ...priceChanges(before.price, after.price),
    ...placeChanges(before.ranking, after.ranking),
    ...ruleChanges(before, after),
  ];
}

function figureChanges(before: readonly FrozenFigure[], after: readonly FrozenFigure[]): EditionChange[] {
  const then = new Map(before.map((f) => [f.quantity, f]));
  const now = new Map(after.map((f) => [f.quantity, f]));
  return [...new Set([...then.keys(), ...now.keys()])].flatMap((id): EditionChange[] => {
    const [old, fresh] = [then.get(id), now.get(id)];
    // A clip of the same day that is measured by newer rules is another reading, too.
    if (old?.text === fresh?.text && old?.condition === fresh?.condition) return [];
    return [{ what: 'figure', text: figureChange(old, fresh) }];
  });
}

function figureChange(old: FrozenFigure | undefined, fresh: FrozenFigure | undefined): string {
  if (!old) return `${fresh?.name ?? ''}: ${fresh?.text ?? ''} (new)`;
  if (!fresh) return `${old.name}: ${old.text}, which does not count any more`;
  const words = `${fresh.name}: ${old.text} → ${fresh.text}`;
  if (old.value === null || fresh.value === null || old.bound !== 'exact' || fresh.bound !== 'exact') return words;
  if (old.text === fresh.text) return `${words}, under another condition: ${fresh.condition}`;
  const by = fresh.value - old.value;
  const spread = Math.hypot(...[old, fresh].map((f) => Math.max(f.uncertainty ?? 0, f.anotherReading ?? 0)));
  const decimals = isQuantity(fresh.quantity) ? quantity(fresh.quantity).decimals : 1;
  const change = `${by > 0 ? '+' : ''}${formatNumber(by, decimals)} ${fresh.unit}`.trim();
  const sure = spread === 0 ? '' : Math.abs(by) <= COVERAGE * spread ? ', within what both leave open' : ', more than both leave open'; // prettier-ignore
  return `${words} (${change}${sure})`;
}

type Price = Edition['price'];
export const priceText = (price: NonNullable<Price>): string =>
  `${price.amount} ${price.currency} (${price.kind}, ${price.date})`;

function priceChanges(before: Price, after: Price): EditionChange[] {
  if (!before && !after) return [];
  if (!before || !after)
    return [{ what: 'price', text: after ? `Price: ${priceText(after)} (new)` : 'Its price does not count any more' }];
  if (before.amount === after.amount && before.currency === after.currency && before.kind === after.kind) return [];
  const isAlike = before.currency === after.currency;
  const percent = Math.round((100 * (after.amount - before.amount)) / before.amount);
  const by = isAlike ? `, ${percent > 0 ? '+' : ''}${formatNumber(percent, 0)} %` : '';
  return [{ what: 'price', text: `Price: ${priceText(before)} → ${priceText(after)}${by}` }];
}

type Ranking = Edition['ranking'];
const placeOf = (ranking: NonNullable<Ranking>, unit: string) => ranking.rows.find((r) => r.unit === unit);

function placeChanges(before: Ranking, after: Ranking): EditionChange[] {
  if (!before || !after)
    return before === after ? [] : [{ what: 'place', text: after ? 'It is ranked now' : 'It is not ranked any more' }];
  const [then, now] = [placeOf(before, before.own), placeOf(after, after.own)];
  if (!then || !now) return [];
  const changes: EditionChange[] = [];
  if (then.place !== now.place || before.of !== after.of)
    changes.push({ what: 'place', text: `Place ${then.place} of ${before.of} → ${now.place} of ${after.of}` });
  const isWhole = before.rows.length === before.of;
  const above = after.rows.filter((r) => {
    const stood = placeOf(before, r.unit);
    const wasAbove = stood ? stood.stratum < then.stratum : !isWhole;
    return r.stratum < now.stratum && !wasAbove;
  });
  if (above.length > 0)
    changes.push({ what: 'place', text: `Now told apart above it: ${above.map((r) => r.name).join(', ')}` });
  return changes;
}

function ruleChanges(before: EditionFacts, after: EditionFacts): EditionChange[] {
  const [rules, now] = [before.ranking?.rulesVersion, after.ranking?.rulesVersion];
  const changes: EditionChange[] = [];
  if (rules !== undefined && now !== undefined && rules !== now)
    changes.push({ what: 'rules', text: `Rules of the ranking: version ${rules} → ${now}` });
  if (before.made.algorithm !== after.made.algorithm)
    changes.push({ what: 'rules', text: `Measured by version ${after.made.algorithm} instead of ${before.made.algorithm}` }); // prettier-ignore
  return changes;
}

type Text = Omit<ReviewDocument, 'decks'>;
const PARTS = { pros: 'Pros', cons: 'Cons', uses: 'For whom', alternatives: 'Alternatives', notTested: 'Not tested', sums: 'Worked out' } as const; // prettier-ignore
const WRITTEN = { headline: 'Headline', summary: 'Summary', disclosure: 'Disclosure', conditions: 'Conditions', appliedBoosts: 'Boosts applied' } as const; // prettier-ignore

/** What is written otherwise in one text than in another. */
export function textChanges(before: Text, after: Text): EditionChange[] {
  const line = (l: ReviewLine): string => l.text;
  const changes = (Object.keys(PARTS) as (keyof typeof PARTS)[]).flatMap((part): string[] => {
    const [then, now] = [before[part].map(line), after[part].map(line)];
    return [
      ...now.filter((t) => !then.includes(t)).map((t) => `${PARTS[part]}, added: ${t}`),
      ...then.filter((t) => !now.includes(t)).map((t) => `${PARTS[part]}, taken out: ${t}`),
    ];
  });
  for (const part of Object.keys(WRITTEN) as (keyof typeof WRITTEN)[])
    if (before[part] !== after[part]) changes.push(`${WRITTEN[part]} written anew`);
  const [quoted, quotes] = [before.quotations.map((q) => q.words), after.quotations.map((q) => q.words)];
  changes.push(
    ...quotes.filter((q) => !quoted.includes(q)).map((q) => `Quotation, added: ${q}`),
    ...quoted.filter((q) => !quotes.includes(q)).map((q) => `Quotation, taken out: ${q}`),
  );
  if (before.obtained !== after.obtained) changes.push(`How it came: ${before.obtained} → ${after.obtained}`);
  if (before.afterwards !== after.afterwards) changes.push(`Where it went: ${before.afterwards} → ${after.afterwards}`);
  const price = (t: Text): string => (t.turningPrice ? `${t.turningPrice.amount} ${t.turningPrice.currency}` : 'none');
  if (price(before) !== price(after)) changes.push(`Price that turns the verdict: ${price(before)} → ${price(after)}`);
  return changes.map((text) => ({ what: 'text', text }));
}

function clipChanges(before: Pick<Edition, 'decks'>, after: Pick<Edition, 'decks'>): EditionChange[] {
  const clips = ({ decks }: Pick<Edition, 'decks'>) =>
    new Map(decks.flatMap((d) => d.lanes.map((l) => [l.sha256, `${d.title}, ${l.name}`] as const)));
  const [then, now] = [clips(before), clips(after)];
  const gone = (a: typeof then, b: typeof then, words: string): EditionChange[] =>
    [...a].flatMap(([sha, name]) => (b.has(sha) ? [] : [{ what: 'clip' as const, text: `Clip ${words}: ${name}` }]));
  return [...gone(now, then, 'added'), ...gone(then, now, 'taken out')];
}
