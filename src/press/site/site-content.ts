import type { Edition } from '#contracts/edition';
import type { EditionChange } from '#contracts/review';

/** A review as a site shows it: its newest edition, and all that were before. */
export interface SiteReview {
  readonly id: string;
  /** Number of its unit today: it may have been merged into another one. */
  readonly unit: string;
  /** Its folder under reviews/: of the names of its first edition, so that an address stays. */
  readonly slug: string;
  readonly edition: Edition;
  readonly sha256: string;
  readonly since: readonly EditionChange[];
  /** All editions, newest first, this one among them. */
  readonly editions: readonly { readonly edition: Edition; readonly sha256: string }[];
}

/** Where a unit of a kind stands today. */
export interface SiteRankRow {
  readonly unit: string;
  readonly name: string;
  readonly place: number;
  readonly stratum: number;
  readonly composite: number;
  readonly composite90: readonly [number, number];
}

/** A kind of gear as a site shows it. */
export interface SiteKind {
  readonly id: string;
  readonly name: string;
  readonly rulesVersion: number;
  readonly stratumProbability: number;
  readonly ranking: readonly SiteRankRow[];
  /** The best for each use that has weights of its own. */
  readonly uses: readonly { readonly name: string; readonly rows: readonly SiteRankRow[] }[];
  readonly frontier: Edition['frontier'];
  readonly records: readonly {
    readonly name: string;
    readonly value: string;
    readonly unit: string;
    readonly holder: string;
    readonly since: string;
  }[];
}

/** A blind pack on a site: sealed, or opened with what its answers said. */
export interface SitePack {
  readonly tag: string;
  readonly title: string;
  readonly question: string;
  readonly sealedOn: string;
  readonly revealOn: string;
  readonly keySha256: string;
  readonly opened: { readonly code: string; readonly sentences: readonly string[] } | null;
  /** Whether all of its clips are still there: one that was deleted takes the page that plays it with it. */
  readonly isPlayable: boolean;
}

/** Everything that a site says. */
export interface SiteContent {
  readonly desk: string;
  readonly address: string;
  /** The day on which it was made. */
  readonly day: string;
  /** Latest first. */
  readonly reviews: readonly SiteReview[];
  readonly kinds: readonly SiteKind[];
  /** Latest first. */
  readonly packs: readonly SitePack[];
}

/** Pages of units: of one that was reviewed again the latest. */
export function pagesOf(reviews: readonly Pick<SiteReview, 'unit' | 'slug' | 'edition'>[]): Map<string, string> {
  const pages = new Map<string, string>();
  for (const { unit, slug, edition } of reviews)
    for (const id of [unit, edition.unit.id]) if (!pages.has(id)) pages.set(id, slug);
  return pages;
}

export const reviewPath = (slug: string): string => `reviews/${slug}/index.html`;
export const editionPath = (slug: string, number: number): string => `reviews/${slug}/edition-${number}.html`;
export const packPath = (tag: string): string => `blind/${tag}.html`;
export const packKeyPath = (tag: string): string => `blind/${tag}-key.json`;
export const kindPath = (id: string): string => `kinds/${id}.html`;

/** Names as a folder has them. */
export const slugOf = (text: string): string =>
  text
    .normalize('NFKD')
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^-+|-+$/g, '')
    .slice(0, 80) || 'review';
