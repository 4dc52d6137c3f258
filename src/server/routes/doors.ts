import type { NextFunction, Request, RequestHandler, Response } from 'express';
import type { Who } from '#contracts/http';
import { actAs, type Actor } from '../platform/acting';
import { Failure } from '../platform/failure';
import type { Devices } from '../platform/devices';
import { callerOf, cookieOf, isFromHere, isOwnPage } from './caller';

export const SESSION_COOKIE = 'sediment-session';

/** A door with its sign, so that a test can walk all of them. */
export type Door = RequestHandler & { readonly who: Who };

/**
 * Who may go through. Every route has a door of its own (there is no list of exceptions that a differently spelt
 * address could slip past):
 *
 * - `owner`: this machine, and other devices that showed the token once;
 * - `listener`: in addition, anybody who reaches this server; what they may do hangs on the key in the address.
 *
 * Pages of other sites get through none of them. What happens behind a door happens on behalf of whom it let in.
 */
export class Doors {
  constructor(
    private readonly listening: string,
    private readonly devices: Devices,
  ) {}

  door(who: Who): Door {
    const check = async (request: Request): Promise<Actor> => {
      const caller = callerOf(request);
      if (!isOwnPage(caller, this.listening))
        throw new Failure('wrong-host', 'This request does not come from a page of Sediment.');
      if (isFromHere(caller)) return { role: 'owner', device: null };
      const key = cookieOf(caller, SESSION_COOKIE);
      const device = key === null ? null : await this.devices.known(key);
      if (device !== null) return { role: 'owner', device };
      if (who === 'listener') return { role: 'listener' };
      throw new Failure('token-needed', 'Other devices need the token for this; listeners need their link only.');
    };
    const handler = (request: Request, _response: Response, next: NextFunction): void => {
      check(request).then((actor) => actAs(actor, next), next);
    };
    return Object.assign(handler, { who });
  }
}
