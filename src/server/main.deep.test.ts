import { readdirSync } from 'node:fs';
import { request, type ClientRequest } from 'node:http';
import { createServer } from 'node:net';
import { hostname } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { clipSchema } from '#contracts/clip';
import { ENDPOINTS, PLAIN_PATHS } from '#contracts/http';
import { importResultSchema } from '#contracts/run-document';
import { emptyArchive, runDocument, takeWav } from './testing/application';
import { runToEnd, startServer, type ServerProcess } from './testing/process';

const TAKES = {
  'speech.wav': takeWav(-14, -70, 1),
  'silence.wav': takeWav(null, -70, 5),
  'rear.wav': takeWav(-26, -70, 9),
};

async function upload(server: ServerProcess, name: keyof typeof TAKES): Promise<string> {
  const response = await fetch(`${server.address}${PLAIN_PATHS.upload}?name=${name}`, {
    method: 'POST',
    body: TAKES[name],
  });
  return clipSchema.parse(await response.json()).sha256;
}

/** Begins an upload and does not end it. */
function halfUpload(server: ServerProcess): Promise<ClientRequest> {
  return new Promise((resolve) => {
    const sending = request(`${server.address}${PLAIN_PATHS.upload}?name=half.wav`, { method: 'POST' });
    sending.on('error', () => undefined);
    sending.write(Buffer.from(TAKES['speech.wav'].subarray(0, 150_000)), () => setTimeout(() => resolve(sending), 300));
  });
}

describe('killing the server', () => {
  it('loses no finished upload, leaves no half one, and takes up again what was being measured', async () => {
    const folder = emptyArchive();
    const first = await startServer(folder);
    const clips: Record<string, string> = {};
    for (const name of Object.keys(TAKES) as (keyof typeof TAKES)[]) clips[name] = await upload(first, name);
    const half = await halfUpload(first);
    expect(readdirSync(join(folder, 'incoming'))).toHaveLength(1);
    const imported = await fetch(first.address + ENDPOINTS.importRun.path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ document: runDocument(), clips }),
    });
    const { specimenId } = importResultSchema.parse(await imported.json());
    await first.kill('SIGKILL');
    half.destroy();

    const second = await startServer(folder);
    expect(readdirSync(join(folder, 'incoming'))).toEqual([]);
    for (const [name, sha256] of Object.entries(clips)) {
      const played = await fetch(second.address + PLAIN_PATHS.audio.replace(':sha256', sha256));
      expect(new Uint8Array(await played.arrayBuffer())).toEqual(TAKES[name as keyof typeof TAKES]);
    }
    await expect
      .poll(
        async () =>
          ENDPOINTS.specimen.answer.parse(await (await fetch(`${second.address}/api/specimens/${specimenId}`)).json())
            .row.stage,
        { timeout: 30_000 },
      )
      .toBe('scored');
    await second.kill('SIGTERM');
    expect(second.child.exitCode).toBe(0);
  });

  it('adopts a clip that was stored whole when the process ended before noting it', async () => {
    const folder = emptyArchive();
    const first = await startServer(folder);
    // Between storing and noting there is no time to be hit reliably; so the note is what is taken away: many kills
    // right after the bytes were sent, until the archive holds the clip, with or without its note.
    const sha256 = await upload(first, 'silence.wav');
    for (const delay of [0, 5, 20]) {
      const sending = fetch(`${first.address}${PLAIN_PATHS.upload}?name=rear.wav`, {
        method: 'POST',
        body: TAKES['rear.wav'],
      }).catch(() => null);
      await new Promise((resolve) => setTimeout(resolve, delay));
      if (delay === 20) await first.kill('SIGKILL');
      await sending;
    }
    const second = await startServer(folder);
    const stored = readdirSync(join(folder, 'clips'), { recursive: true })
      .map(String)
      .filter((n) => n.endsWith('.wav'));
    expect(stored.some((n) => n.includes(sha256))).toBe(true);
    for (const name of stored) {
      const hash = /([0-9a-f]{64})\.wav$/.exec(name)?.[1] as string;
      expect((await fetch(`${second.address}/api/clips/${hash}`)).status).toBe(200);
    }
    await second.kill('SIGTERM');
  });
});

describe('starting', () => {
  it('is refused on a data folder that is in use, with the address of the other one', async () => {
    const folder = emptyArchive();
    const server = await startServer(folder);
    const second = await runToEnd('dist/node/main.js', [], { SEDIMENT_DATA: folder, SEDIMENT_PORT: '1' });
    expect(second.code).toBe(1);
    expect(second.stderr).toContain(`in use by another Sediment (process ${server.child.pid} on ${hostname()})`);
    expect(second.stderr).toContain(`http://127.0.0.1:${server.port}`);
    await server.kill('SIGTERM');
  });

  it('is refused on a busy port, and on one that is none', async () => {
    const other = createServer();
    await new Promise<void>((resolve) => other.listen(0, '127.0.0.1', resolve));
    const { port } = other.address() as { port: number };
    const busy = await runToEnd('dist/node/main.js', [], {
      SEDIMENT_DATA: emptyArchive(),
      SEDIMENT_PORT: String(port),
    });
    expect(busy).toMatchObject({
      code: 1,
      stderr: expect.stringContaining(`Port ${port} is in use by another program. Set SEDIMENT_PORT`) as string,
    });
    other.close();
    const none = await runToEnd('dist/node/main.js', [], {
      SEDIMENT_DATA: emptyArchive(),
      SEDIMENT_PORT: 'harbour',
    });
    expect(none).toMatchObject({ code: 1, stderr: expect.stringContaining('must be a port number') as string });
  });
});
