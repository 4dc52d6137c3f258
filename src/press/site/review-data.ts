import { reviewPath, type SiteReview } from './site-content';
import type { SiteFrame } from './site-page';

/** Highest total of a ranking. */
const BEST = 5;

const notes = (lines: readonly { readonly text: string }[]): object => ({
  '@type': 'ItemList',
  itemListElement: lines.map((line, i) => ({ '@type': 'ListItem', position: i + 1, name: line.text })),
});

/**
 * A review as schema.org has it (Review of a Product, https://schema.org/Review; from memory). The rating is the total of
 * the ranking on the day of the edition; where it was not ranked, it has none.
 */
export function reviewData({ slug, edition, editions }: SiteReview, { desk, address }: SiteFrame): object {
  const { unit, text, ranking, publishedOn, price } = edition;
  const own = ranking?.rows.find((r) => r.unit === ranking.own);
  const first = editions.at(-1)?.edition.publishedOn ?? publishedOn;
  return {
    '@context': 'https://schema.org',
    '@type': 'Review',
    name: text.headline,
    datePublished: first,
    dateModified: publishedOn,
    version: edition.number,
    ...(address === '' ? {} : { url: `${address}/${reviewPath(slug).replace(/index\.html$/, '')}` }),
    ...(desk === '' ? {} : { author: { '@type': 'Organization', name: desk } }),
    itemReviewed: {
      '@type': 'Product',
      name: `${unit.maker} ${unit.model}`,
      brand: { '@type': 'Brand', name: unit.maker },
      category: unit.kind,
      ...(price ? { offers: { '@type': 'Offer', price: price.amount, priceCurrency: price.currency } } : {}),
    },
    ...(own ? { reviewRating: { '@type': 'Rating', 'ratingValue': Math.round(own.composite * 100) / 100, 'bestRating': BEST, 'worstRating': 0 } } : {}), // prettier-ignore
    ...(text.pros.length > 0 ? { positiveNotes: notes(text.pros) } : {}),
    ...(text.cons.length > 0 ? { negativeNotes: notes(text.cons) } : {}),
  };
}
