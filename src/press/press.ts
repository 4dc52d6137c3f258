/** What the server makes pages and texts with. */
export { clipScript } from './clip-script';
export { bagTags, tagManifest } from './bagit';
export { blindPackPage, packReadMe, type BlindPackPage } from './blind/blind-pack-page';
export { editionPicture, sharedPicture } from './picture';
export { loneReview, type InnerClip } from './lone-review';
export { clipKey, type ClipPlace } from './review/published';
export { filmText, reviewMarkdown, type LimitedText } from './review-text';
export { MARK, PAGE_STYLE } from './style';
export { atomFeed, siteMap } from './site/feed';
export { reviewPage, type ReviewFiles } from './site/review-pages';
export { editionPath, kindPath, packKeyPath, packPath, pagesOf, reviewPath, slugOf, type SiteContent, type SiteKind, type SitePack, type SiteRankRow, type SiteReview } from './site/site-content'; // prettier-ignore
export { allPage, blindPage, frontPage, kindPage } from './site/site-pages';
export type { SiteFrame } from './site/site-page';
