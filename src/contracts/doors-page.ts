import { ENDPOINTS, PLAIN_METHODS, PLAIN_PATHS, PLAIN_WHO, type Who } from './http';

/** A route and who may call it. */
export interface DoorRow {
  readonly method: string;
  readonly path: string;
  readonly who: Who;
}

/** Every route of the server, by path. */
export function doorRows(): DoorRow[] {
  const endpoints = Object.values(ENDPOINTS).map(({ method, path, who }): DoorRow => ({ method, path, who }));
  const plain = (Object.keys(PLAIN_PATHS) as (keyof typeof PLAIN_PATHS)[]).map((name): DoorRow => ({
    method: PLAIN_METHODS[name],
    path: PLAIN_PATHS[name],
    who: PLAIN_WHO[name],
  }));
  return [...endpoints, ...plain].sort((a, b) => (a.path + a.method < b.path + b.method ? -1 : 1));
}

/** docs/doors.md: who gets through which door. */
export function doorsPage(): string {
  const rows = doorRows().map(
    ({ method, path, who }) =>
      `| ${method.toUpperCase()} | \`${path}\` | yes | ${who === 'listener' ? 'yes, by the key in it' : 'no'} | ${who === 'listener' ? 'yes, by the key in it' : 'no'} | no |`,
  );
  return [
    '# Doors',
    '',
    'Who may call what. Made by `npm run docs` from the contracts; a test walks every route of the running server as each',
    'of these callers and compares. The owner is whoever sits at this machine, or at a device that showed the token once',
    'and holds a session since (30 days, HttpOnly, SameSite=Strict; the page "Archive" shuts it out). A foreign page is one',
    'of another site, another port of this machine included. The files of the page itself hold no data and are given to',
    'everybody.',
    '',
    'What this does not do: the connection is not encrypted, so it belongs in a network of your own. Deliveries of a blind',
    'clip differ in dither, level (within 0.08 dB) and by a part of a sample, which stops a listener who compares by hand;',
    'somebody who writes a program that aligns two deliveries can still find out which letters are the same clip.',
    '',
    '| | route | owner | other device without token | listener | foreign page |',
    '| --- | --- | --- | --- | --- | --- |',
    ...rows,
    '',
  ].join('\n');
}
