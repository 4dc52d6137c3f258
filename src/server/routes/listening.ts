import { networkInterfaces } from 'node:os';
import type { Express, NextFunction, Request, Response } from 'express';
import { z } from 'zod';
import { compareRequestSchema } from '#contracts/compare';
import { idSchema, nameSchema } from '#contracts/common';
import { ENDPOINTS, PLAIN_PATHS } from '#contracts/http';
import { keySchema } from '#contracts/listening';
import { Failure } from '../failures';
import type { Application } from '../wiring';
import { isLocalHost } from './guard';
import { handle } from './handle';

const ok = { ok: true } as const;
const clipParams = z.object({
  key: keySchema,
  trial: z.coerce.number().int().min(0).max(10_000),
  slot: z.string().regex(/^[A-Z]$/),
});
const zipQuery = z.object({
  takes: z.string().transform((s) => s.split(',')),
  zero: idSchema,
  match: z.string().optional(),
  from: z.coerce.number().optional(),
  to: z.coerce.number().optional(),
  name: nameSchema.default('Comparison'),
});

/** Comparing, listening tests, the scale. */
export function listeningRoutes(
  app: Express,
  { compare, tests, sittings, scale }: Application,
  address: { readonly host: string; readonly port: number },
): void {
  handle(app, ENDPOINTS.compareSteps, () => compare.steps() as Promise<never[]>);
  handle(app, ENDPOINTS.compareCandidates, ({ params }) => compare.candidates(params.category, params.step));
  handle(app, ENDPOINTS.compareTable, ({ body }) => compare.table(body));
  handle(app, ENDPOINTS.compareDifference, ({ params }) => compare.difference(params.zero, params.other));
  handle(app, ENDPOINTS.compareSets, () => compare.sets());
  handle(app, ENDPOINTS.compareSet, ({ params }) => compare.set(params.id));
  handle(app, ENDPOINTS.keepCompareSet, ({ body: { name, ...request } }) => compare.keep(name, request));
  handle(app, ENDPOINTS.removeCompareSet, async ({ params, body }) => {
    await compare.remove(params.id, body.removed);
    return ok;
  });

  handle(app, ENDPOINTS.listeningTests, () => tests.list());
  handle(app, ENDPOINTS.newListeningTest, ({ body }) => tests.create(body));
  handle(app, ENDPOINTS.listeningTest, ({ params }) => tests.page(params.id));
  handle(app, ENDPOINTS.prepareTest, async ({ params }) => {
    await tests.prepareAgain(params.id);
    return ok;
  });
  handle(app, ENDPOINTS.closeTest, async ({ params }) => {
    await tests.close(params.id);
    return tests.page(params.id);
  });
  handle(app, ENDPOINTS.revealTest, ({ params }) => tests.reveal(params.id));
  handle(app, ENDPOINTS.performerAnswer, ({ params, body }) => tests.performerAnswer(params.id, body));
  handle(app, ENDPOINTS.leaveOutSitting, async ({ params, body }) => {
    await tests.leaveOut(params.id, params.sitting, body.reason);
    return tests.page(params.id);
  });
  handle(app, ENDPOINTS.forgetAbout, async ({ params }) => {
    await tests.forgetAbout(params.id);
    return ok;
  });
  handle(app, ENDPOINTS.listenAddresses, () => Promise.resolve({ addresses: addresses(address) }));

  handle(app, ENDPOINTS.joinTest, ({ params, body }) => sittings.join(params.key, body.name));
  handle(app, ENDPOINTS.sitting, ({ params }) => sittings.state(params.key));
  handle(app, ENDPOINTS.sittingAbout, ({ params, body }) => sittings.about(params.key, body));
  handle(app, ENDPOINTS.sittingHeadphones, ({ params, body }) => sittings.headphones(params.key, body));
  handle(app, ENDPOINTS.sittingAnswer, ({ params, body }) => sittings.answer(params.key, body));
  handle(app, ENDPOINTS.sittingReveal, ({ params }) => sittings.reveal(params.key));

  handle(app, ENDPOINTS.scale, ({ body }) => scale.scale(body));
  handle(app, ENDPOINTS.importAnswers, ({ body }) => scale.importCsv(body.csv, body.attribute, body.category));
  handle(app, ENDPOINTS.place, ({ params, body }) => scale.place(params.id, body));
  handle(app, ENDPOINTS.placeAnswer, ({ params, body }) => scale.placeAnswer(params.id, body));
  handle(app, ENDPOINTS.placeUndo, ({ params, body }) => scale.placeUndo(params.id, body));

  app.get(PLAIN_PATHS.blindClip, async (request: Request, response: Response, next: NextFunction) => {
    try {
      const params = clipParams.safeParse(request.params);
      if (!params.success) throw new Failure('not-found', 'There is no such clip.');
      const { key, trial, slot } = params.data;
      const bytes = await sittings.clip(key, trial, slot);
      // No name, no date, no tag that would be the same for the same clip.
      response.set('cache-control', 'no-store').removeHeader('etag');
      response.writeHead(200, { 'content-type': 'audio/wav', 'content-length': bytes.length });
      response.end(bytes);
    } catch (error) {
      next(error);
    }
  });

  app.get(PLAIN_PATHS.compareZip, async (request: Request, response: Response, next: NextFunction) => {
    try {
      const query = zipQuery.safeParse(request.query);
      const { takes, zero, match, from, to, name } = query.data ?? { takes: [], zero: '', name: '' };
      const body = compareRequestSchema.safeParse({
        takes,
        zero,
        match,
        loop: from === undefined || to === undefined ? null : { fromS: from, toS: to },
      });
      if (!body.success) throw new Failure('invalid-request', 'This comparison cannot be exported as it is asked for.');
      const { zip, cleanUp } = await compare.exportZip(body.data, name);
      response
        .attachment(`${name.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-') || 'comparison'}.zip`)
        .type('application/zip');
      response.on('close', () => void cleanUp());
      zip.on('error', next);
      zip.pipe(response);
    } catch (error) {
      next(error);
    }
  });
}

/** Addresses by which other devices reach this server; none where it listens to this machine alone. */
function addresses({ host, port }: { readonly host: string; readonly port: number }): string[] {
  if (isLocalHost(host)) return [];
  if (host !== '0.0.0.0' && host !== '::') return [`http://${host}:${port}`];
  return Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter((a) => a.family === 'IPv4' && !a.internal)
    .map((a) => `http://${a.address}:${port}`);
}
