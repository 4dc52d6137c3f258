import { createHash } from 'node:crypto';
import { HtmlValidate } from 'html-validate';
import { JSDOM } from 'jsdom';
import { describe, expect, it } from 'vitest';
import { editionSchema } from '#contracts/edition';
import { PICTURES, PICTURE_SIZES, PICTURE_THEMES, type PictureKind, type PictureSize } from '#contracts/picture';
import { ticks } from './charts/scale';
import { loneReview } from './lone-review';
import { markdownHtml } from './markdown';
import { filmText, filmTime, reviewMarkdown } from './review-text';
import type { PublishedReview } from './review/published';
import { clipKey } from './review/published';
import { editionPicture } from './picture';
import { atomFeed } from './site/feed';
import { reviewData } from './site/review-data';
import { pagesOf, type SiteContent, type SiteReview } from './site/site-content';
import { edition, lane } from './testing/edition';

const published = (change: Partial<PublishedReview> = {}): PublishedReview => ({
  edition: edition(),
  sha256: 'f'.repeat(64),
  since: [{ what: 'price', text: 'Price: 120 EUR → 98 EUR, −18 %' }],
  seenOn: '2026-01-01',
  editions: [],
  clipOf: (l) =>
    l.role === 'this unit'
      ? { kind: 'inside', id: `clip-${clipKey(l)}` }
      : { kind: 'gone', why: 'its clip was deleted' },
  pictureOf: () => null,
  pageOf: () => null,
  ...change,
});
const SCRIPT = 'console.log("<deck>")';
const page = (change: Partial<PublishedReview> = {}): string => loneReview(published(change), [{ id: 'clip-x', base64: 'AAAA' }], SCRIPT); // prettier-ignore

