import { editionPath, reviewPath, type SiteContent } from './site-content';

const escaped = (text: string): string =>
  text
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')
    // XML 1.0 has no place for these at all.
    // eslint-disable-next-line no-control-regex -- control characters are what is taken out
    .replaceAll(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '');

/** A feed that is read often holds so many of the latest. */
const MOST_ENTRIES = 50;

/** An id that stays, where the site has no address: of the first 32 digits of a hash (RFC 4122, from memory). */
const urn = (sha256: string): string =>
  `urn:uuid:${[sha256.slice(0, 8), sha256.slice(8, 12), `4${sha256.slice(13, 16)}`, `8${sha256.slice(17, 20)}`, sha256.slice(20, 32)].join('-')}`; // prettier-ignore

/** Every edition as an entry, the latest first (Atom, RFC 4287). */
export function atomFeed({ desk, address, day, reviews }: SiteContent): string {
  const entries = reviews
    .flatMap((review) =>
      review.editions.map(({ edition, sha256 }) => {
        const isNewest = edition.number === review.edition.number;
        return { edition, sha256, path: isNewest ? reviewPath(review.slug) : editionPath(review.slug, edition.number) };
      }),
    )
    .sort((a, b) =>
      a.edition.publishedOn < b.edition.publishedOn
        ? 1
        : a.edition.publishedOn > b.edition.publishedOn
          ? -1
          : b.edition.number - a.edition.number,
    ) // prettier-ignore
    .slice(0, MOST_ENTRIES);
  const at = (path: string): string => (address === '' ? path : `${address}/${path.replace(/index\.html$/, '')}`);
  const updated = `${entries.at(0)?.edition.publishedOn ?? day}T00:00:00Z`;
  const name = escaped(desk || 'Reviews');
  const lines = entries.map(({ edition, sha256, path }) => {
    const { unit, text, publishedOn, number, changes } = edition;
    const more = number === 1 ? '' : ` (edition ${number})`;
    const summary = [text.headline, ...changes.map((c) => c.text)].join(' · ');
    return [
      '  <entry>',
      `    <id>${urn(sha256)}</id>`,
      `    <title>${escaped(`${unit.maker} ${unit.model} ${unit.label}${more}`)}</title>`,
      `    <link rel="alternate" type="text/html" href="${escaped(at(path))}"/>`,
      `    <updated>${publishedOn}T00:00:00Z</updated>`,
      `    <summary>${escaped(summary)}</summary>`,
      '  </entry>',
    ].join('\n');
  });
  return [
    '<?xml version="1.0" encoding="utf-8"?>',
    '<feed xmlns="http://www.w3.org/2005/Atom">',
    `  <id>${address === '' ? 'urn:uuid:0c0d6a52-5ed1-4e47-8c5e-000000000001' : escaped(`${address}/`)}</id>`,
    `  <title>${name}</title>`,
    `  <updated>${updated}</updated>`,
    `  <author><name>${name}</name></author>`,
    ...(address === '' ? [] : [`  <link rel="self" type="application/atom+xml" href="${escaped(`${address}/feed.xml`)}"/>`]), // prettier-ignore
    ...lines,
    '</feed>',
    '',
  ].join('\n');
}

/** Addresses of all pages (sitemaps.org protocol 0.9); it needs to know where the site stands. */
export function siteMap({ address, day, reviews, kinds }: SiteContent): string | null {
  if (address === '') return null;
  const urls = [
    { path: '', on: day },
    { path: 'all.html', on: day },
    ...kinds.map((k) => ({ path: `kinds/${k.id}.html`, on: day })),
    ...reviews.map((r) => ({ path: reviewPath(r.slug).replace(/index\.html$/, ''), on: r.edition.publishedOn })),
  ];
  return [
    '<?xml version="1.0" encoding="utf-8"?>',
    '<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">',
    ...urls.map(({ path, on }) => `  <url><loc>${escaped(`${address}/${path}`)}</loc><lastmod>${on}</lastmod></url>`),
    '</urlset>',
    '',
  ].join('\n');
}
