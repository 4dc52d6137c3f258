import type { Request, RequestHandler, Response, NextFunction } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import { Failure } from '../platform/failure';

/** What one address may do in a minute, and at one time. A class of listeners, each with a phone, never meets these. */
export const LIMITS = {
  /** Sittings begun by one address on one link. */
  joinsPerMinute: 10,
  /** Keys that lead nowhere, tried by one address. */
  guessesPerMinute: 30,
  /** Requests of a listener's page: answers, states, clips. */
  listeningPerMinute: 600,
  uploadsAtOnce: 8,
  eventStreams: 24,
  eventStreamsInAll: 120,
} as const;

/** The address behind a request; of IPv6 the network that one household has. */
export const addressOf = (request: Request): string => ipKeyGenerator(request.socket.remoteAddress ?? '');

export const tooMany =
  (message: string) =>
  (_request: Request, _response: Response, next: NextFunction): void =>
    next(new Failure('too-many', message));

const perMinute = (limit: number, message: string, key: (request: Request) => string = addressOf): RequestHandler =>
  rateLimit({
    windowMs: 60_000,
    limit,
    standardHeaders: false,
    legacyHeaders: false,
    keyGenerator: key,
    handler: tooMany(message),
  });

/** Beginning sittings. */
export const joinLimit = (): RequestHandler =>
  perMinute(
    LIMITS.joinsPerMinute,
    'This device has begun many sittings of this test within a minute.',
    (request) => `${addressOf(request)} ${String(request.params['key'])}`,
  );

/** Everything a listener's page asks. */
export const listeningLimit = (): RequestHandler =>
  perMinute(LIMITS.listeningPerMinute, 'This device asks more than a listener can hear.');

/** Keys that lead nowhere: who tries many is no listener. */
export function guessLimit(): RequestHandler {
  return rateLimit({
    windowMs: 60_000,
    limit: LIMITS.guessesPerMinute,
    standardHeaders: false,
    legacyHeaders: false,
    keyGenerator: addressOf,
    skipSuccessfulRequests: true,
    requestWasSuccessful: (_request, response) => response.statusCode !== 404,
    handler: tooMany('Too many links that lead nowhere were tried from this device.'),
  });
}

/** At most so many at a time from one address, and in all. */
export function atOnce(each: number, inAll: number, message: string): RequestHandler {
  const open = new Map<string, number>();
  let all = 0;
  return (request, response, next) => {
    const address = addressOf(request);
    const own = open.get(address) ?? 0;
    if (own >= each || all >= inAll) return next(new Failure('too-many', message));
    open.set(address, own + 1);
    all++;
    response.on('close', () => {
      const left = (open.get(address) ?? 1) - 1;
      if (left > 0) open.set(address, left);
      else open.delete(address);
      all--;
    });
    next();
  };
}
