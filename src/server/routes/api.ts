import type { Express } from 'express';
import { ENDPOINTS } from '#contracts/http';
import { Failure } from '../failures';
import type { Application } from '../wiring';
import { handle } from './handle';

const ok = { ok: true } as const;

/** The JSON endpoints: parse, call, answer. */
export function apiRoutes(app: Express, application: Application): void {
  const { catalogue, scoring, runImport, queue, clips, jobs, takePages, pictures } = application;
  handle(app, ENDPOINTS.status, () => Promise.resolve(application.status));
  handle(app, ENDPOINTS.jobs, () => Promise.resolve(jobs.list()));
  handle(app, ENDPOINTS.specimens, async () => [...(await catalogue.specimens())]);
  handle(app, ENDPOINTS.specimen, ({ params }) => catalogue.sheet(params.id));
  handle(app, ENDPOINTS.sessions, () => catalogue.sessions());
  handle(app, ENDPOINTS.protocols, () => application.protocols.protocols());
  handle(app, ENDPOINTS.rankingInputs, ({ params }) => catalogue.rankingInputs(params.category));
  handle(app, ENDPOINTS.ranking, ({ params }) => catalogue.ranking(params.category));
  handle(app, ENDPOINTS.importRun, ({ body }) => runImport.importUploaded(body));
  handle(app, ENDPOINTS.givePoints, async ({ params, body }) => {
    await scoring.givePoints(params.id, body);
    return ok;
  });
  handle(app, ENDPOINTS.notePrice, async ({ params, body }) => {
    await scoring.notePrice(params.id, body);
    return ok;
  });
  handle(app, ENDPOINTS.setCustody, async ({ params, body }) => {
    await scoring.setCustody(params.id, body.onDesk);
    return ok;
  });
  handle(app, ENDPOINTS.retryAnalysis, async ({ params }) => {
    await queue.retry(params.id);
    return ok;
  });
  handle(app, ENDPOINTS.clip, async ({ params }) => {
    const clip = await clips.find(params.sha256);
    if (!clip) throw new Failure('not-found', 'There is no such clip in the archive.');
    return clip;
  });
  handle(app, ENDPOINTS.waveform, async ({ params }) => {
    const waveform = await clips.waveform(params.sha256);
    if (!waveform) throw new Failure('not-found', 'This clip has not been measured yet.');
    return waveform;
  });
  handle(app, ENDPOINTS.spectrogram, ({ params }) => pictures.spectrogram(params.sha256));
  handle(app, ENDPOINTS.take, ({ params }) => takePages.page(params.id));
  handle(app, ENDPOINTS.chooseSegments, ({ params, body }) => takePages.chooseSegments(params.id, body.segments));
}
