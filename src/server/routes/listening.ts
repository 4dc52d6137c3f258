import { networkInterfaces } from 'node:os';
import type { NextFunction, Request, Response } from 'express';
import { z } from 'zod';
import { compareRequestSchema } from '#contracts/compare';
import { idSchema, nameSchema } from '#contracts/common';
import { ENDPOINTS } from '#contracts/http';
import { keySchema } from '#contracts/listening';
import { Failure } from '../platform/failure';
import type { Application } from '../wiring';
import { isLocalHost } from './caller';
import { handle, parse, plain, plainFile, type Site } from './handle';
import { sendPack } from './send-pack';
import { guessLimit, joinLimit, listeningLimit } from './limits';

const ok = { ok: true } as const;
const byId = z.object({ id: idSchema });
const clipParams = z.object({
  key: keySchema,
  trial: z.coerce.number().int().min(0).max(10_000),
  slot: z.string().regex(/^[A-Z]$/),
});
const panelClipParams = z.object({ id: idSchema, letter: z.string().regex(/^[A-Z]$/, 'must be a letter') });
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
  site: Site,
  {
    compare,
    compareSets,
    comparisonExport,
    tests,
    sittings,
    scale,
    placings,
    answersImport,
    performers,
    returnedAnswers,
    blindPacks,
    livePanels,
    vocabulary,
  }: Application,
  address: { readonly host: string; readonly port: number },
): void {
  handle(site, ENDPOINTS.compareSteps, () => compare.steps() as Promise<never[]>);
  handle(site, ENDPOINTS.compareCandidates, ({ params }) => compare.candidates(params.category, params.step));
  handle(site, ENDPOINTS.compareTable, ({ body }) => compare.table(body));
  handle(site, ENDPOINTS.compareDifference, ({ params }) => compare.difference(params.zero, params.other));
  handle(site, ENDPOINTS.compareSets, () => compareSets.list());
  handle(site, ENDPOINTS.compareSet, ({ params }) => compareSets.find(params.id));
  handle(site, ENDPOINTS.keepCompareSet, ({ body: { name, ...request } }) => compareSets.keep(name, request));
  handle(site, ENDPOINTS.removeCompareSet, async ({ params, body }) => {
    await compareSets.remove(params.id, body.removed);
    return ok;
  });

  handle(site, ENDPOINTS.listeningTests, () => tests.list());
  handle(site, ENDPOINTS.newListeningTest, ({ body }) => tests.create(body));
  handle(site, ENDPOINTS.listeningTest, ({ params }) => tests.page(params.id));
  handle(site, ENDPOINTS.prepareTest, async ({ params }) => {
    await tests.prepareAgain(params.id);
    return ok;
  });
  handle(site, ENDPOINTS.closeTest, async ({ params }) => {
    await tests.close(params.id);
    return tests.page(params.id);
  });
  handle(site, ENDPOINTS.revealTest, ({ params }) => tests.reveal(params.id));
  handle(site, ENDPOINTS.readReturned, ({ params, body }) => returnedAnswers.read(params.id, body.text));
  handle(site, ENDPOINTS.keepReturned, ({ params, body }) => returnedAnswers.keep(params.id, body));
  handle(site, ENDPOINTS.performerAnswer, async ({ params, body }) => {
    await performers.answer(params.id, body);
    return tests.page(params.id);
  });
  handle(site, ENDPOINTS.livePanel, ({ params }) => livePanels.page(params.id));
  handle(site, ENDPOINTS.leadPanel, ({ params, body }) => livePanels.lead(params.id, body));
  handle(site, ENDPOINTS.leaveOutSitting, async ({ params, body }) => {
    await tests.leaveOut(params.id, params.sitting, body.reason);
    return tests.page(params.id);
  });
  handle(site, ENDPOINTS.sameListener, async ({ params, body }) => {
    await tests.sameListener(params.id, body.as);
    return ok;
  });
  handle(site, ENDPOINTS.forgetAbout, async ({ params }) => {
    await tests.forgetAbout(params.id);
    return ok;
  });
  handle(site, ENDPOINTS.listenAddresses, () => Promise.resolve({ addresses: addresses(address) }));

  const [listening, guesses] = [listeningLimit(), guessLimit()];
  handle(site, ENDPOINTS.joinTest, ({ params, body }) => sittings.join(params.key, body), joinLimit(), guesses);
  handle(site, ENDPOINTS.sitting, ({ params }) => sittings.state(params.key), listening, guesses);
  handle(site, ENDPOINTS.sittingAbout, ({ params, body }) => sittings.about(params.key, body), listening, guesses);
  handle(
    site,
    ENDPOINTS.sittingHeadphones,
    ({ params, body }) => sittings.headphones(params.key, body),
    listening,
    guesses,
  );
  handle(site, ENDPOINTS.sittingAnswer, ({ params, body }) => sittings.answer(params.key, body), listening, guesses);
  handle(site, ENDPOINTS.panelScreen, ({ params }) => livePanels.screen(params.key), listening, guesses);
  handle(site, ENDPOINTS.panelSeat, ({ params }) => livePanels.seat(params.key), listening, guesses);
  handle(site, ENDPOINTS.sitInPanel, ({ params, body }) => livePanels.sit(params.key, body), listening, guesses);
  handle(site, ENDPOINTS.sittingReveal, ({ params }) => sittings.reveal(params.key), listening, guesses);

  handle(site, ENDPOINTS.scale, ({ body }) => scale.scale(body));
  handle(site, ENDPOINTS.vocabulary, ({ params }) => vocabulary.vocabulary(params.category));
  handle(site, ENDPOINTS.vocabularyWord, ({ params }) => vocabulary.word(params.category, params.word));
  handle(site, ENDPOINTS.meanWord, async ({ body }) => {
    await vocabulary.mean(body);
    return ok;
  });
  handle(site, ENDPOINTS.importAnswers, ({ body }) => answersImport.importCsv(body.csv, body.attribute, body.category));
  handle(site, ENDPOINTS.place, ({ params, body }) => placings.place(params.id, body));
  handle(site, ENDPOINTS.placeAnswer, ({ params, body }) => placings.placeAnswer(params.id, body));
  handle(site, ENDPOINTS.placeUndo, ({ params, body }) => placings.placeUndo(params.id, body));

  plain(site, 'blindClip', listening, guesses, async (request: Request, response: Response, next: NextFunction) => {
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

  plainFile(site, 'panelClip', async (request, response) => {
    const { id, letter } = parse(panelClipParams, request.params);
    const bytes = await livePanels.clip(id, letter);
    response.set('cache-control', 'no-store').type('audio/wav').send(Buffer.from(bytes));
  });

  plainFile(site, 'blindPackZip', async (request, response) => {
    await sendPack(await blindPacks.zip(parse(byId, request.params).id), request, response);
  });
  plainFile(site, 'blindPackPage', async ({ params }, response) => {
    const { name, html } = await blindPacks.page(parse(byId, params).id);
    // As a download alone: on this address it would run beside the archive.
    response.attachment(name).type('text/html; charset=utf-8').send(html);
  });
  plainFile(site, 'blindPackKey', async ({ params }, response) => {
    const { name, text } = await blindPacks.key(parse(byId, params).id);
    response.attachment(name).type('application/json; charset=utf-8').send(text);
  });

  plain(site, 'compareZip', async (request: Request, response: Response, next: NextFunction) => {
    try {
      const { takes, zero, match, from, to, name } = parse(zipQuery, request.query);
      const loop = from === undefined || to === undefined ? null : { fromS: from, toS: to };
      const body = parse(compareRequestSchema, { takes, zero, match, loop });
      const { path, cleanUp } = await comparisonExport.zip(body, name);
      response
        .attachment(`${name.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-') || 'comparison'}.zip`)
        .type('application/zip');
      response.sendFile(path, { dotfiles: 'allow' }, (error?: Error) => {
        void cleanUp();
        if (error && !response.headersSent) next(error);
      });
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
