import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import type { Device } from '#contracts/devices';
import { doorRows, doorsPage } from '#contracts/doors-page';
import { packageRoot } from '../platform/package-root';
import { tokenProblem } from '../platform/secret';
import { openServer, OTHER_DEVICE, TOKEN, type Answer } from '../testing/open-server';
import { isOwnPage, type Caller } from './caller';

const concrete = (path: string): string =>
  path
    .replace(':sha256', 'a'.repeat(64))
    .replace(':key', 'a'.repeat(25))
    .replace(':category', 'microphone')
    .replace(':slug', 'desk-voice')
    .replace(':version', '1')
    .replace(':day', '2026-05-02')
    .replace(':slot', 'A')
    .replaceAll(/:\w+/g, '1');

describe('every door', () => {
  it('a device that may do everything else writes no folder of this machine', async () => {
    const { ask, port } = await openServer();
    const device = { 'x-from': OTHER_DEVICE, host: `192.168.1.5:${port}`, 'content-type': 'application/json' };
    const visit = await ask('GET', `/gear?token=${TOKEN}`, device);
    const cookie = String(visit.headers['set-cookie']).split(';')[0];
    // The same device may read and write the archive.
    expect((await ask('GET', '/api/specimens', { ...device, cookie })).status).toBe(200);
    const answer = await ask('POST', '/api/site', { ...device, cookie }, '{}');
    expect([answer.status, answer.code]).toEqual([403, 'token-needed']);
    expect(answer.body).toContain('at the machine that holds the archive');
  });

  it('stands in the table of docs/doors.md, and no route is without one', async () => {
    const { routes } = await openServer();
    const told = routes
      .filter((r) => r.path !== '/{*screen}')
      .map(({ method, path, who }) => `${method} ${path} ${who}`);
    expect(told.sort()).toEqual(
      doorRows()
        .map(({ method, path, who }) => `${method} ${path} ${who}`)
        .sort(),
    );
    expect(readFileSync(join(packageRoot, 'docs/doors.md'), 'utf8')).toBe(doorsPage());
  });

  it('lets through whom the table names, and nobody else, however the address is spelt', async () => {
    const { ask, port } = await openServer();
    const own = `http://127.0.0.1:${port}`;
    const table = readFileSync(join(packageRoot, 'docs/doors.md'), 'utf8');
    const rows = [
      ...table.matchAll(/^\| ([A-Z]+) \| `(\S+)` \| (\w+)[^|]*\| (\w+)[^|]*\| (\w+)[^|]*\| (\w+)[^|]*\|$/gm),
    ];
    expect(rows).toHaveLength(doorRows().length);
    const device = { 'x-from': OTHER_DEVICE, host: `192.168.1.5:${port}` };
    const callers: Record<string, Record<string, string>> = {
      owner: { origin: own },
      device,
      listener: { ...device, cookie: `sediment-session=${'a'.repeat(25)}; sediment-token=${TOKEN}` },
      foreign: { origin: 'http://harbour.example' },
    };
    const isRefused = ({ status, code }: Answer): boolean =>
      status === 403 && (code === 'token-needed' || code === 'wrong-host');
    for (const [, method, path, ...allowed] of rows) {
      const at = concrete(path);
      for (const [i, headers] of Object.values(callers).entries()) {
        const answer = await ask(method, at, headers);
        expect(`${method} ${path} ${Object.keys(callers)[i]}: ${isRefused(answer) ? 'no' : 'yes'}`).toBe(
          `${method} ${path} ${Object.keys(callers)[i]}: ${allowed[i]}`,
        );
      }
      if (allowed[1] === 'yes') continue;
      for (const spelt of [
        at.replace('/api/', '/API/'),
        at.toUpperCase(),
        `/${at}`,
        `${at}/`,
        `/.${at}`,
        at.replace('/api', '/%61pi'),
      ])
        expect((await ask(method, spelt, device)).body).not.toMatch(/^[[{](?!"error")/);
      expect(isRefused(await ask(method, at, { 'sec-fetch-site': 'cross-site' }))).toBe(true);
      expect(
        isRefused(await ask(method, at, { 'sec-fetch-site': 'same-site', origin: `http://127.0.0.1:${port + 1}` })),
      ).toBe(true);
    }
  });
});

it('what is noted is known by the device that it was noted from; at this machine nothing is said of it', async () => {
  const { ask, port, application } = await openServer();
  const json = { 'content-type': 'application/json' };
  const device = { 'x-from': OTHER_DEVICE, host: `192.168.1.5:${port}`, ...json };
  const letIn = async () => {
    const visit = await ask('GET', `/gear?token=${TOKEN}`, device);
    return { ...device, cookie: String(visit.headers['set-cookie']).split(';')[0] };
  };
  const [tablet, phone] = [await letIn(), await letIn()];
  const { id } = await application.scoring.addUnit({ maker: 'Oarlock', model: 'Purser', label: 'A', category: 'microphone' }); // prettier-ignore
  const price = (amount: number) => JSON.stringify({ amount, currency: 'EUR', kind: 'street', date: '2026-05-02' });
  const post = async (path: string, headers: Record<string, string>, body: string) => {
    const answer = await ask('POST', path, headers, body);
    expect(answer.status, answer.body).toBe(200);
  };
  // In one statement, and in a transaction; at once from all three.
  await Promise.all([
    post(`/api/specimens/${id}/prices`, tablet, price(100)),
    post(`/api/specimens/${id}/prices`, json, price(110)),
    post(`/api/specimens/${id}/prices`, phone, price(120)),
    post(
      `/api/specimens/${id}/events`,
      tablet,
      JSON.stringify({ kind: 'repair', day: '2026-05-03', note: 'new cable' }),
    ),
    post('/api/corrections', tablet, JSON.stringify({ change: { kind: 'unit-name', unit: id, maker: 'Oarlock', model: 'Bosun', label: 'A' } })), // prettier-ignore
  ]);
  const noted = async () =>
    (JSON.parse((await ask('GET', '/api/devices')).body) as Device[]).map((d) => [
      d.isLetIn,
      d.noted.map((n) => `${n.count} ${n.what}`).sort(),
    ]);
  const byTablet = ['1 correction', '1 event', '1 price'];
  expect(await noted()).toEqual([
    [true, ['1 price']],
    [true, byTablet],
  ]);
  // A device that is shut out stays in the list as long as there is something that was noted from it.
  const [{ id: phoneId }, { id: tabletId }] = JSON.parse((await ask('GET', '/api/devices')).body) as Device[];
  expect((await ask('POST', `/api/devices/${tabletId}/revoke`)).status).toBe(200);
  expect(await noted()).toEqual([
    [true, ['1 price']],
    [false, byTablet],
  ]);
  const idle = await letIn();
  expect((await ask('GET', '/api/specimens', idle)).status).toBe(200);
  const [{ id: idleId }] = JSON.parse((await ask('GET', '/api/devices')).body) as Device[];
  expect((await ask('POST', `/api/devices/${idleId}/revoke`)).status).toBe(200);
  expect((await noted()).length).toBe(2);
  expect(phoneId).not.toBe(idleId);
});

describe('the first visit of another device', () => {
  it('takes the token from the address bar and gives a session of its own, which can be taken back', async () => {
    const { ask, port } = await openServer();
    const device = { 'x-from': OTHER_DEVICE, host: `192.168.1.5:${port}` };
    expect((await ask('GET', '/api/specimens', device)).code).toBe('token-needed');
    expect((await ask('GET', `/api/specimens?token=${TOKEN}`, device)).code).toBe('token-needed');
    const visit = await ask('GET', `/gear?token=${TOKEN}&sort=price`, { ...device, 'sec-fetch-site': 'cross-site' });
    expect(visit.status).toBe(303);
    expect(visit.headers.location).toBe('/gear?sort=price');
    const cookie = visit.headers['set-cookie']?.[0] ?? '';
    expect(cookie).toMatch(/HttpOnly/);
    expect(cookie).toMatch(/SameSite=Strict/);
    expect(cookie).not.toContain(TOKEN);
    const session = { ...device, cookie: cookie.split(';')[0] };
    expect((await ask('GET', '/api/specimens', session)).status).toBe(200);
    const devices = JSON.parse((await ask('GET', '/api/devices')).body) as { id: string; address: string }[];
    expect(devices).toMatchObject([{ address: OTHER_DEVICE }]);
    expect(JSON.stringify(devices)).not.toContain(cookie.split(/[=;]/)[1]);
    expect((await ask('POST', `/api/devices/${devices[0].id}/revoke`)).status).toBe(200);
    expect((await ask('GET', '/api/specimens', session)).code).toBe('token-needed');
    // Two slashes would lead to another server.
    expect((await ask('GET', `//harbour.example/?token=${TOKEN}`, device)).headers.location).not.toMatch(/^\/\//);
  });

  it('slows and logs wrong tokens, and stops listening to them', async () => {
    const { ask, port, log } = await openServer();
    const device = { 'x-from': '192.168.1.66', host: `192.168.1.5:${port}` };
    const codes = await Promise.all(Array.from({ length: 14 }, () => ask('GET', '/?token=guess', device)));
    expect(codes.filter((a) => a.code === 'token-needed')).toHaveLength(10);
    expect(codes.filter((a) => a.code === 'too-many')).toHaveLength(4);
    expect(log).toHaveLength(10);
    expect(log[0]).toContain('192.168.1.66');
    expect(log.join()).not.toContain('guess');
  });

  it.each([
    ['', /empty/],
    ['x', /guessed/],
    ['abcdefghijklmnopqrstuvwx', /guessed/],
    ['aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa1', /guessed/],
    ['0123456789012345678901234567890123456', /guessed/],
    ['with a blank and more than enough letters', /letters, digits/],
  ])('refuses the token %j', (token, why) => {
    expect(tokenProblem(token)).toMatch(why);
  });

  it('takes a token of 128 bits', () => {
    // 25 letters of 36 kinds: 129 bits; 22 of 62: 131.
    expect(tokenProblem('0a1b2c3d4e5f6g7h8i9j0k1l2')).toBeNull();
    expect(tokenProblem('aB3dE5gH7jK9mN1pQ3sT5v')).toBeNull();
  });
});

describe('what a browser is told', () => {
  it('headers hold the page to itself, on every answer', async () => {
    const { ask } = await openServer();
    for (const path of ['/', '/api/status', '/api/nothing', '/icon.svg']) {
      const { headers } = await ask('GET', path);
      const policy = String(headers['content-security-policy']);
      expect(policy).toMatch(/script-src 'self' 'wasm-unsafe-eval'(;|$)/);
      expect(policy).toMatch(/frame-ancestors 'none'/);
      expect(headers['x-content-type-options']).toBe('nosniff');
      expect(headers['referrer-policy']).toBe('no-referrer');
      expect(headers['x-powered-by']).toBeUndefined();
    }
  });
});

describe('whose page it is', () => {
  const base: Caller = { from: '127.0.0.1', port: 4870, host: '127.0.0.1:4870', origin: undefined, site: undefined, cookies: undefined }; // prettier-ignore
  it.each([
    [{}, '127.0.0.1', true],
    [{ host: 'localhost:4870', origin: 'http://localhost:4870' }, '127.0.0.1', true],
    [{ origin: 'http://127.0.0.1:8080' }, '127.0.0.1', false],
    [{ origin: 'https://127.0.0.1:4870' }, '127.0.0.1', false],
    [{ origin: 'null' }, '127.0.0.1', false],
    [{ host: '127.0.0.1:8080' }, '127.0.0.1', false],
    [{ host: 'rebound.example:4870' }, '0.0.0.0', false],
    [{ host: undefined }, '0.0.0.0', false],
    [{ from: OTHER_DEVICE, host: 'desk.local:4870' }, '0.0.0.0', true],
    [{ from: OTHER_DEVICE, host: 'desk.local:4870' }, '127.0.0.1', false],
    [{ site: 'cross-site' }, '127.0.0.1', false],
    [{ site: 'same-origin' }, '127.0.0.1', true],
  ])('%j, listening on %s: %s', (change, listening, isOwn) => {
    expect(isOwnPage({ ...base, ...change }, listening)).toBe(isOwn);
  });
});
