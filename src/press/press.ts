/** What the server makes pages and texts with. */
export { loneReview, type InnerClip } from './lone-review';
export { clipKey, type PublishedReview } from './review/published';
export { filmText, reviewMarkdown, type LimitedText } from './review-text';
