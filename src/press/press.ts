/** What the server makes pages with. */
export { loneReview, type InnerClip } from './lone-review';
export { clipKey, type PublishedReview } from './review/published';
