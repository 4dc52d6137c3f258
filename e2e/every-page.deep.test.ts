import { beforeAll, describe, expect, it } from 'vitest';
import { SHIPPED_KIND_IDS } from '#core/gear/kinds';
import { seriousFindings } from './axe';
import { takeKeptDemo } from './demo-cache';
import { stage } from './support';

/** What of the demo has a page of its own. */
interface Demo {
  /** First unit of a kind; of microphones the one that ranks first. */
  readonly unitOf: (kind: string) => string;
  readonly plan: string;
  readonly test: string;
  readonly pack: string;
  readonly panel: string;
  readonly day: string;
  readonly take: string;
  readonly published: string;
  readonly draft: string;
}

/** Every page of the owner’s, by what it shows: one test each, so that a slow machine takes long and fails none. */
const PAGES: readonly (readonly [name: string, path: (demo: Demo) => string])[] = [
  ['the bench', () => '/bench'],
  ['protocols', () => '/protocols'],
  ['a protocol', () => '/protocols/desk-voice/3'],
  ['a protocol being changed', () => '/protocols/desk-voice/3/edit'],
  ['rigs', () => '/rigs'],
  ['sessions', () => '/sessions'],
  ['a new session', () => '/sessions/new'],
  ['a session', (demo) => `/sessions/${demo.plan}`],
  ['a day', (demo) => `/days/${demo.day}`],
  ['a new run', () => '/new-run'],
  ['sums', () => '/sums'],
  ['a sum with its values', () => '/sums?sum=headphones&load=32&open=2&perMw=98'],
  ['gear', () => '/gear'],
  ['gear of one kind', () => '/gear?kind=microphone'],
  ...[...SHIPPED_KIND_IDS, 'portable-recorder'].map(
    (kind) => [`a unit of the kind ${kind}`, (demo: Demo) => `/gear/${demo.unitOf(kind)}`] as const,
  ),
  ['a take', (demo) => `/takes/${demo.take}`],
  ['comparing', (demo) => `/compare?takes=${demo.take}`],
  ['listening', () => '/listening'],
  ['a new listening test', () => '/listening/new'],
  ['a listening test', (demo) => `/listening/${demo.test}`],
  ['a blind pack', (demo) => `/listening/${demo.pack}`],
  ['a live panel', (demo) => `/listening/${demo.panel}`],
  ['the screen of whoever leads it', (demo) => `/listening/${demo.panel}/panel`],
  ['words over the years', () => '/listening/words?word=boxy'],
  ['reviews', () => '/reviews'],
  ['how this desk reviews', () => '/reviews/house'],
  ['a published review', (demo) => `/reviews/${demo.published}`],
  ['a draft of a review', (demo) => `/reviews/${demo.draft}`],
  ['the scale', () => '/scale'],
  ['a place on the scale', (demo) => `/scale/place/${demo.unitOf('microphone')}`],
  ['the ranking', () => '/ranking'],
  ['the board of interfaces', () => '/ranking?kind=interface&view=board'],
  ['prices', () => '/ranking?view=price&upTo=400'],
  ['tables side by side', () => '/ranking?kind=interface&view=tables'],
  ['records', () => '/ranking?view=records'],
  ['who moved', () => '/ranking?view=moved&since=2024-01-01'],
  ['the ranking of a day', () => '/ranking?on=2023-06-01'],
  ['the ranking for a use', () => '/ranking?use=on%20a%20camera&basis=to-use'],
  ['rules', () => '/rules?kind=interface'],
  ['an own kind', () => '/kinds?kind=portable-recorder'],
  ['the archive', () => '/archive'],
];

describe('every page of the demo', () => {
  const { open, address } = stage(takeKeptDemo, ['--demo']);
  let demo: Demo;

  beforeAll(async () => {
    const ask = async <T>(path: string): Promise<T> => (await (await fetch(address() + path)).json()) as T;
    const units = await ask<{ id: string; category: string; place: number | null }[]>('/api/specimens');
    const [plan] = await ask<{ id: string }[]>('/api/plans');
    const tests = await ask<{ id: string; design: string }[]>('/api/listening');
    const reviews = await ask<{ id: string; publishedOn: string | null }[]>('/api/reviews');
    const idOf = (found: { id: string } | undefined, what: string): string => {
      if (!found) throw new Error(`the demo has no ${what}`);
      return found.id;
    };
    const unitOf = (kind: string): string =>
      idOf(
        units.find((u) => u.category === kind && (kind !== 'microphone' || u.place === 1)),
        kind,
      );
    const { runs } = await ask<{ runs: { date: string; takes: { id: string }[] }[] }>(
      `/api/specimens/${unitOf('microphone')}`,
    );
    demo = {
      unitOf,
      plan: plan.id,
      test: idOf(
        tests.find((t) => t.design === 'heats'),
        'listening test',
      ),
      pack: idOf(
        tests.find((t) => t.design === 'pack'),
        'blind pack',
      ),
      panel: idOf(
        tests.find((t) => t.design === 'panel'),
        'live panel',
      ),
      day: runs[0].date,
      take: runs[0].takes[0].id,
      published: idOf(
        reviews.find((r) => r.publishedOn !== null),
        'published review',
      ),
      draft: idOf(
        reviews.find((r) => r.publishedOn === null),
        'draft',
      ),
    };
  });

  it.each(PAGES)('%s shuts nobody out, and fits a phone', async (_name, pathOf) => {
    const { page, errors } = await open(pathOf(demo));
    await page.locator('main h1').first().waitFor();
    const busy = (): Promise<number> => page.locator('[aria-busy=true]').count();
    await expect.poll(busy).toBe(0);
    expect(await seriousFindings(page)).toEqual([]);
    await page.setViewportSize({ width: 390, height: 844 });
    const widest = (): Promise<number> =>
      page.evaluate(() =>
        Math.max(document.documentElement.scrollWidth, document.querySelector('main')?.scrollWidth ?? 0),
      );
    // Pictures are drawn anew when the page has become narrow.
    await expect.poll(widest).toBeLessThanOrEqual(390);
    await expect.poll(busy).toBe(0);
    expect(await widest()).toBeLessThanOrEqual(390);
    expect(errors).toEqual([]);
    await page.context().close();
  });
});
