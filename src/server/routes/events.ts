import type { Request, Response } from 'express';
import type { ServerEvent } from '#contracts/events';
import type { Application } from '../wiring';
import { plain, type Site } from './handle';
import { atOnce, LIMITS } from './limits';

/** Comment lines keep the connection from being taken for dead. */
const KEEP_ALIVE_MS = 20_000;

/** Server-sent events: first the jobs as they stand, then whatever happens. */
export function eventRoutes(site: Site, { hub, jobs }: Application): void {
  const few = atOnce(LIMITS.eventStreams, LIMITS.eventStreamsInAll, 'Many pages of Sediment are open; close some.');
  plain(site, 'events', few, (request: Request, response: Response) => {
    response.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      connection: 'keep-alive',
    });
    const send = (event: ServerEvent): void => {
      response.write(`data: ${JSON.stringify(event)}\n\n`);
    };
    send({ type: 'jobs', jobs: jobs.list() });
    const subscription = hub.events.subscribe(send);
    const keepAlive = setInterval(() => response.write(': alive\n\n'), KEEP_ALIVE_MS);
    request.on('close', () => {
      clearInterval(keepAlive);
      subscription.unsubscribe();
    });
  });
}
