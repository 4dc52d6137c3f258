import type { Express, NextFunction, Request, Response } from 'express';
import type { z } from 'zod';
import type { Endpoint } from '#contracts/http';
import type { ProblemDetail } from '#contracts/problem';
import { Failure } from '../failures';

/**
 * Connects an endpoint with the service call behind it: parameters and body are parsed at the door, and a request
 * that does not fit is answered with every problem.
 */
export function handle<P extends z.ZodType, B extends z.ZodType, A extends z.ZodType>(
  app: Express,
  endpoint: Endpoint<P, B, A>,
  call: (input: { params: z.output<P>; body: z.output<B> }) => Promise<z.input<A>>,
): void {
  app[endpoint.method](endpoint.path, async (request: Request, response: Response, next: NextFunction) => {
    try {
      const params = parse(endpoint.params, request.params);
      const body = parse(endpoint.body, request.body);
      response.json(await call({ params, body }));
    } catch (error) {
      next(error);
    }
  });
}

function parse<S extends z.ZodType>(schema: S, value: unknown): z.output<S> {
  const parsed = schema.safeParse(value);
  if (parsed.success) return parsed.data;
  const details: ProblemDetail[] = parsed.error.issues.map((issue) => ({
    file: null,
    field: issue.path.join('.') || null,
    message: issue.message,
  }));
  throw new Failure('invalid-request', 'The request does not fit.', details);
}
