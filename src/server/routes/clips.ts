import type { Express, NextFunction, Request, Response } from 'express';
import { z } from 'zod';
import { sha256Schema } from '#contracts/common';
import { PLAIN_PATHS } from '#contracts/http';
import { Failure } from '../failures';
import type { Application } from '../wiring';

const uploadQuery = z.object({ name: z.string().min(1).max(200), keepPart: z.literal('1').optional() });

/** Upload and playback: bytes in, bytes out. */
export function clipRoutes(app: Express, { ingest, store }: Application): void {
  app.post(PLAIN_PATHS.upload, async (request: Request, response: Response, next: NextFunction) => {
    try {
      const query = uploadQuery.safeParse(request.query);
      if (!query.success) throw new Failure('invalid-request', 'An upload needs the name of the file.');
      response.json(await ingest.ingest(request, query.data.name, { keepPart: query.data.keepPart === '1' }));
    } catch (error) {
      next(request.readableAborted ? new Failure('upload-broken', 'The upload broke off before its end.') : error);
    }
  });

  app.get(PLAIN_PATHS.audio, async (request: Request, response: Response, next: NextFunction) => {
    try {
      const sha256 = sha256Schema.safeParse(request.params['sha256']);
      const path = sha256.success ? await store.verified(sha256.data) : null;
      if (!path) throw new Failure('not-found', 'There is no such clip in the archive.');
      response.type(path.endsWith('.flac') ? 'audio/flac' : 'audio/wav');
      // A clip never changes under its hash; express answers range requests by itself.
      response.sendFile(path, { immutable: true, maxAge: '1y', dotfiles: 'allow' });
    } catch (error) {
      next(error);
    }
  });
}
