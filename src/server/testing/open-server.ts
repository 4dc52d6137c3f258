import { createServer, type IncomingHttpHeaders } from 'node:http';
import type { AddressInfo } from 'node:net';
import { onTestFinished } from 'vitest';
import { webFolder } from '../platform/package-root';
import { httpServer } from '../routes/server';
import type { Application } from '../wiring';
import { testApplication } from './application';
import { rawRequest } from './raw-request';

export const TOKEN = 'abcdefghij0123456789klmnoXYZ';
export const OTHER_DEVICE = '192.168.1.20';

/** What came back. */
export interface Answer {
  readonly status: number;
  readonly code: string;
  readonly headers: IncomingHttpHeaders;
  readonly body: string;
}
type Ask = (method: string, path: string, headers?: Record<string, string>, body?: string) => Promise<Answer>;

/** A server that is open to the network. The header x-from stands in for the address of another device. */
export async function openServer(): Promise<{
  ask: Ask;
  port: number;
  routes: Route[];
  log: string[];
  application: Application;
}> {
  const application = await testApplication();
  const log: string[] = [];
  const options = {
    host: '0.0.0.0',
    token: TOKEN,
    webFolder,
    report: () => undefined,
    log: (l: string) => log.push(l),
  };
  const app = httpServer(application, options);
  const server = createServer((req, res) => {
    const from = req.headers['x-from'];
    if (typeof from === 'string')
      Object.defineProperty(req.socket, 'remoteAddress', { value: from, configurable: true });
    app(req, res);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  onTestFinished(() => {
    server.closeAllConnections();
    server.close();
  });
  const { port } = server.address() as AddressInfo;
  const ask: Ask = async (method, path, headers = {}, body) => {
    const answer = await rawRequest({ host: '127.0.0.1', port, method, path, headers }, body);
    return { ...answer, code: /"code":"([a-z-]+)"/.exec(answer.body)?.[1] ?? '' };
  };
  const stack = (app as unknown as { router: { stack: { route?: RouteOfExpress }[] } }).router.stack;
  const routes = stack.flatMap(({ route }) =>
    route
      ? Object.keys(route.methods).map((method) => ({ method, path: route.path, who: route.stack[0].handle.who }))
      : [],
  );
  return { ask, port, routes, log, application };
}

interface RouteOfExpress {
  readonly path: string;
  readonly methods: Record<string, boolean>;
  readonly stack: readonly { readonly handle: { readonly who?: string } }[];
}
interface Route {
  readonly method: string;
  readonly path: string;
  readonly who: string | undefined;
}
