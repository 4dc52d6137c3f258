import type { AddressInfo } from 'node:net';
import { request } from 'node:http';
import express from 'express';
import { describe, expect, it, onTestFinished } from 'vitest';
import { newTestSchema } from '#contracts/listening';
import { openServer, OTHER_DEVICE } from '../testing/open-server';
import { importUnits } from '../testing/heard-catalogue';
import { listeningServer } from './server';

const json = { 'content-type': 'application/json' };

describe('one device', () => {
  it('begins a few sittings of a test within a minute, others go on, and tries few links that lead nowhere', async () => {
    const { ask, port, application } = await openServer();
    const units = await importUnits(application, 2);
    const test = newTestSchema.parse({ name: 'Limits', design: 'pairs', takes: units.map((u) => u.takeId), passage: { fromS: 0.5, lengthS: 2 } }); // prettier-ignore
    const { row, invitation } = await application.tests.create(test);
    await application.listeningClips.settled();
    expect((await application.tests.page(row.id)).row.status).toBe('open');
    const from = (address: string) => ({ ...json, 'x-from': address, host: `192.168.1.5:${port}` });
    const join = (address: string) => ask('POST', `/api/listen/join/${invitation}`, from(address), '{"name":"Ines"}');
    const mine = await Promise.all(Array.from({ length: 14 }, () => join(OTHER_DEVICE)));
    expect(mine.filter((a) => a.status === 200)).toHaveLength(10);
    expect(mine.filter((a) => a.code === 'too-many')).toHaveLength(4);
    expect((await join('192.168.1.21')).status).toBe(200);
    const guess = () => ask('GET', `/api/listen/${'b'.repeat(25)}`, from('192.168.1.99'));
    const guesses = await Promise.all(Array.from({ length: 34 }, guess));
    expect(guesses.filter((a) => a.status === 404)).toHaveLength(30);
    expect(guesses.filter((a) => a.code === 'too-many')).toHaveLength(4);
  });
});

describe('the server', () => {
  /** Sends a body piece by piece. @returns the status, or null where the connection was closed */
  function trickle(port: number, pieces: number, everyMs: number, ends: boolean): Promise<number | null> {
    return new Promise((resolve) => {
      const sending = request({
        host: '127.0.0.1',
        port,
        method: 'POST',
        path: '/',
        headers: { 'transfer-encoding': 'chunked' },
      });
      sending.on('response', (response) => resolve(response.statusCode ?? 0));
      sending.on('error', () => resolve(null));
      let sent = 0;
      const timer = setInterval(() => {
        if (sent++ < pieces) sending.write('x');
        else {
          clearInterval(timer);
          if (ends) sending.end();
        }
      }, everyMs);
    });
  }

  it('waits for whoever sends slowly, and answers slowly itself, but not for silence', async () => {
    // A busy machine holds up a timer by half a second at times: pieces come eight times as often as they must.
    const SILENCE_MS = 2000;
    const app = express();
    app.post('/', (req, res) => {
      req.resume();
      // Longer than the silence that is borne.
      req.on('end', () => setTimeout(() => res.sendStatus(200), SILENCE_MS + 500));
    });
    const server = listeningServer(app, SILENCE_MS);
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    onTestFinished(() => {
      server.closeAllConnections();
      server.close();
    });
    const { port } = server.address() as AddressInfo;
    const [slow, silent] = await Promise.all([trickle(port, 12, SILENCE_MS / 8, true), trickle(port, 2, 50, false)]);
    expect(slow).toBe(200);
    expect(silent).toBeNull();
  });
});