describe('a review as one HTML file', () => {
  it('is valid HTML', async () => {
    const report = await new HtmlValidate({
      extends: ['html-validate:standard'],
      // Says how a file has to look, not what is right; text/plain blocks are data, which HTML allows (4.12.1).
      rules: { 'void-style': 'off', 'script-type': 'off', 'long-title': 'off', 'no-inline-style': 'error' },
    }).validateString(page());
    expect(report.results.flatMap((r) => r.messages.map((m) => `${m.ruleId} ${m.line}: ${m.message}`))).toEqual([]);
  });

  it('lets in nothing of another site: its policy has the hashes of its own script and style, and no address', () => {
    const html = page();
    const policy =
      /http-equiv="Content-Security-Policy" content="(.+?)"/.exec(html)?.[1].replaceAll('&#39;', "'") ?? '';
    const hash = (text: string): string => `'sha256-${createHash('sha256').update(text).digest('base64')}'`;
    const style = /<style>([\s\S]+?)<\/style>/.exec(html)?.[1] ?? '';
    expect(policy).toContain("default-src 'none'");
    expect(policy).toContain(`script-src ${hash(SCRIPT)}`);
    expect(policy).toContain(`style-src ${hash(style)}`);
    expect(policy).not.toMatch(/unsafe|https?:|\*/);
    expect(html).toContain(`<script>${SCRIPT}</script>`);
    // Links lead out; nothing is loaded from there.
    expect(html.match(/(src|href)="https?:[^"]+"/g)).toEqual(['href="https://tidewrack.example/protocol"']);
  });

  it('holds what was written as text, never as tags, and every part of the verdict', () => {
    const html = page();
    expect(html).toContain('Quiet &amp; &lt;plain>');
    for (const text of [
      'Quieter than 84 % of its kind',
      'Needs a 12 V supply',
      'Voice-over: quiet',
      'Drums: it clips',
      'as good for less',
      'Below 90 EUR nothing is as good',
      'Lent; went back. No fee.',
      'Gain for a quiet voice; Left over: 3.5 dB',
      'Not measured: handling',
      '−66.2 ±0.4 dB(A)',
      'No take from behind.',
      'Price: 120 EUR → 98 EUR, −18 %',
      'Place <span class="place num">1</span> of 2',
      'A loft by a harbour.',
      'Loud clip.',
      'Price: 130 EUR → 120 EUR',
      'Free to share, named',
    ])
      // prettier-ignore
      expect(html).toContain(text);
    expect(html).toContain('Thole Cheap · A: its clip was deleted');
    const evil = { ...edition().text, summary: '<script>alert(1)</script>', headline: '</title><script>' };
    const attacked = page({ edition: edition({ text: evil }) });
    expect(attacked.match(/<script>/g)).toHaveLength(1);
  });

  it('names in the data of a deck cannot end its script', () => {
    const decks = [{ ...edition().decks[0], lanes: [lane('</script><b>', 'this unit')] }];
    const html = page({ edition: edition({ decks }) });
    const data = /data-lanes="?(?:true)?"?>([\s\S]*?)<\/script>/.exec(html)?.[1] ?? '';
    expect((JSON.parse(data) as { lanes: { name: string }[] }).lanes[0].name).toBe('</script><b>');
  });

  it('says nothing of what is not there', () => {
    const bare = edition({ ranking: null, frontier: null, response: null, decks: [], claims: [], figures: [], changes: [], price: null }); // prettier-ignore
    const html = page({ edition: editionSchema.parse(bare), since: null });
    for (const text of [
      'Where it stands',
      'Frequency response',
      'Listen',
      'Claimed and measured',
      'Since then',
      'Changed in edition',
    ])
      // prettier-ignore
      expect(html).not.toContain(text);
  });
});

describe('Markdown of a person', () => {
  it('is shown as it was meant, its headings under those of the page', () => {
    expect(markdownHtml('## A\n\n*b* [c](https://d.example)')).toBe('<h4>A</h4>\n<p><em>b</em> <a href="https://d.example">c</a></p>\n'); // prettier-ignore
  });

  it.each([
    '<img src=x onerror=alert(1)>',
    '[x](javascript:alert(1))',
    '![x](https://elsewhere.example/x.png)',
    '<b>x',
  ])('%s runs and loads nothing', (text) => {
    expect(markdownHtml(text)).not.toMatch(/<(img|script|b)\b|<[^>]+(src=|href="javascript)/);
  });
});

describe('texts', () => {
  it('Markdown has a table of figures that a bar in a condition does not break', () => {
    const text = reviewMarkdown(edition());
    expect(text).toContain(
      '| Noise re speech, A-weighted | −66.2 ±0.4 dB(A) | gated \\| pauses | 2025-05-01, desk 2 |',
    );
    expect(text).toMatch(/^# Thole Quiet \(A\)\n/);
    expect(text).toContain('## Not for whom\n\n- Drums: it clips');
    expect(text).not.toMatch(/\n{3,}/);
  });

  it('a film’s text has the disclosure first, and keeps within a limit by leaving out whole parts, which it names', () => {
    const whole = filmText(edition());
    expect(whole.leftOut).toEqual([]);
    expect(whole.text.indexOf('Lent; went back')).toBeLessThan(whole.text.indexOf('0:00 Spoken passage'));
    expect(whole.text).toContain('Applied to what is heard: +6 dB');
    for (let most = 60; most <= whole.text.length; most += 7) {
      const { text, leftOut } = filmText(edition(), most);
      expect(text.length).toBeLessThanOrEqual(most);
      expect(leftOut.length > 0).toBe(most < whole.text.length);
    }
  });

  it('tells times as a film’s player reads them', () => {
    expect([0, 59.9, 60, 3599, 3600, 36_061].map(filmTime)).toEqual(['0:00', '0:59', '1:00', '59:59', '1:00:00', '10:01:01']); // prettier-ignore
  });
});

it('axes are marked at round values within their range', () => {
  expect(ticks(0, 649, 5)).toEqual([0, 200, 400, 600]);
  expect(ticks(2, 5, 4)).toEqual([2, 3, 4, 5]);
  expect(ticks(-12, 7, 4)).toEqual([-10, -5, 0, 5]);
});

it('a unit that was reviewed twice leads to its latest page, and under the number that it had before a merge as well', () => {
  const review = (slug: string, unit: string, published: string) => ({ slug, unit, edition: edition({ unit: { ...edition().unit, id: published } }) }); // prettier-ignore
  const pages = pagesOf([review('later', '1', '1'), review('earlier', '1', '1'), review('merged', '5', '3')]);
  expect([...pages]).toEqual([['1', 'later'], ['5', 'merged'], ['3', 'merged']]); // prettier-ignore
});

describe('pictures for a film', () => {
  const document = (svg: string | null) => new JSDOM(svg ?? '', { contentType: 'image/svg+xml' }).window.document.documentElement; // prettier-ignore

  it.each(Object.keys(PICTURES) as PictureKind[])(
    '%s stands by itself, in every size and theme, with unit, condition and mark',
    (kind) => {
      for (const size of Object.keys(PICTURE_SIZES) as PictureSize[])
        for (const theme of PICTURE_THEMES) {
          const svg = document(editionPicture(edition(), kind, size, theme));
          const { px } = PICTURE_SIZES[size];
          expect([svg.localName, svg.getAttribute('width'), svg.getAttribute('height')]).toEqual(['svg', String(px.width), String(px.height)]); // prettier-ignore
          const text = svg.textContent;
          expect(text).toContain('Thole Quiet A');
          expect(text).toContain('Tidewrack Audio Desk');
          expect(svg.outerHTML).not.toMatch(/href=|url\(|NaN|undefined/);
        }
      expect(editionPicture(edition(), kind, 'square', 'chalk')).not.toBe(editionPicture(edition(), kind, 'square', 'basalt')); // prettier-ignore
    },
  );

  it('nothing is drawn of what an edition does not have', () => {
    const bare = edition({ response: null, frontier: null, ranking: null, figures: [] });
    const drawn = (Object.keys(PICTURES) as PictureKind[]).filter((k) => editionPicture(bare, k, 'square', 'chalk') !== null); // prettier-ignore
    expect(drawn).toEqual(['lower-third']);
  });

  it('shows of a long ranking what stands around the unit', () => {
    const { ranking } = edition();
    const rows = Array.from({ length: 40 }, (_, i) => ({ ...ranking!.rows[0], unit: String(100 + i), name: `Unit ${i + 1}`, place: i + 1 })); // prettier-ignore
    const svg = document(editionPicture(edition({ ranking: { ...ranking!, own: '120', of: 40, rows } }), 'ranking', '1280x720', 'chalk')); // prettier-ignore
    const names = [...svg.querySelectorAll('text')].map((t) => t.textContent ?? '').filter((t) => t.startsWith('Unit'));
    expect(names).toHaveLength(9);
    expect(names).toContain('Unit 21');
    expect(svg.querySelector('.own-row')?.textContent).toContain('Unit 21');
  });
});

describe('a feed and what machines read', () => {
  const review = (id: string, days: readonly string[]): SiteReview => {
    const editions = days.map((publishedOn, i) => ({ edition: edition({ number: days.length - i, publishedOn }), sha256: `${id}${i}`.padEnd(64, '0') })); // prettier-ignore
    return { id, unit: '1', slug: `u-${id}`, edition: editions[0].edition, sha256: editions[0].sha256, since: [], editions }; // prettier-ignore
  };
  const content = (reviews: SiteReview[]): SiteContent => ({ desk: 'Desk', address: 'https://desk.example', day: '2026-01-01', reviews, kinds: [], packs: [] }); // prettier-ignore
  const titles = (xml: string) => [...xml.matchAll(/<entry>[\s\S]*?<title>(.*?)<\/title>[\s\S]*?<updated>(.*?)T/g)].map((m) => `${m[2]} ${m[1].slice(-11)}`); // prettier-ignore

  it('lists editions, the latest first, of one day the higher number first, and fifty at most', () => {
    const feed = atomFeed(
      content([review('1', ['2025-03-01', '2025-03-01', '2025-01-01']), review('2', ['2025-02-01'])]),
    );
    expect(titles(feed)).toEqual(['2025-03-01 (edition 3)', '2025-03-01 (edition 2)', '2025-02-01 ole Quiet A', '2025-01-01 ole Quiet A']); // prettier-ignore
    expect(feed).toContain('<updated>2025-03-01T00:00:00Z</updated>');
    const many = Array.from({ length: 60 }, (_, i) => review(String(i + 1), ['2025-01-01']));
    expect(titles(atomFeed(content(many)))).toHaveLength(50);
  });

  it('a review was published when its first edition was, and changed when its newest was', () => {
    const frame = { desk: 'Desk', address: '', style: '', reader: '', search: '', mark: '' };
    const data = reviewData(review('1', ['2025-03-01', '2025-01-01']), frame);
    expect(data).toMatchObject({ datePublished: '2025-01-01', dateModified: '2025-03-01', version: 2, reviewRating: { ratingValue: 4 } }); // prettier-ignore
    expect(data).not.toHaveProperty('url');
  });
});

it('a text that is exactly as long as it may be is left whole', () => {
  const { text } = filmText(edition());
  expect(filmText(edition(), text.length).leftOut).toEqual([]);
  expect(filmText(edition(), text.length - 1).leftOut).not.toEqual([]);
});
