import { catchError, exhaustMap, map, of, scan, timer, type Observable } from 'rxjs';
import type { Problem } from '#contracts/problem';
import { problemOf } from './api';

/** How often a listener’s page asks what is heard: they are told of no event, which would name units. */
export const ASK_EVERY_MS = 1500;

/** The last answer that came, and what was wrong since. */
export interface Asked<T> {
  readonly value: T | null;
  readonly problem: Problem | null;
}

export const NOT_ASKED: Asked<never> = { value: null, problem: null };

/** Asks again and again; what was there stays where an answer fails once. */
export function asked<T>(ask: () => Observable<T>, everyMs = ASK_EVERY_MS): Observable<Asked<T>> {
  return timer(0, everyMs).pipe(
    exhaustMap(() =>
      ask().pipe(
        map((value): Asked<T> => ({ value, problem: null })),
        catchError((error: unknown) => of<Asked<T>>({ value: null, problem: problemOf(error) })),
      ),
    ),
    scan((before, now) => ({ value: now.value ?? before.value, problem: now.problem })),
  );
}
