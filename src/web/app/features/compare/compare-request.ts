import { isLoop, MATCHES, MOST_LANES, type CompareRequest } from '#contracts/compare';

/** What the address of the page says, as the router hands it over. */
export interface CompareAddress {
  readonly takes: string | undefined;
  readonly zero: string | undefined;
  readonly match: string | undefined;
  readonly loop: string | undefined;
}

/** What is compared, by the address; null where it names no take. What it says beyond that and makes no sense is left. */
export function requestOf({ takes: listed, zero, match, loop }: CompareAddress): CompareRequest | null {
  const takes = (listed ?? '')
    .split(',')
    .filter((t) => /^\d+$/.test(t))
    .slice(0, MOST_LANES);
  if (takes.length === 0) return null;
  const [fromS, toS] = (loop ?? '').split('-').map(Number);
  return {
    takes,
    zero: zero !== undefined && takes.includes(zero) ? zero : takes[0],
    match: MATCHES.find((m) => m === match) ?? 'loudness',
    loop: isLoop(fromS, toS) ? { fromS, toS } : null,
  };
}

/** The address of a request: what is usual is not said. */
export function addressOf({ takes, zero, match, loop }: CompareRequest): Record<string, string> {
  return {
    takes: takes.join(','),
    ...(zero === takes[0] ? {} : { zero }),
    ...(match === 'loudness' ? {} : { match }),
    ...(loop ? { loop: `${loop.fromS.toFixed(2)}-${loop.toS.toFixed(2)}` } : {}),
  };
}

/** The request with one more take; the first one makes the request. */
export const withTake = (request: CompareRequest | null, take: string): CompareRequest =>
  request
    ? { ...request, takes: [...request.takes, take] }
    : { takes: [take], zero: take, match: 'loudness', loop: null };

/** The request without a take; where it was the zero line, the first that stays is. Null where none stays. */
export function withoutTake(request: CompareRequest, take: string): CompareRequest | null {
  const takes = request.takes.filter((t) => t !== take);
  if (takes.length === 0) return null;
  return { ...request, takes, zero: takes.includes(request.zero) ? request.zero : takes[0] };
}

/** The takes whose difference to the zero line is wanted. */
export const pairsOf = (request: CompareRequest | null): { zero: string; others: string[] } => ({
  zero: request?.zero ?? '',
  others: request ? request.takes.filter((t) => t !== request.zero) : [],
});

/** Where the comparison is fetched as a ZIP, as it is heard now. */
export function exportAddress({ takes, zero, match, loop }: CompareRequest, name: string): string {
  const query = new URLSearchParams({ takes: takes.join(','), zero, match, name });
  if (loop) {
    query.set('from', String(loop.fromS));
    query.set('to', String(loop.toS));
  }
  return `/api/compare/export.zip?${query}`;
}
