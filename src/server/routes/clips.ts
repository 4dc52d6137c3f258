import type { NextFunction, Request, Response } from 'express';
import { z } from 'zod';
import { sha256Schema } from '#contracts/common';
import { ENDPOINTS } from '#contracts/http';
import { uploadIdSchema, uploadNameSchema } from '#contracts/upload';
import { Failure } from '../platform/failure';
import type { Application } from '../wiring';
import { handle, parse, plain, type Site } from './handle';
import { atOnce, LIMITS } from './limits';

const uploadQuery = z.object({
  name: uploadNameSchema,
  keepPart: z.literal('1').optional(),
  decoded: sha256Schema.optional(),
});
const partParams = z.object({ id: uploadIdSchema, offset: z.coerce.number().int().min(0) });

/** Upload and playback: bytes in, bytes out. */
export function clipRoutes(site: Site, { ingest, store, uploads }: Application): void {
  const fewAtOnce = atOnce(LIMITS.uploadsAtOnce, 4 * LIMITS.uploadsAtOnce, 'Many uploads are running already.');
  plain(site, 'upload', fewAtOnce, async (request: Request, response: Response, next: NextFunction) => {
    try {
      const { name, keepPart, decoded } = parse(uploadQuery, request.query);
      const options = { keepPart: keepPart === '1', decoded: decoded ?? null, signal: goneSignal(response) };
      response.json(await ingest.ingest(request, name, options));
    } catch (error) {
      next(isBrokenOff(error) ? brokenOff() : error);
    }
  });

  handle(site, ENDPOINTS.beginUpload, ({ body }) => uploads.begin(body));
  handle(site, ENDPOINTS.uploadState, ({ params }) => uploads.state(params.id));
  handle(site, ENDPOINTS.finishUpload, ({ params, body }) => uploads.finish(params.id, body));
  plain(site, 'uploadPart', fewAtOnce, async (request: Request, response: Response, next: NextFunction) => {
    try {
      const { id, offset } = parse(partParams, request.params);
      response.json(await uploads.add(id, offset, request));
    } catch (error) {
      next(isBrokenOff(error) ? brokenOff() : error);
    }
  });

  plain(site, 'audio', async (request: Request, response: Response, next: NextFunction) => {
    try {
      const sha256 = sha256Schema.safeParse(request.params['sha256']);
      const path = sha256.success ? await store.verified(sha256.data) : null;
      if (!path) throw new Failure('not-found', 'There is no such clip in the archive.');
      response.type(path.endsWith('.flac') ? 'audio/flac' : 'audio/wav');
      // A clip never changes under its hash, and its bytes were held against it; express answers ranges by itself.
      response.sendFile(path, { immutable: true, maxAge: '1y', dotfiles: 'allow' }, (error?: Error) => {
        if (error && !response.headersSent) next(error);
      });
    } catch (error) {
      next(error);
    }
  });
}

/** Aborts when the other side goes away before it was answered. */
function goneSignal(response: Response): AbortSignal {
  const gone = new AbortController();
  response.on('close', () => {
    if (!response.writableFinished) gone.abort();
  });
  return gone.signal;
}

/** The other side has gone; a full disk, too, ends a stream, and is something else. */
const isBrokenOff = (error: unknown): boolean =>
  ['ECONNRESET', 'ERR_STREAM_PREMATURE_CLOSE', 'ABORT_ERR'].includes((error as NodeJS.ErrnoException).code ?? '') ||
  (error as Error).name === 'AbortError';

const brokenOff = (): Failure => new Failure('upload-broken', 'The upload broke off before its end.');
