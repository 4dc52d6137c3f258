import type { ReviewDocument } from '#contracts/review';
import type { Application } from '../wiring';

/**
 * Writes a review of a unit and publishes it.
 *
 * @param change - of what is written; a headline and a summary are there
 * @returns number of the review, and of its edition
 */
export async function publishedReview(
  { reviews }: Application,
  unit: string,
  change: Partial<ReviewDocument> = {},
): Promise<{ readonly review: string; readonly edition: string }> {
  const { id } = await reviews.open(unit);
  const { document, revision } = await reviews.get(id);
  const saved = await reviews.save(id, revision, { ...document, headline: 'Quiet', summary: 'As it is.', ...change });
  const { editions } = await reviews.publish(id, saved.revision);
  return { review: id, edition: editions[0].id };
}
