import { auditTime, catchError, map, merge, of, startWith, switchMap, type Observable } from 'rxjs';
import { problemOf } from './api';
import type { Loaded } from './loaded';

/** Many changes in a row are answered by one question. */
const SETTLE_MS = 250;

/** Asks, and asks again whenever one of the changes happens; what was there stays until the answer comes. */
export function live<T>(ask: () => Observable<T>, ...changes: readonly Observable<unknown>[]): Observable<Loaded<T>> {
  return merge(...changes).pipe(
    auditTime(SETTLE_MS),
    startWith(null),
    switchMap(() =>
      ask().pipe(
        map((value): Loaded<T> => ({ value, problem: null })),
        catchError((error: unknown) => of<Loaded<T>>({ value: null, problem: problemOf(error) })),
      ),
    ),
  );
}
