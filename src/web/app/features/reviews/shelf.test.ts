import { describe, expect, it } from 'vitest';
import type { ReviewRow } from '#contracts/review';
import { ON_ONE_PAGE, shelfPage, sinceWords, tooLargeWords } from './shelf';

const row = (id: number, change: Partial<ReviewRow> = {}): ReviewRow => ({
  id: String(id),
  unit: { id: '1', name: `Oarlock Purser · ${id}`, category: 'microphone' },
  openedOn: '2026-01-01',
  headline: 'Quiet where it counts',
  editions: 1,
  publishedOn: '2026-01-02',
  ...change,
});

describe('the list of reviews', () => {
  const rows = Array.from({ length: 2 * ON_ONE_PAGE + 1 }, (_, i) => row(i));
  const ids = (page: number, typed = '') => shelfPage(rows, typed, page).rows.map((r) => r.id);

  it('is shown in pages, each review on one of them', () => {
    expect(shelfPage(rows, '', 0)).toMatchObject({ found: 121, page: 0, last: 2 });
    expect([...ids(0), ...ids(1), ...ids(2)]).toEqual(rows.map((r) => r.id));
    expect(ids(2)).toEqual(['120']);
    // What was found on page 3 may be on page 1 after something is typed; a page that is not there is the last.
    expect(shelfPage(rows, '· 120', 2)).toMatchObject({ found: 1, page: 0, last: 0 });
    expect(shelfPage([], '', 0)).toEqual({ rows: [], found: 0, page: 0, last: 0 });
    expect(shelfPage(rows.slice(0, ON_ONE_PAGE), '', 0).last).toBe(0);
  });

  it('is searched by unit, headline and day; a draft by that word', () => {
    const some = [row(1), row(2, { headline: 'Loud', publishedOn: null }), row(3, { publishedOn: '2025-12-31' })];
    const found = (typed: string) => shelfPage(some, typed, 0).rows.map((r) => r.id);
    expect(found('quiet purs')).toEqual(['1', '3']);
    expect(found('draft')).toEqual(['2']);
    expect(found('2025')).toEqual(['3']);
    expect(found('nothing of it')).toEqual([]);
  });
});

it('one file that would be too large is told with what can be done, before it is asked for', () => {
  expect(tooLargeWords({ bytes: 60e6, most: 60e6 })).toBe('');
  expect(tooLargeWords({ bytes: 143.2e6, most: 60e6 })).toMatch(/would have 143\.2 MB; up to 60\.0 MB .* folder\.$/);
});

describe('since then', () => {
  const change = (text: string) => ({ what: 'price', text }) as const;
  const words = (held: Parameters<typeof sinceWords>[1], of = row(1)) => sinceWords(of, held).map((w) => w.text);

  it('says one change, counts several, and says nothing only where somebody looked', () => {
    expect(words(null)).toEqual(['looking …']);
    expect(words({ id: '1', marks: 0, since: [] })).toEqual(['nothing']);
    expect(words({ id: '1', marks: 0, since: [change('Price: 2 EUR')] })).toEqual(['Price: 2 EUR']);
    expect(words({ id: '1', marks: 1, since: [change('a'), change('b')] })).toEqual(['2 changes', 'one line rests on changed facts']); // prettier-ignore
    // Of a draft nothing was published: only its lines can be old.
    expect(words({ id: '1', marks: 0, since: [] }, row(1, { publishedOn: null }))).toEqual([]);
    expect(words({ id: '1', marks: 2, since: [] }, row(1, { publishedOn: null }))).toEqual(['2 lines rest on changed facts']); // prettier-ignore
    expect(sinceWords(row(1), { id: '1', marks: 0, since: [] })[0].isChange).toBe(false);
  });
});
