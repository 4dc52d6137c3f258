import { AsyncLocalStorage } from 'node:async_hooks';

/** Who asks for something. Another way of letting somebody in (an account) is another line here, and a door. */
export type Actor =
  /** The owner: at this machine (null), or with another device that the token let in (its number). */
  | { readonly role: 'owner'; readonly device: string | null }
  /** Somebody who hears clips by a link, and may do nothing else. */
  | { readonly role: 'listener' };

/** What nobody asked for from outside: the start, jobs, the command line. */
const HERE: Actor = { role: 'owner', device: null };

const context = new AsyncLocalStorage<Actor>();

/**
 * Does something on behalf of somebody. A door says it once for everything behind it, services and what they begin;
 * passed as an argument it would stand in every call of the house, and could be left out in one.
 */
export const actAs = <T>(actor: Actor, work: () => T): T => context.run(actor, work);

/** On whose behalf this happens. */
export const acting = (): Actor => context.getStore() ?? HERE;

/** The other device of the owner's that this is noted from; null: this machine. */
export function notingDevice(): string | null {
  const actor = acting();
  return actor.role === 'owner' ? actor.device : null;
}

/** Whether the owner sits at the machine that holds the archive. */
export const isAtThisMachine = (): boolean => {
  const actor = acting();
  return actor.role === 'owner' && actor.device === null;
};
