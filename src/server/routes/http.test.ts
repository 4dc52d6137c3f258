import { once } from 'node:events';
import { request, type IncomingMessage } from 'node:http';
import { text } from 'node:stream/consumers';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { clipSchema } from '#contracts/clip';
import { ENDPOINTS, PLAIN_PATHS } from '#contracts/http';
import { problemSchema, type Problem } from '#contracts/problem';
import { importResultSchema } from '#contracts/run-document';
import { runDocument, serve, takeWav, temporaryFolder, testApplication, writeRunFolder } from '../testing/application';

const post = (url: string, body: unknown): Promise<Response> =>
  fetch(url, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
const upload = (address: string, name: string, bytes: Uint8Array<ArrayBuffer> | string, more = ''): Promise<Response> =>
  fetch(`${address}${PLAIN_PATHS.upload}?name=${encodeURIComponent(name)}${more}`, { method: 'POST', body: bytes });
const problem = async (response: Response): Promise<Problem> => problemSchema.parse(await response.json()).error;

it('a long list is sent once: whoever has it as it stands is told so, and after a fact it is sent as it is then', async () => {
  const application = await testApplication();
  const address = await serve(application);
  const { id } = await application.scoring.addUnit(runDocument().specimen);
  // As a browser asks that has it: fetch would say that it wants nothing that is kept.
  const ask = async (tag: string) => {
    const asked = request(`${address}${ENDPOINTS.specimens.path}`, { headers: { 'if-none-match': tag } });
    asked.end();
    const [response] = (await once(asked, 'response')) as [IncomingMessage];
    return { status: response.statusCode, headers: response.headers, body: await text(response) };
  };
  const first = await ask('');
  expect([first.status, first.headers['content-type']]).toEqual([200, 'application/json; charset=utf-8']);
  expect(JSON.parse(first.body)).toMatchObject([{ id, price: null }]);
  const tag = first.headers.etag ?? '';
  expect(await ask(tag)).toMatchObject({ status: 304, body: '' });
  await application.scoring.notePrice(id, { amount: 120, currency: 'EUR', kind: 'street', date: '2026-01-01' });
  const after = await ask(tag);
  expect(after.status).toBe(200);
  expect(JSON.parse(after.body)).toMatchObject([{ id, price: { amount: 120 } }]);
});

describe('uploads', () => {
  it('stores a clip once, however often it comes, and plays it by ranges', async () => {
    const application = await testApplication();
    const address = await serve(application);
    const bytes = takeWav(-14, -70);
    const first = clipSchema.parse(await (await upload(address, 'speech.wav', bytes)).json());
    const second = clipSchema.parse(await (await upload(address, 'other name.wav', bytes)).json());
    expect(second).toEqual(first);
    expect(first).toMatchObject({
      name: 'speech.wav',
      bytes: bytes.length,
      format: { sampleRateHz: 16_000, channels: 1, durationS: 4 },
    });
    const url = address + PLAIN_PATHS.audio.replace(':sha256', first.sha256);
    const part = await fetch(url, { headers: { range: 'bytes=44-143' } });
    expect(part.status).toBe(206);
    expect(part.headers.get('content-range')).toBe(`bytes 44-143/${bytes.length}`);
    expect(new Uint8Array(await part.arrayBuffer())).toEqual(bytes.slice(44, 144));
    expect((await fetch(url)).headers.get('content-type')).toBe('audio/wav');
  });

  it.each([
    ['empty', '', 'clip-refused', /empty/],
    ['text', 'RIFFraff is not audio, whatever the name says', 'clip-refused', /not a WAV/],
    ['junk', '\u0000\u0001\u0002\u0003', 'clip-refused', /no sound that is known here/],
    ['a FLAC header without the rest', `fLaC${'\u0000'.repeat(60)}`, 'clip-refused', /./],
  ])('refuses %s and keeps nothing', async (_, body, code, message) => {
    const application = await testApplication();
    const address = await serve(application);
    const response = await upload(address, 'x.wav', body);
    expect(response.status).toBe(422);
    const found = await problem(response);
    expect(found.code).toBe(code);
    expect(found.message).toMatch(message);
    expect(found.details[0].file).toBe('x.wav');
    expect(readdirSync(join(application.status.dataFolder, 'incoming'))).toEqual([]);
    expect(readdirSync(join(application.status.dataFolder, 'clips'))).toEqual([]);
  });

  it('refuses float samples that are not numbers, with their place', async () => {
    const address = await serve(await testApplication());
    const samples = new Float64Array(16_000);
    samples[8_000] = NaN;
    const found = await problem(await upload(address, 'x.wav', encodeWav([samples], 16_000, 'float32')));
    expect(found.message).toMatch(/Channel 1 .*NaN at 0\.5000 s/);
  });

  it('says what is there of a truncated file, and keeps that part on demand', async () => {
    const application = await testApplication();
    const address = await serve(application);
    const cut = takeWav(-14, -70).slice(0, 44 + 3 * 24_000);
    const found = await problem(await upload(address, 'cut.wav', cut));
    expect(found).toMatchObject({ code: 'clip-truncated', truncation: { claimedS: 4, presentS: 1.5 } });
    const kept = clipSchema.parse(await (await upload(address, 'cut.wav', cut, '&keepPart=1')).json());
    expect(kept).toMatchObject({ format: { durationS: 1.5 }, salvaged: { claimedS: 4 } });
    const stored = await fetch(address + PLAIN_PATHS.audio.replace(':sha256', kept.sha256));
    expect(new Uint8Array(await stored.arrayBuffer()).slice(44)).toEqual(cut.slice(44));
    expect(readdirSync(join(application.status.dataFolder, 'incoming'))).toEqual([]);
  });

  it('keeps nothing of an upload that the browser gives up', async () => {
    const application = await testApplication();
    const address = new URL(await serve(application));
    await new Promise<void>((resolve) => {
      const sending = request({
        host: address.hostname,
        port: address.port,
        path: `${PLAIN_PATHS.upload}?name=a.wav`,
        method: 'POST',
      });
      sending.on('error', () => resolve());
      sending.on('close', () => resolve());
      sending.write(Buffer.alloc(300_000));
      setTimeout(() => sending.destroy(), 100);
    });
    await expect.poll(() => readdirSync(join(application.status.dataFolder, 'incoming'))).toEqual([]);
  });

  it('wants a name', async () => {
    const address = await serve(await testApplication());
    expect((await fetch(address + PLAIN_PATHS.upload, { method: 'POST', body: 'x' })).status).toBe(400);
  });
});

describe('a run over HTTP', () => {
  it('is imported from uploads, measured, and told about as it happens', async () => {
    const application = await testApplication();
    const address = await serve(application);
    const events = new AbortController();
    const stream = await fetch(address + PLAIN_PATHS.events, { signal: events.signal });
    const told = collect(stream);
    const clips: Record<string, string> = {};
    for (const [name, bytes] of [
      ['speech.wav', takeWav(-14, -70, 1)],
      ['silence.wav', takeWav(null, -70, 5)],
      ['rear.wav', takeWav(-26, -70, 9)],
    ] as const) {
      clips[name] = clipSchema.parse(await (await upload(address, name, bytes)).json()).sha256;
    }
    const { specimenId } = importResultSchema.parse(
      await (await post(address + ENDPOINTS.importRun.path, { document: runDocument(), clips })).json(),
    );
    await application.queue.idle();
    await expect.poll(() => told.text).toContain(`"type":"specimen","specimenId":"${specimenId}"`);
    expect(told.text).toContain('Measuring Oarlock Purser');
    events.abort();
    const sheet = ENDPOINTS.specimen.answer.parse(await (await fetch(`${address}/api/specimens/${specimenId}`)).json());
    expect(sheet.row).toMatchObject({ stage: 'scored', place: 1 });
    const waveform = ENDPOINTS.waveform.answer.parse(
      await (await fetch(`${address}/api/clips/${clips['speech.wav']}/waveform`)).json(),
    );
    expect(waveform.durationS).toBe(4);
    expect(Math.max(...waveform.pairs)).toBeGreaterThan(0.1);
    for (const path of [
      '/api/specimens',
      '/api/sessions',
      '/api/protocols',
      '/api/ranking/microphone',
      '/api/ranking/microphone/inputs',
      '/api/status',
      '/api/jobs',
    ]) {
      const endpoint = Object.values(ENDPOINTS).find((e) => e.path.replace(':category', 'microphone') === path);
      expect(endpoint).toBeDefined();
      endpoint?.answer.parse(await (await fetch(address + path)).json());
    }
  });

  it('refuses clips that were never uploaded', async () => {
    const address = await serve(await testApplication());
    const response = await post(address + ENDPOINTS.importRun.path, {
      document: runDocument(),
      clips: { 'speech.wav': 'f'.repeat(64) },
    });
    expect(response.status).toBe(422);
    expect((await problem(response)).details.map((d) => d.file)).toEqual(['speech.wav', 'silence.wav', 'rear.wav']);
  });
});

describe('points, prices and the desk', () => {
  it('append, change the ranking, and refuse what does not fit', async () => {
    const application = await testApplication();
    const address = await serve(application);
    const { specimenId } = await application.runImport.importFolder(writeRunFolder(temporaryFolder()));
    await application.queue.idle();
    const at = `${address}/api/specimens/${specimenId}`;
    const composite = async (): Promise<number | null> => (await application.catalogue.sheet(specimenId)).row.composite;
    const before = await composite();
    expect((await post(`${at}/points`, { criterion: 'sound', value: 5, reason: 'again' })).status).toBe(200);
    expect(await composite()).toBeGreaterThan(before!);
    expect(
      (await post(`${at}/prices`, { amount: 2000, currency: 'EUR', kind: 'street', date: '2026-05-09' })).status,
    ).toBe(200);
    expect((await application.catalogue.sheet(specimenId)).row.price?.amount).toBe(2000);
    expect((await post(`${at}/custody`, { onDesk: false })).status).toBe(200);
    expect((await application.catalogue.sheet(specimenId)).row.onDesk).toBe(false);

    expect((await problem(await post(`${at}/points`, { criterion: 'noise', value: 5 }))).details[0].field).toBe(
      'criterion',
    );
    expect((await problem(await post(`${at}/points`, { criterion: 'sound', value: 7 }))).details[0].field).toBe(
      'value',
    );
    expect(
      (await post(`${at}/prices`, { amount: 0, currency: 'EUR', kind: 'street', date: '2026-05-09' })).status,
    ).toBe(400);
    expect((await post(`${address}/api/specimens/999/points`, { criterion: 'sound', value: 5 })).status).toBe(404);
    expect((await post(`${address}/api/specimens/x/points`, { criterion: 'sound', value: 5 })).status).toBe(400);
  });
});

describe('the door', () => {
  it('lets no other site in, by Host or by Origin', async () => {
    const address = await serve(await testApplication());
    const { port } = new URL(address);
    const status = (headers: Record<string, string>): Promise<number | undefined> =>
      new Promise((resolve) =>
        request({ host: '127.0.0.1', port, path: '/api/status', headers }, (r) => resolve(r.statusCode)).end(),
      );
    expect(await status({})).toBe(200);
    expect(await status({ host: `localhost:${port}` })).toBe(200);
    expect(await status({ host: 'harbour.example' })).toBe(403);
    expect(await status({ origin: 'http://harbour.example' })).toBe(403);
    expect(await status({ origin: `http://127.0.0.1:${port}` })).toBe(200);
    expect(await status({ origin: 'not an address' })).toBe(403);
  });

  it('answers what it does not know, and what is not JSON, in the same form', async () => {
    const address = await serve(await testApplication());
    expect((await problem(await fetch(`${address}/api/nothing`))).code).toBe('not-found');
    const broken = await fetch(address + ENDPOINTS.importRun.path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{',
    });
    expect((await problem(broken)).code).toBe('invalid-request');
    expect((await fetch(`${address}/api/clips/${'0'.repeat(64)}/audio`)).status).toBe(404);
    expect((await fetch(`${address}/api/clips/..%2f..%2fetc%2fpasswd/audio`)).status).toBe(404);
    expect((await fetch(`${address}/api/specimens/999`)).status).toBe(404);
    expect((await fetch(`${address}/api/ranking/oboes/inputs`)).status).toBe(400);
  });

  it('describes itself in OpenAPI, every endpoint', async () => {
    const address = await serve(await testApplication());
    const document = (await (await fetch(address + PLAIN_PATHS.openapi)).json()) as {
      openapi: string;
      paths: Record<string, unknown>;
    };
    expect(document.openapi).toBe('3.1.0');
    for (const { path } of Object.values(ENDPOINTS))
      expect(document.paths).toHaveProperty([path.replace(/:(\w+)/g, '{$1}')]);
  });
});

function collect(response: Response): { text: string } {
  const told = { text: '' };
  const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader();
  void (async () => {
    try {
      for (let part = await reader?.read(); part && !part.done; part = await reader?.read()) told.text += part.value;
    } catch {
      // The test has closed the connection.
    }
  })();
  return told;
}
