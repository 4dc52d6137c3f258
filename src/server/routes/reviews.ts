import { join } from 'node:path';
import type { RequestHandler } from 'express';
import { z } from 'zod';
import { categorySchema, idSchema } from '#contracts/common';
import { ENDPOINTS } from '#contracts/http';
import { pictureKindSchema, pictureQuerySchema } from '#contracts/picture';
import { packingSchema } from '#contracts/site';
import { CSV_STYLES, type CsvStyle } from '#domain/tables/csv';
import { isAtThisMachine } from '../platform/acting';
import { Failure } from '../platform/failure';
import { clipsAs, packingOf } from '../publish/packing';
import { sendPack } from './send-pack';
import type { Application } from '../wiring';
import { handle, parse, plainFile, type Site } from './handle';

/** Reviews and their editions: parse, call, answer. */
export function reviewRoutes(site: Site, application: Application): void {
  const { reviews, house, site: publishing, status, handouts } = application;
  handle(site, ENDPOINTS.reviews, () => reviews.list());
  handle(site, ENDPOINTS.reviewsOfUnit, ({ params }) => reviews.listOf(params.id));
  handle(site, ENDPOINTS.heldReviews, ({ params }) => reviews.held(params.ids));
  handle(site, ENDPOINTS.unitCharacter, ({ params }) => reviews.character(params.id));
  handle(site, ENDPOINTS.openReview, ({ body }) => reviews.open(body.unit));
  handle(site, ENDPOINTS.review, ({ params }) => reviews.get(params.id));
  handle(site, ENDPOINTS.saveReview, ({ params, body }) => reviews.save(params.id, body.revision, body.document));
  handle(site, ENDPOINTS.discardReview, async ({ params }) => {
    await reviews.discard(params.id);
    return { ok: true } as const;
  });
  handle(site, ENDPOINTS.publishReview, ({ params, body }) => reviews.publish(params.id, body.revision));
  handle(site, ENDPOINTS.edition, async ({ params }) => (await reviews.edition(params.id)).edition);
  handle(site, ENDPOINTS.editionSize, ({ params }) => handouts.pageSize(params.id, clipsAs(params.clips)));
  handle(
    site,
    ENDPOINTS.publishSite,
    ({ body: { out, clips } }) => publishing.publish(out ?? join(status.dataFolder, 'site'), clipsAs(clips)),
    atThisMachine,
  );
  handle(site, ENDPOINTS.house, () => house.current());
  handle(site, ENDPOINTS.saveHouse, ({ body }) => house.save(body));
}

/** Folders of a machine are written from there alone, whoever else may read and write the archive. */
const atThisMachine: RequestHandler = (_request, _response, next) => {
  if (isAtThisMachine()) next();
  else next(new Failure('token-needed', 'The site is written at the machine that holds the archive.'));
};

const byId = z.object({ id: idSchema });
const byCategory = z.object({ category: categorySchema });
const pageQuery = z.object({ clips: z.union([packingSchema, z.literal('none')]).default('flac') });
const packQuery = z.object({ clips: packingSchema.default('flac') });
const filmQuery = z.object({ most: z.coerce.number<string>().int().min(200).max(100_000).optional() });
const csvQuery = z.object({ style: z.enum(Object.keys(CSV_STYLES) as [CsvStyle, ...CsvStyle[]]).default('comma') });

/** Spreadsheets take a text for UTF-8 where it begins with this mark. */
const BYTE_ORDER_MARK = '\ufeff';

/** Reviews and tables as files. */
export function handoutRoutes(site: Site, { handouts, tables, packs }: Application): void {
  plainFile(site, 'editionPage', async ({ params, query }, response) => {
    const { clips } = parse(pageQuery, query);
    const packing = packingOf(clips);
    const { name, html } = await handouts.page(parse(byId, params).id, packing);
    // As a download alone: on this address it would run beside the archive.
    response.attachment(name).type('text/html; charset=utf-8').send(html);
  });
  plainFile(site, 'editionFolder', async (request, response) => {
    const { clips } = parse(packQuery, request.query);
    await sendPack(await handouts.folder(parse(byId, request.params).id, clipsAs(clips)), request, response);
  });
  plainFile(site, 'editionMarkdown', async ({ params }, response) => {
    const { name, text } = await handouts.markdown(parse(byId, params).id);
    response.attachment(name).type('text/markdown; charset=utf-8').send(text);
  });
  plainFile(site, 'editionFilm', async ({ params, query }, response) => {
    const { name, text, leftOut } = await handouts.film(parse(byId, params).id, parse(filmQuery, query).most);
    if (leftOut.length > 0) response.setHeader('Sediment-Left-Out', leftOut.join(', '));
    response.attachment(name).type('text/plain; charset=utf-8').send(text);
  });
  plainFile(site, 'editionDocument', async ({ params }, response) => {
    const { name, json } = await handouts.document(parse(byId, params).id);
    response.attachment(name).type('application/json; charset=utf-8').send(json);
  });
  plainFile(site, 'editionPicture', async ({ params, query }, response) => {
    const { id, kind } = parse(byId.extend({ kind: pictureKindSchema }), params);
    const { size, theme } = parse(pictureQuerySchema, query);
    const { name, svg } = await handouts.picture(id, kind, size, theme);
    response.attachment(name).type('image/svg+xml').send(svg);
  });
  plainFile(site, 'editionPack', async (request, response) => {
    const { clips } = parse(packQuery, request.query);
    const pack = await packs.of(parse(byId, request.params).id, clipsAs(clips));
    await sendPack(pack, request, response);
  });
  for (const [csv, json, table] of [
    ['rankingCsv', 'rankingJson', 'ranking'],
    ['boardCsv', 'boardJson', 'board'],
  ] as const) {
    plainFile(site, csv, async ({ params, query }, response) => {
      const { category } = parse(byCategory, params);
      const text = await tables.csv(table, category, parse(csvQuery, query).style);
      response
        .attachment(`${table}-${category}.csv`)
        .type('text/csv; charset=utf-8')
        .send(BYTE_ORDER_MARK + text);
    });
    plainFile(site, json, async ({ params }, response) => {
      const { category } = parse(byCategory, params);
      const text = JSON.stringify(await tables[table](category), null, 2);
      response.attachment(`${table}-${category}.json`).type('application/json; charset=utf-8').send(text);
    });
  }
}
