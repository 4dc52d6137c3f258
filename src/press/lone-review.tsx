import { lonePage } from './page-shell';
import type { PublishedReview } from './review/published';
import { ReviewBody } from './review/review-body';
import { PAGE_STYLE } from './style';

/** A clip inside a page. */
export interface InnerClip {
  readonly id: string;
  readonly base64: string;
}

/**
 * A review as one HTML file: everything is inside, nothing is asked for from outside; or with its clips in files beside it.
 *
 * @param review - what is published; its clips stand inside, or in scripts
 * @param clips - by the ids that the review names
 * @param script - the reader's script
 */
export function loneReview(review: PublishedReview, clips: readonly InnerClip[], script: string): string {
  const bringsFiles = review.edition.decks.some((d) => d.lanes.some((lane) => review.clipOf(lane).kind === 'script'));
  const { unit, text } = review.edition;
  return lonePage({
    title: `${unit.maker} ${unit.model}: ${text.headline}`,
    description: text.headline,
    style: PAGE_STYLE,
    script,
    blocks: clips.map(({ id, base64 }) => ({ id, text: base64 })),
    bringsFiles,
    body: <ReviewBody review={review} />,
  });
}
