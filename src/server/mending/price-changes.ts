import { correctionText, fieldChanges } from '#core/rules/correction-text';
import { Failure } from '../platform/failure';
import type { Queryable } from '../platform/db/database';
import { left, refused, type ChangeOf, type PreparedChange } from './prepared-change';
import { correctPrice, correctablePrice, type CorrectablePrice } from './queries/correction';

async function findPrice(db: Queryable, id: string): Promise<CorrectablePrice> {
  const price = await correctablePrice(db, id);
  if (!price) throw new Failure('not-found', 'There is no such price.');
  return price;
}

/** What was noted of a price. */
export async function reprice(db: Queryable, change: ChangeOf<'price'>): Promise<PreparedChange> {
  const { specimen_id, kind, ...price } = await findPrice(db, change.price);
  const before: typeof change = { kind: 'price', price: change.price, priceKind: kind, ...price };
  const text = correctionText('Price', fieldChanges(priceWords(before), priceWords(change)));
  if (text === null) throw refused('Nothing differs from what is noted.');
  return { before, text, specimens: [specimen_id], runs: [], apply: (tx) => correctPrice(tx, change) };
}

/** A price counts, or does not. */
export async function leavePrice(db: Queryable, change: ChangeOf<'price-left-out'>): Promise<PreparedChange> {
  const { specimen_id, amount, currency, date } = await findPrice(db, change.price);
  return {
    ...(await left(db, 'price', change.price, change.isOut)),
    before: { ...change, isOut: !change.isOut },
    text: `Price of ${amount} ${currency}, ${date}, ${change.isOut ? 'removed' : 'taken back'}`,
    specimens: [specimen_id],
    runs: [],
  };
}

const priceWords = ({ amount, currency, priceKind, date, region, tax, shop, note }: ChangeOf<'price'>) => ({
  amount: `${amount} ${currency}`,
  kind: priceKind,
  day: date,
  region,
  tax: tax ?? '',
  shop,
  note,
});
