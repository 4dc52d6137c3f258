import type { NextFunction, Request, Response } from 'express';
import { Failure } from '../failures';

const LOCAL_NAMES = new Set(['localhost', '127.0.0.1', '[::1]']);

/**
 * Keeps other web sites out: a page from elsewhere can make a browser send requests here, but it cannot forge the
 * Host and Origin headers. With another SEDIMENT_HOST, that name is let in as well.
 *
 * @param host - the address the server listens on
 */
export function localOnly(host: string): (request: Request, response: Response, next: NextFunction) => void {
  const isAllowed = (name: string | undefined): boolean =>
    name !== undefined && (LOCAL_NAMES.has(name) || name === host || host === '0.0.0.0' || host === '::');
  return (request, _response, next) => {
    const hostName = request.headers.host?.replace(/:\d+$/, '');
    const { origin } = request.headers;
    const originName = origin && URL.canParse(origin) ? new URL(origin).hostname : undefined;
    const isForeign = !isAllowed(hostName) || (origin !== undefined && originName !== hostName);
    next(isForeign ? new Failure('wrong-host', 'This request does not come from a page of Sediment.') : undefined);
  };
}
