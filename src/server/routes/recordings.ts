import express, { type NextFunction, type Request, type Response } from 'express';
import { z } from 'zod';
import { benchTakeSchema } from '#contracts/bench';
import { recordingIdSchema } from '#contracts/recording';
import { Failure } from '../platform/failure';
import type { RenderSweepTask } from '#worker/tasks/render-sweep';
import type { Application } from '../wiring';
import { parse, plain, type Site } from './handle';

/** A second of two channels at 192 kHz is 1.2 MB. */
const LARGEST_CHUNK = '8mb';
const chunkParams = z.object({
  id: recordingIdSchema,
  frame: z.coerce
    .number()
    .int()
    .min(0)
    .max(2 ** 40),
});
/** As many as the database counts. */
const MOST_VERSIONS = 2 ** 31 - 1;
const versionParams = z.object({ slug: z.string(), version: z.coerce.number().int().min(1).max(MOST_VERSIONS) });
const rateQuery = z.object({ rate: z.coerce.number().int().min(8000).max(192_000).default(48_000) });

/** Sound in and out beside the archive: chunks of a recording, the simulated bench, the sweep of a protocol. */
export function recordingRoutes(site: Site, { recordings, bench, protocols, pool }: Application): void {
  plain(
    site,
    'chunk',
    express.raw({ type: 'application/octet-stream', limit: LARGEST_CHUNK }),
    async (request: Request, response: Response, next: NextFunction) => {
      try {
        const params = chunkParams.safeParse(request.params);
        if (!params.success || !Buffer.isBuffer(request.body))
          throw new Failure('invalid-request', 'A chunk needs its recording, its first frame and its bytes.');
        const { id, frame } = params.data;
        response.json({ frames: await recordings.write(id, frame, request.body) });
      } catch (error) {
        next(error);
      }
    },
  );

  plain(site, 'benchTake', express.json(), async (request: Request, response: Response, next: NextFunction) => {
    try {
      const take = benchTakeSchema.safeParse(request.body);
      if (!take.success) throw new Failure('invalid-request', 'The simulated bench does not understand this.');
      response.type('audio/wav').send(Buffer.from(await bench.take(take.data)));
    } catch (error) {
      next(error);
    }
  });

  plain(site, 'sweep', async (request: Request, response: Response, next: NextFunction) => {
    try {
      const { sweep, protocol } = await versionOf(request);
      const { rate } = parse(rateQuery, request.query);
      if (!sweep) throw new Failure('not-found', 'This protocol plays no sweep.');
      const bytes = await pool.run('render-sweep', { sweep, rate } satisfies RenderSweepTask);
      response.attachment(`${protocol.id}-${protocol.version}-sweep-${rate}.wav`);
      response.type('audio/wav').send(Buffer.from(bytes));
    } catch (error) {
      next(error);
    }
  });

  plain(site, 'protocolJson', async (request: Request, response: Response, next: NextFunction) => {
    try {
      const { protocol } = await versionOf(request);
      response.attachment(`${protocol.id}-${protocol.version}.json`);
      response.type('application/json').send(`${JSON.stringify(protocol, null, 2)}\n`);
    } catch (error) {
      next(error);
    }
  });

  async function versionOf(request: Request) {
    const params = versionParams.safeParse(request.params);
    const protocol = params.success ? await protocols.find(params.data.slug, params.data.version) : null;
    if (!protocol) throw new Failure('not-found', 'There is no such version of a protocol.');
    return { protocol, sweep: protocol.sweep };
  }
}
