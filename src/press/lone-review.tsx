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
 * A review as one HTML file: everything is inside, nothing is asked for from outside.
 *
 * @param review - what is published; its clips stand inside
 * @param clips - by the ids that the review names
 * @param script - the reader's script
 */
export function loneReview(review: PublishedReview, clips: readonly InnerClip[], script: string): string {
  const { unit, text } = review.edition;
  return lonePage({
    title: `${unit.maker} ${unit.model}: ${text.headline}`,
    description: text.headline,
    style: PAGE_STYLE,
    script,
    blocks: clips.map(({ id, base64 }) => ({ id, text: base64 })),
    body: <ReviewBody review={review} />,
  });
}
