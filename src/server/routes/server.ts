import { existsSync } from 'node:fs';
import { join } from 'node:path';
import express, { type Express, type NextFunction, type Request, type Response } from 'express';
import { PLAIN_PATHS } from '#contracts/http';
import { openApiDocument } from '#contracts/openapi';
import type { Problem } from '#contracts/problem';
import { asFailure, Failure } from '../failures';
import type { Application } from '../wiring';
import { apiRoutes } from './api';
import { boothRoutes } from './booth';
import { clipRoutes } from './clips';
import { eventRoutes } from './events';
import { exportRoutes } from './exports';
import { localOnly } from './guard';
import { listeningRoutes } from './listening';
import { recordingRoutes } from './recordings';

/**
 * The whole HTTP interface.
 *
 * @param application - the services
 * @param options - address that is listened on, folder of the built page, where unforeseen errors are reported
 */
export function httpServer(
  application: Application,
  options: {
    host: string;
    /** Asked of other devices, where the server listens to them; null where it does not. */
    token?: string | null;
    port?: number;
    webFolder: string;
    report: (error: unknown) => void;
  },
): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(localOnly(options.host, options.token ?? null));
  clipRoutes(app, application);
  recordingRoutes(app, application);
  app.use(express.json({ limit: '4mb' }));
  apiRoutes(app, application);
  boothRoutes(app, application);
  listeningRoutes(app, application, { host: options.host, port: options.port ?? 0 });
  exportRoutes(app, application);
  eventRoutes(app, application);
  app.get(PLAIN_PATHS.openapi, (_request, response) => {
    response.json(openApiDocument(application.status.version));
  });
  app.use('/api', (_request, _response, next) => next(new Failure('not-found', 'There is no such address.')));
  app.use(express.static(options.webFolder, { index: false, maxAge: '1h' }));
  // Any other path is a screen of the page, which finds its way itself.
  app.get('/{*screen}', (_request, response, next) => {
    const page = join(options.webFolder, 'index.html');
    if (existsSync(page)) response.sendFile(page, { headers: { 'cache-control': 'no-cache' } });
    else next(new Failure('not-found', 'The page has not been built; run npm start.'));
  });
  app.use((error: unknown, _request: Request, response: Response, next: NextFunction) => {
    const failure =
      error instanceof SyntaxError
        ? new Failure('invalid-request', 'The request is not valid JSON.')
        : asFailure(error);
    if (failure.code === 'internal') options.report(error);
    if (response.headersSent) next(error);
    else response.status(failure.status).json({ error: failure.toProblem() } satisfies { error: Problem });
  });
  return app;
}
