import express, { type Express, type NextFunction, type Request, type RequestHandler, type Response } from 'express';
import type { z } from 'zod';
import { PLAIN_METHODS, PLAIN_PATHS, PLAIN_WHO, type Endpoint } from '#contracts/http';
import { fieldText, issueText } from '#contracts/issue-text';
import type { ProblemDetail } from '#contracts/problem';
import { unsoundText } from '#contracts/sound-text';
import { Failure } from '../platform/failure';
import { RowTexts } from '../platform/row-texts';
import type { Doors } from './doors';

/** Where routes are put up: each behind its door. */
export interface Site {
  readonly app: Express;
  readonly doors: Doors;
}

const LARGEST_JSON = '4mb';

/**
 * Connects an endpoint with the service call behind it: parameters and body are parsed at the door, and a request
 * that does not fit is answered with every problem.
 *
 * @param site - where
 * @param endpoint - what is asked
 * @param call - the service
 * @param before - limits of this endpoint
 */
export function handle<P extends z.ZodType, B extends z.ZodType, A extends z.ZodType>(
  site: Site,
  endpoint: Endpoint<P, B, A>,
  call: (input: { params: z.output<P>; body: z.output<B> }) => Promise<z.input<A>>,
  ...before: RequestHandler[]
): void {
  answer(site, endpoint, before, async (input, response) => void response.json(await call(input)));
}

/**
 * The same for a list that is long and asked for often, of rows that nobody changes: what is the same object as the last
 * time is not written again.
 */
export function handleRows<P extends z.ZodType, B extends z.ZodType, R extends z.ZodType>(
  site: Site,
  endpoint: Endpoint<P, B, z.ZodArray<R>>,
  call: (input: { params: z.output<P>; body: z.output<B> }) => Promise<readonly (z.input<R> & object)[]>,
): void {
  const texts = new RowTexts();
  answer(site, endpoint, [], async (input, response) => {
    const { body, tag } = texts.of(await call(input));
    response.type('json').set('etag', tag).send(body);
  });
}

function answer<P extends z.ZodType, B extends z.ZodType, A extends z.ZodType>(
  { app, doors }: Site,
  endpoint: Endpoint<P, B, A>,
  before: readonly RequestHandler[],
  send: (input: { params: z.output<P>; body: z.output<B> }, response: Response) => Promise<void>,
): void {
  app[endpoint.method](
    endpoint.path,
    doors.door(endpoint.who),
    ...before,
    express.json({ limit: LARGEST_JSON }),
    async (request: Request, response: Response, next: NextFunction) => {
      try {
        const params = parse(endpoint.params, request.params);
        const body = parse(endpoint.body, request.body as unknown);
        await send({ params, body }, response);
      } catch (error) {
        next(error);
      }
    },
  );
}

/** A route that does not speak JSON in both directions, behind its door. */
export function plain({ app, doors }: Site, name: keyof typeof PLAIN_PATHS, ...handlers: RequestHandler[]): void {
  app[PLAIN_METHODS[name]](PLAIN_PATHS[name], doors.door(PLAIN_WHO[name]), ...handlers);
}

/** A plain path that answers with a file; what goes wrong is answered as everywhere. */
export function plainFile(
  site: Site,
  name: keyof typeof PLAIN_PATHS,
  answer: (request: Request, response: Response) => Promise<void>,
): void {
  plain(site, name, (request: Request, response: Response, next: NextFunction) => {
    answer(request, response).catch(next);
  });
}

/**
 * What came from outside, as its schema says.
 *
 * @throws Failure `invalid-request` with every problem
 */
export function parse<S extends z.ZodType>(schema: S, value: unknown): z.output<S> {
  const unsound = unsoundText(value);
  if (unsound)
    throw new Failure('invalid-request', 'A text in this request cannot be kept.', [{ file: null, ...unsound }]);
  const parsed = schema.safeParse(value);
  if (parsed.success) return parsed.data;
  const details: ProblemDetail[] = parsed.error.issues.slice(0, MOST_PROBLEMS).map((issue) => ({
    file: null,
    field: fieldText(issue.path),
    message: issueText(issue),
  }));
  throw new Failure('invalid-request', 'The request does not fit.', details);
}

/** More would help nobody. */
const MOST_PROBLEMS = 100;
