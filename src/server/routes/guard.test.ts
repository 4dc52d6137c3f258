import type { Request, Response } from 'express';
import { describe, expect, it } from 'vitest';
import { Failure } from '../failures';
import { localOnly } from './guard';

const TOKEN = 'abcdefghij0123456789klmno';

/** What the guard says to a request; the socket's address cannot be had otherwise on one machine. */
function ask(
  guard: ReturnType<typeof localOnly>,
  path: string,
  {
    from = '192.168.1.20',
    host = '192.168.1.5:4870',
    cookie = '',
    origin,
  }: { from?: string; host?: string; cookie?: string; origin?: string } = {},
): { code: string; cookies: string[] } {
  const cookies: string[] = [];
  let code = 'not answered';
  const request = {
    headers: { host, cookie, ...(origin ? { origin } : {}) },
    socket: { remoteAddress: from },
    originalUrl: path,
    path: path.split('?')[0],
  } as unknown as Request;
  const response = { cookie: (name: string, value: string) => cookies.push(`${name}=${value}`) } as unknown as Response;
  guard(request, response, (error?: unknown) => (code = error instanceof Failure ? error.code : 'let in'));
  return { code, cookies };
}

describe('other devices', () => {
  const open = localOnly('0.0.0.0', TOKEN);

  it('reach the pages of listeners with their link alone, and nothing else without the token', () => {
    expect(ask(open, '/listen/join/abc').code).toBe('let in');
    expect(ask(open, '/api/listen/abc/clips/1/A').code).toBe('let in');
    for (const path of [
      '/api/specimens',
      '/api/listening/1',
      '/api/clips/ab/audio',
      '/api/events',
      '/api/listening-addresses',
    ])
      expect(ask(open, path).code).toBe('token-needed');
    expect(ask(open, '/api/specimens', { cookie: 'sediment-token=wrong' }).code).toBe('token-needed');
    expect(ask(open, '/api/specimens?token=abc').code).toBe('token-needed');
  });

  it('are let in by the token, and remembered', () => {
    expect(ask(open, `/?token=${TOKEN}`)).toEqual({ code: 'let in', cookies: [`sediment-token=${TOKEN}`] });
    expect(ask(open, '/api/specimens', { cookie: `other=1; sediment-token=${TOKEN}` }).code).toBe('let in');
  });

  it('the machine itself needs none, nor does anybody where only it is listened to', () => {
    expect(ask(open, '/api/specimens', { from: '::ffff:127.0.0.1', host: '127.0.0.1:4870' }).code).toBe('let in');
    expect(
      ask(localOnly('127.0.0.1', null), '/api/specimens', { from: '127.0.0.1', host: '127.0.0.1:4870' }).code,
    ).toBe('let in');
    expect(ask(localOnly('127.0.0.1', null), '/api/specimens').code).toBe('wrong-host');
    expect(ask(open, '/api/specimens', { from: '127.0.0.1', host: 'rebound.example:4870' }).code).toBe('wrong-host');
    expect(ask(open, '/api/listen/abc', { origin: 'http://elsewhere.example' }).code).toBe('wrong-host');
  });
});
