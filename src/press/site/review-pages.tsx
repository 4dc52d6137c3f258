import type { Edition } from '#contracts/edition';
import type { EditionChange } from '#contracts/review';
import type { ClipPlace } from '../review/published';
import { ReviewBody } from '../review/review-body';
import { reviewData } from './review-data';
import { editionPath, reviewPath, type SiteReview } from './site-content';
import { sitePage, way, type SiteFrame } from './site-page';

/** Where a page of a review finds what is not text; paths in the site. */
export interface ReviewFiles {
  readonly clip: (lane: Edition['decks'][number]['lanes'][number]) => string | null;
  readonly picture: (sha256: string, format: string) => string | null;
  /** Path of the picture that goes with a link to the page. */
  readonly shared: string | null;
  /** Slugs of reviews by the unit they are of. */
  readonly pages: ReadonlyMap<string, string>;
}

/** A page of an edition: the newest one at the address of the review, an older one beside it. */
export function reviewPage(
  review: SiteReview,
  shown: { readonly edition: Edition; readonly sha256: string },
  frame: SiteFrame,
  files: ReviewFiles,
  day: string,
): string {
  const { slug } = review;
  const isNewest = shown.edition.number === review.edition.number;
  const path = isNewest ? reviewPath(slug) : editionPath(slug, shown.edition.number);
  const { unit, text } = shown.edition;
  const replaced: EditionChange[] = [{ what: 'text', text: `Replaced by edition ${review.edition.number} of ${review.edition.publishedOn}` }]; // prettier-ignore
  const clipOf = (lane: Edition['decks'][number]['lanes'][number]): ClipPlace => {
    const at = files.clip(lane);
    return at === null ? { kind: 'gone', why: 'its clip was deleted from the archive' } : { kind: 'file', href: way(path, at) }; // prettier-ignore
  };
  return sitePage({
    frame,
    path,
    title: `${unit.maker} ${unit.model} ${unit.label}: ${text.headline}`,
    description: text.headline,
    picture: files.shared,
    scripts: shown.edition.decks.length > 0 ? ['reader'] : [],
    data: isNewest ? reviewData(review, frame) : null,
    body: (
      <ReviewBody
        review={{
          edition: shown.edition,
          sha256: shown.sha256,
          since: isNewest ? review.since : replaced,
          seenOn: day,
          editions: review.editions.map(({ edition }) => ({
            number: edition.number,
            publishedOn: edition.publishedOn,
            href: way(
              path,
              edition.number === review.edition.number ? reviewPath(slug) : editionPath(slug, edition.number),
            ),
          })),
          clipOf,
          pictureOf: (sha256, format) => {
            const at = files.picture(sha256, format);
            return at === null ? null : way(path, at);
          },
          pageOf: (id) => {
            const other = files.pages.get(id);
            return other === undefined || id === unit.id ? null : way(path, reviewPath(other));
          },
        }}
      />
    ),
  });
}
