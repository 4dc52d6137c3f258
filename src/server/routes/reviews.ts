import { ENDPOINTS } from '#contracts/http';
import type { Application } from '../wiring';
import { handle, type Site } from './handle';

/** Reviews and their editions: parse, call, answer. */
export function reviewRoutes(site: Site, { reviews, house }: Application): void {
  handle(site, ENDPOINTS.reviews, () => reviews.list());
  handle(site, ENDPOINTS.openReview, ({ body }) => reviews.open(body.unit));
  handle(site, ENDPOINTS.review, ({ params }) => reviews.get(params.id));
  handle(site, ENDPOINTS.saveReview, ({ params, body }) => reviews.save(params.id, body.revision, body.document));
  handle(site, ENDPOINTS.discardReview, async ({ params }) => {
    await reviews.discard(params.id);
    return { ok: true } as const;
  });
  handle(site, ENDPOINTS.publishReview, ({ params, body }) => reviews.publish(params.id, body.revision));
  handle(site, ENDPOINTS.edition, async ({ params }) => (await reviews.edition(params.id)).edition);
  handle(site, ENDPOINTS.house, () => house.current());
  handle(site, ENDPOINTS.saveHouse, ({ body }) => house.save(body));
}
