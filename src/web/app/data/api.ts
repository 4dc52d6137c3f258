import { Injectable } from '@angular/core';
import { defer, from, type Observable } from 'rxjs';
import type { z } from 'zod';
import type { Endpoint } from '#contracts/http';
import { problemSchema, type Problem } from '#contracts/problem';

/** A refusal of the server, or no answer at all, in words for people. */
export class ApiError extends Error {
  override readonly name = 'ApiError';
  constructor(readonly problem: Problem) {
    super(problem.message);
  }
}

/** No answer at all. */
export const UNREACHABLE: Problem = {
  code: 'unreachable',
  message: 'Sediment does not answer.',
  safe: 'What was stored before is safe.',
  next: 'See whether it still runs in its terminal, start it again, then repeat this.',
  details: [],
  truncation: null,
};

/** Any error as a problem that can be shown. */
export function problemOf(error: unknown): Problem {
  if (error instanceof ApiError) return error.problem;
  return {
    ...UNREACHABLE,
    code: 'unexpected',
    message: error instanceof Error ? error.message : String(error),
    next: 'Reload the page and try again.',
  };
}

/** Reads an error response; whatever does not speak our language counts as unreachable. */
export function problemFromText(text: string): Problem {
  try {
    return problemSchema.parse(JSON.parse(text)).error;
  } catch {
    return UNREACHABLE;
  }
}

type Call<P, B> = (P extends Record<string, never> ? { params?: P } : { params: P }) &
  ([B] extends [undefined] ? { body?: B } : { body: B });

/** Typed requests: paths, bodies and answers come from the contracts, and answers are parsed. */
@Injectable({ providedIn: 'root' })
export class Api {
  call<P extends z.ZodType, B extends z.ZodType, A extends z.ZodType>(
    endpoint: Endpoint<P, B, A>,
    input: Call<z.input<P>, z.input<B>>,
  ): Observable<z.output<A>> {
    return defer(() => from(this.send(endpoint, input)));
  }

  private async send<P extends z.ZodType, B extends z.ZodType, A extends z.ZodType>(
    endpoint: Endpoint<P, B, A>,
    input: Call<z.input<P>, z.input<B>>,
  ): Promise<z.output<A>> {
    const params = (input.params ?? {}) as Record<string, string>;
    const path = endpoint.path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(params[name]));
    // A request without a body says nothing of its type: "null" would be no valid body for the server.
    const body = input.body;
    const init: RequestInit =
      endpoint.method === 'get'
        ? {}
        : body === undefined
          ? { method: 'POST' }
          : { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) };
    let response: Response;
    try {
      response = await fetch(path, init);
    } catch {
      throw new ApiError(UNREACHABLE);
    }
    if (!response.ok) throw new ApiError(problemFromText(await response.text()));
    return endpoint.answer.parse(await response.json());
  }
}
