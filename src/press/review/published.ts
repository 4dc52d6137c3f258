import type { Edition, FrozenDeck } from '#contracts/edition';
import type { EditionChange } from '#contracts/review';

/** Where a page finds a clip: in itself, in a file or a script beside it, or not at all. */
export type ClipPlace =
  | { readonly kind: 'inside'; readonly id: string }
  | { readonly kind: 'file'; readonly href: string }
  | { readonly kind: 'script'; readonly href: string }
  | { readonly kind: 'gone'; readonly why: string };

/** An edition with what a page needs beside it. */
export interface PublishedReview {
  readonly edition: Edition;
  readonly sha256: string;
  /** What has changed since; empty where nothing has, null where nobody looked. */
  readonly since: readonly EditionChange[] | null;
  /** The day on which somebody looked. */
  readonly seenOn: string;
  /** Other editions of this review, newest first, with their addresses; none in a file that stands alone. */
  readonly editions: readonly { readonly number: number; readonly publishedOn: string; readonly href: string }[];
  readonly clipOf: (lane: FrozenDeck['lanes'][number]) => ClipPlace;
  /** Addresses of photographs by hash; null where they are not handed out. */
  readonly pictureOf: (sha256: string, format: string) => string | null;
  /** Pages of other units by their number in the archive; empty in a file that stands alone. */
  readonly pageOf: (unit: string) => string | null;
}

/** What a clip with its gain is called, in files and inside pages. */
export const clipKey = ({ sha256, appliedDb }: Pick<FrozenDeck['lanes'][number], 'sha256' | 'appliedDb'>): string =>
  `${sha256.slice(0, 16)}${appliedDb < 0 ? 'm' : 'p'}${Math.round(Math.abs(appliedDb) * 100)}`;
