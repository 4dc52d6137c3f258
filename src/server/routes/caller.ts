import type { IncomingMessage } from 'node:http';

/** A request as the doors see it: where it comes from, and what its browser says of the page behind it. */
export interface Caller {
  /** Address of the other side of the connection. */
  readonly from: string;
  /** Port that it reached. */
  readonly port: number;
  readonly host: string | undefined;
  readonly origin: string | undefined;
  /** Fetch Metadata (W3C): what browsers say of the relation between the page and this address. */
  readonly site: string | undefined;
  readonly cookies: string | undefined;
}

export function callerOf(request: IncomingMessage): Caller {
  const { host, origin, cookie } = request.headers;
  const site = request.headers['sec-fetch-site'];
  return {
    from: request.socket.remoteAddress ?? '',
    port: request.socket.localPort ?? 0,
    host,
    origin,
    site: typeof site === 'string' ? site : undefined,
    cookies: cookie,
  };
}

const LOCAL_NAMES = new Set(['localhost', '127.0.0.1', '[::1]']);
const LOOPBACK = /^(::ffff:)?127\.|^::1$/;

/** Whether the server listens to this machine alone. */
export const isLocalHost = (host: string): boolean => LOCAL_NAMES.has(host) || host === '::1';

/** Whether the request comes from this machine. */
export const isFromHere = ({ from }: Caller): boolean => LOOPBACK.test(from);

/**
 * Whether a request comes from a page of Sediment, or from no page at all. A page from elsewhere can make a browser
 * send requests here, but it cannot forge the Host, Origin and Sec-Fetch-Site headers.
 *
 * @param caller - the request
 * @param listening - the address the server listens on; 0.0.0.0 and :: mean all
 */
export function isOwnPage(caller: Caller, listening: string): boolean {
  const parsed = /^(.*?)(?::(\d+))?$/.exec(caller.host ?? '');
  const name = parsed?.[1];
  if (!name || Number(parsed?.[2] ?? 80) !== caller.port) return false;
  const isOpen = listening === '0.0.0.0' || listening === '::';
  // A name from elsewhere that leads to this very machine is never one of ours, however far the server is open.
  const isOurs = LOCAL_NAMES.has(name) || name === listening || (isOpen && !isFromHere(caller));
  if (!isOurs) return false;
  // Scheme, name and port: another server on this machine is another site.
  if (caller.origin !== undefined && caller.origin !== `http://${caller.host}`) return false;
  return caller.site === undefined || caller.site === 'same-origin' || caller.site === 'none';
}

/** The value of a cookie as it was sent, or null. Ours are letters and digits, so nothing is decoded. */
export function cookieOf({ cookies }: Caller, name: string): string | null {
  const found = cookies?.split(/;\s*/).find((c) => c.startsWith(`${name}=`));
  return found === undefined ? null : found.slice(name.length + 1);
}
