import type { Express, NextFunction, Request, Response } from 'express';
import { rateLimit } from 'express-rate-limit';
import { Failure } from '../platform/failure';
import { SESSION_DAYS, type Devices } from '../platform/devices';
import { callerOf, isOwnPage } from './caller';
import { SESSION_COOKIE } from './doors';
import { addressOf, tooMany } from './limits';

/** After a wrong token, an answer takes this long. */
const WRONG_TOKEN_MS = 500;

/**
 * The first visit of another device: an address with `?token=`. The token is exchanged for a session of the device's
 * own, and goes from the address bar.
 */
export function visitRoute(
  app: Express,
  { devices, listening, log }: { devices: Devices; listening: string; log: (line: string) => void },
): void {
  const guesses = rateLimit({
    windowMs: 60_000,
    limit: 10,
    standardHeaders: false,
    legacyHeaders: false,
    keyGenerator: addressOf,
    skip: (request) => typeof request.query['token'] !== 'string',
    skipSuccessfulRequests: true,
    requestWasSuccessful: (_request, response) => response.statusCode < 400,
    handler: tooMany('Too many wrong tokens came from this device.'),
  });
  app.get('/{*screen}', guesses, async (request: Request, response: Response, next: NextFunction) => {
    const { token } = request.query;
    if (typeof token !== 'string' || request.path.toLowerCase().startsWith('/api/')) return next();
    try {
      const caller = callerOf(request);
      // A link in a message is a visit from another site: the browser says so, and it may come in with the token.
      if (!isOwnPage({ ...caller, site: undefined }, listening))
        throw new Failure('wrong-host', 'This request does not come from a page of Sediment.');
      const key = await devices.admit(token, request.headers['user-agent'] ?? '', addressOf(request));
      if (key === null) {
        log(`A wrong token came from ${addressOf(request)}.`);
        await new Promise((resolve) => setTimeout(resolve, WRONG_TOKEN_MS));
        throw new Failure('token-needed', 'This token is not the one that Sediment printed when it started.');
      }
      response.cookie(SESSION_COOKIE, key, {
        httpOnly: true,
        sameSite: 'strict',
        maxAge: SESSION_DAYS * 24 * 3_600_000,
      });
      response.redirect(303, withoutToken(request.originalUrl));
    } catch (error) {
      next(error);
    }
  });
}

/** The same address inside this server; two slashes at its beginning would lead to another one. */
function withoutToken(address: string): string {
  const [path = '/', query = ''] = address.split('?', 2);
  const left = new URLSearchParams(query);
  left.delete('token');
  return `/${path.replace(/^[/\\]+/, '')}${left.size > 0 ? `?${left.toString()}` : ''}`;
}
