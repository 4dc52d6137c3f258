import { timingSafeEqual } from 'node:crypto';
import type { NextFunction, Request, Response } from 'express';
import { Failure } from '../failures';

const LOCAL_NAMES = new Set(['localhost', '127.0.0.1', '[::1]']);
const LOOPBACK = /^(::ffff:)?127\.|^::1$/;
const COOKIE = 'sediment-token';

/** Whether the server listens to this machine alone. */
export const isLocalHost = (host: string): boolean => LOCAL_NAMES.has(host) || host === '::1';

/**
 * Keeps other web sites out: a page from elsewhere can make a browser send requests here, but it cannot forge the
 * Host and Origin headers. With another SEDIMENT_HOST, that name is let in as well; other devices then need the token
 * for everything but the pages of listeners, which have keys of their own.
 *
 * @param host - the address the server listens on
 * @param token - asked of other devices; null where only this machine is listened to
 */
export function localOnly(
  host: string,
  token: string | null,
): (request: Request, response: Response, next: NextFunction) => void {
  const isOpen = host === '0.0.0.0' || host === '::';
  return (request, response, next) => {
    const hostName = request.headers.host?.replace(/:\d+$/, '');
    const { origin } = request.headers;
    const originName = origin && URL.canParse(origin) ? new URL(origin).hostname : undefined;
    const isFromHere = LOOPBACK.test(request.socket.remoteAddress ?? '');
    // A name from elsewhere that leads to this very machine is never one of ours, however far the server is open.
    const isOurs =
      hostName !== undefined && (LOCAL_NAMES.has(hostName) || hostName === host || (isOpen && !isFromHere));
    if (!isOurs || (origin !== undefined && originName !== hostName))
      return next(new Failure('wrong-host', 'This request does not come from a page of Sediment.'));
    if (isFromHere || token === null) return next();
    const asked = new URL(request.originalUrl, 'http://sediment').searchParams.get('token');
    if (asked !== null && isSame(asked, token)) {
      response.cookie(COOKIE, token, { httpOnly: true, sameSite: 'strict' });
      return next();
    }
    if (
      !request.path.startsWith('/api/') ||
      request.path.startsWith('/api/listen/') ||
      isSame(cookieOf(request), token)
    )
      return next();
    next(new Failure('token-needed', 'Other devices need the token for this; listeners need their link only.'));
  };
}

function isSame(given: string, token: string): boolean {
  const [a, b] = [Buffer.from(given), Buffer.from(token)];
  return a.length === b.length && timingSafeEqual(a, b);
}

function cookieOf(request: Request): string {
  const found = request.headers.cookie?.split(/;\s*/).find((c) => c.startsWith(`${COOKIE}=`));
  return found ? decodeURIComponent(found.slice(COOKIE.length + 1)) : '';
}
