import { gzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { seededBits, uniform } from '#core/stats/random';
import { openApiDocument } from '#contracts/openapi';
import { PLAIN_PATHS } from '#contracts/http';
import { serve, temporaryFolder, testApplication, writeRunFolder } from '../testing/application';
import { rawRequest } from '../testing/raw-request';

/** Requests per operation; raise it to look further. */
const TRIES = 12;

interface Sent {
  readonly method: string;
  readonly path: string;
  readonly headers?: Record<string, string>;
  readonly body?: string | Buffer;
}

function send(address: string, { method, path, headers = {}, body }: Sent): Promise<{ status: number; body: string }> {
  const { hostname, port } = new URL(address);
  return rawRequest({ host: hostname, port, method, path, headers }, body);
}

const NASTY: readonly unknown[] = [
  '', ' ', '\u0000', 'a\u0000b', '\ud800', 'x\udc00y', '%', '../../etc/passwd', "'; DROP TABLE run; --", '0000-01-01',
  '2026-02-30', '9999-12-31', '-1', '0', '1', '99999999999999999999', '1e400', 'NaN', 0, -0, -1, 0.001, 1.5, 2 ** 31,
  2 ** 53, 1e308, -1e308, true, false, null, [], {}, [[]], { a: { b: [] } }, 'x'.repeat(5000), '𝄞', 'microphone',
  'a'.repeat(64), 'a'.repeat(25), '11111111-1111-4111-8111-111111111111', 'desk-voice',
]; // prettier-ignore

type Schema = Record<string, unknown>;

/** A value that nearly fits a JSON Schema: here and there something else stands in it. */
function nearly(schema: Schema, chance: () => number, depth = 0): unknown {
  const any = (): unknown => NASTY[Math.floor(chance() * NASTY.length)];
  if (depth > 6 || chance() < 0.15) return any();
  const choices = (schema['anyOf'] ?? schema['oneOf']) as Schema[] | undefined;
  if (choices) return nearly(choices[Math.floor(chance() * choices.length)], chance, depth + 1);
  if ('const' in schema) return schema['const'];
  if (Array.isArray(schema['enum'])) return schema['enum'][Math.floor(chance() * schema['enum'].length)];
  switch (schema['type']) {
    case 'object': {
      const properties = (schema['properties'] ?? {}) as Record<string, Schema>;
      const own = Object.entries(properties).filter(() => chance() < 0.95);
      const entries = own.map(([key, inner]) => [key, nearly(inner, chance, depth + 1)]);
      if (chance() < 0.05) entries.push([String(any()), any()]);
      return Object.fromEntries(entries) as unknown;
    }
    case 'array':
      // A tuple has its own schema for each place, and none for further ones.
      if (Array.isArray(schema['prefixItems']))
        return (schema['prefixItems'] as Schema[]).map((inner) => nearly(inner, chance, depth + 1));
      return Array.from({ length: Math.floor(chance() * 4) }, () =>
        nearly((schema['items'] ?? {}) as Schema, chance, depth + 1),
      );
    case 'integer':
    case 'number':
      return [0, 1, 2, 12, 0.5, 48_000, Number(schema['minimum'] ?? 0), Number(schema['maximum'] ?? 1)][
        Math.floor(chance() * 8)
      ];
    case 'boolean':
      return chance() < 0.5;
    case 'string':
      return schema['format'] === 'date' ? '2026-05-02' : ['1', 'speech', 'a'.repeat(25), 'Ines', '11111111-1111-4111-8111-111111111111'][Math.floor(chance() * 5)]; // prettier-ignore
    default:
      return any();
  }
}

describe('whatever is sent', () => {
  it('finds no 500 behind any operation of the OpenAPI document, and nothing of statements or schemas', async () => {
    const application = await testApplication();
    await application.runImport.importFolder(writeRunFolder(temporaryFolder()));
    await application.queue.idle();
    const address = await serve(application);
    const { paths } = openApiDocument('test') as { paths: Record<string, Record<string, Schema>> };
    const bits = seededBits('fuzz of the doors');
    const chance = (): number => uniform(bits);
    const found: string[] = [];
    let count = 0;
    for (const [path, operations] of Object.entries(paths))
      for (const [method, operation] of Object.entries(operations)) {
        const content = (operation['requestBody'] as { content?: Record<string, { schema: Schema }> } | undefined)
          ?.content;
        const schema = content?.['application/json']?.schema;
        for (let i = 0; i < TRIES; i++) {
          const filled = path.replaceAll(/\{\w+\}/g, () =>
            i === 0 ? '1' : encodeURIComponent(safe(NASTY[Math.floor(chance() * NASTY.length)])),
          );
          const body = schema ? JSON.stringify(nearly(schema, chance)) : chance() < 0.2 ? '{"odd":' : undefined;
          const sent: Sent = { method: method.toUpperCase(), path: filled, ...(body === undefined ? {} : { body, headers: { 'content-type': 'application/json' } }) }; // prettier-ignore
          const answer = await send(address, sent);
          count++;
          const isLeak = /SELECT|INSERT|violates|syntax error|invalid_type|node_modules|ZodError/.test(answer.body);
          // A file of 200 GB that is announced where there is no room for it is refused with 507, in words: no fault.
          const isFault = answer.status >= 500 && answer.status !== 507;
          if (isFault || (answer.status >= 400 && isLeak))
            found.push(`${method} ${filled} ${body?.slice(0, 300)} → ${answer.status} ${answer.body.slice(0, 200)}`);
        }
      }
    expect(count).toBeGreaterThan(900);
    expect(found).toEqual([]);
  });

  const json = { 'content-type': 'application/json' };
  const price = (change: object): string =>
    JSON.stringify({ amount: 129, currency: 'EUR', kind: 'street', date: '2026-05-01', ...change });
  it.each<[string, Sent, number | number[]]>([
    ['bad percent-encoding', { method: 'GET', path: '/api/specimens/%E0%A4%A' }, 400],
    ['bad percent-encoding of a screen', { method: 'GET', path: '/gear/%E0%A4%A' }, 400],
    ['NUL in a name', { method: 'POST', path: `${PLAIN_PATHS.upload}?name=a%00b.wav`, body: 'x' }, 400],
    [
      'half a surrogate pair',
      { method: 'POST', path: '/api/texts/phonemes', headers: json, body: '{"text":"\\ud800"}' },
      400,
    ],
    [
      'the day 0000-01-01',
      { method: 'POST', path: '/api/specimens/1/prices', headers: json, body: price({ date: '0000-01-01' }) },
      400,
    ],
    [
      'a price of a tenth of a cent',
      { method: 'POST', path: '/api/specimens/1/prices', headers: json, body: price({ amount: 0.001 }) },
      400,
    ],
    ['a version beyond 2³¹', { method: 'GET', path: '/api/protocols/desk-voice/99999999999/sweep.wav' }, 404],
    ['bridges of such versions', { method: 'GET', path: '/api/protocols/desk-voice/bridges/99999999999/1' }, 404],
    ['a rate that is none', { method: 'GET', path: '/api/protocols/desk-voice/3/sweep.wav?rate=abc' }, 400],
    [
      'a body over the limit',
      { method: 'POST', path: '/api/runs', headers: json, body: `{"a":"${'x'.repeat(5_000_000)}"}` },
      413,
    ],
    [
      'more values than anybody sends',
      { method: 'POST', path: '/api/runs', headers: json, body: `{"document":[${'1,'.repeat(30_000)}1]}` },
      400,
    ],
    [
      'an unknown charset',
      {
        method: 'POST',
        path: '/api/runs',
        headers: { 'content-type': 'application/json; charset=klingon' },
        body: '{}',
      },
      400,
    ],
    [
      'an unknown encoding',
      { method: 'POST', path: '/api/runs', headers: { ...json, 'content-encoding': 'x-rot13' }, body: '{}' },
      400,
    ],
    [
      'broken gzip',
      {
        method: 'POST',
        path: '/api/runs',
        headers: { ...json, 'content-encoding': 'gzip' },
        body: gzipSync('{"a":1}').subarray(0, 12),
      },
      400,
    ],
    [
      'a malformed cookie',
      { method: 'GET', path: '/api/status', headers: { cookie: 'sediment-session=%E0%A4%A' } },
      200,
    ],
    ['an address of slashes', { method: 'GET', path: '//' }, [200, 404]],
    ['a method nobody has', { method: 'PROPFIND', path: '/api/status' }, 404],
    ['a token twice', { method: 'GET', path: '/?token=a&token=b' }, [200, 404]],
  ])('%s is answered in words', async (_, sent, status) => {
    const address = await serve(await testApplication());
    const answer = await send(address, sent);
    // Where the page has not been built, its addresses lead nowhere.
    expect([status].flat()).toContain(answer.status);
    if (answer.status >= 400)
      expect(JSON.parse(answer.body)).toMatchObject({ error: { message: expect.stringMatching(/\.$/) as string } });
  });
});

/** As a part of an address: half of a surrogate pair cannot be encoded at all. */
const safe = (value: unknown): string =>
  (typeof value === 'string' ? value.replaceAll(/[\ud800-\udfff]/g, '?') : JSON.stringify(value)) || 'x';
