import type { NextFunction, Request, Response } from 'express';
import { idSchema, sha256Schema } from '#contracts/common';
import { newPhotographSchema } from '#contracts/photograph';
import { Failure } from '../platform/failure';
import type { Application } from '../wiring';
import { parse, plain, type Site } from './handle';
import { atOnce, LIMITS } from './limits';

/** Photographs: bytes in, bytes out. */
export function photographRoutes(site: Site, { photographs }: Application): void {
  const fewAtOnce = atOnce(LIMITS.uploadsAtOnce, 4 * LIMITS.uploadsAtOnce, 'Many uploads are running already.');
  plain(site, 'photoUpload', fewAtOnce, async (request: Request, response: Response, next: NextFunction) => {
    try {
      const id = parse(idSchema, request.params['id']);
      response.json(await photographs.add(id, request, parse(newPhotographSchema, request.query)));
    } catch (error) {
      next(error);
    }
  });

  plain(site, 'photo', async (request: Request, response: Response, next: NextFunction) => {
    try {
      const sha256 = sha256Schema.safeParse(request.params['sha256']);
      const found = sha256.success ? await photographs.find(sha256.data) : null;
      if (!found) throw new Failure('not-found', 'There is no such photograph in the archive.');
      response.type(`image/${found.format}`);
      // A photograph never changes under its hash.
      response.sendFile(found.path, { immutable: true, maxAge: '1y', dotfiles: 'allow' }, (error?: Error) => {
        if (error && !response.headersSent) next(error);
      });
    } catch (error) {
      next(error);
    }
  });
}
