import { existsSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { join } from 'node:path';
import express, { type Express, type NextFunction, type Request, type Response } from 'express';
import { openApiDocument } from '#contracts/openapi';
import type { Problem } from '#contracts/problem';
import { asFailure } from '../platform/as-failure';
import { Failure } from '../platform/failure';
import { Devices } from '../platform/devices';
import type { Application } from '../wiring';
import { apiRoutes } from './api';
import { boothRoutes } from './booth';
import { clipRoutes } from './clips';
import { Doors } from './doors';
import { eventRoutes } from './events';
import { exportRoutes } from './exports';
import { handoutRoutes, reviewRoutes } from './reviews';
import { plain } from './handle';
import { listeningRoutes } from './listening';
import { photographRoutes } from './photographs';
import { recordingRoutes } from './recordings';
import { securityHeaders } from './security-headers';
import { visitRoute } from './visit';

export interface HttpOptions {
  /** Address that is listened on. */
  readonly host: string;
  /** Asked of other devices, where the server listens to them; null where it does not. */
  readonly token?: string | null;
  readonly port?: number;
  /** Folder of the built page. */
  readonly webFolder: string;
  /** Told of unforeseen errors. */
  readonly report: (error: unknown) => void;
  /** Told of what somebody should know who reads the terminal. */
  readonly log?: (line: string) => void;
}

/**
 * The whole HTTP interface. Each route stands behind a door of its own; what is not a route is refused, or a file of
 * the page, which holds no data.
 */
export function httpServer(application: Application, options: HttpOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('query parser', 'simple');
  app.use(securityHeaders());
  const devices = new Devices(application.database, application.clock.now, options.token ?? null, application.memories);
  visitRoute(app, { devices, listening: options.host, log: options.log ?? (() => undefined) });
  const site = { app, doors: new Doors(options.host, devices) };
  clipRoutes(site, application);
  photographRoutes(site, application);
  recordingRoutes(site, application);
  apiRoutes(site, application, devices);
  boothRoutes(site, application);
  listeningRoutes(site, application, { host: options.host, port: options.port ?? 0 });
  exportRoutes(site, application);
  reviewRoutes(site, application);
  handoutRoutes(site, application);
  eventRoutes(site, application);
  plain(site, 'openapi', (_request, response) => {
    response.json(openApiDocument(application.status.version));
  });
  // Behind the owner's door, so that nobody learns from outside what there is.
  app.use('/api', site.doors.door('owner'), (_request, _response, next) =>
    next(new Failure('not-found', 'There is no such address.')),
  );
  app.use(express.static(options.webFolder, { index: false, maxAge: '1h', redirect: false }));
  // Any other path is a screen of the page, which finds its way itself.
  app.get('/{*screen}', (_request, response, next) => {
    const page = join(options.webFolder, 'index.html');
    if (existsSync(page)) response.sendFile(page, { headers: { 'cache-control': 'no-cache' } });
    else next(new Failure('not-found', 'The page has not been built; run npm start.'));
  });
  app.use((_request, _response, next) => next(new Failure('not-found', 'There is no such address.')));
  app.use((error: unknown, _request: Request, response: Response, next: NextFunction) => {
    const failure = asFailure(error);
    if (failure.status >= 500 && failure.code !== 'storage-full') options.report(error);
    // A failure while bytes are on their way out can only be shown by breaking off.
    if (response.headersSent) next(error);
    else response.status(failure.status).json({ error: failure.toProblem() } satisfies { error: Problem });
  });
  return app;
}

/** Nothing has come or gone on a connection for so long: it is closed. */
const IDLE_MS = 120_000;
const HEADERS_MS = 30_000;
const MOST_CONNECTIONS = 1_000;

/**
 * The server around it. An upload may take hours, as long as something of it comes: what is limited is silence of the
 * other side, neither the whole nor the time that we take to answer.
 *
 * @param app - the interface
 * @param idleMs - longest silence while a request is on its way in
 */
export function listeningServer(app: Express, idleMs = IDLE_MS): Server {
  const server = createServer({ requestTimeout: 0, headersTimeout: HEADERS_MS, keepAliveTimeout: 10_000 });
  server.on('request', (request, response) => {
    const hasBody =
      request.headers['content-length'] !== undefined || request.headers['transfer-encoding'] !== undefined;
    const received = (): void => void request.socket.setTimeout(0);
    if (hasBody) request.once('end', received);
    else received();
    response.once('finish', () => request.socket.setTimeout(idleMs));
    app(request, response);
  });
  server.setTimeout(idleMs);
  server.maxConnections = MOST_CONNECTIONS;
  return server;
}
