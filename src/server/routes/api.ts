import { ENDPOINTS } from '#contracts/http';
import { Failure } from '../platform/failure';
import type { Devices } from '../platform/devices';
import type { Application } from '../wiring';
import { handle, handleRows, type Site } from './handle';

const ok = { ok: true } as const;

/** The JSON endpoints: parse, call, answer. */
export function apiRoutes(site: Site, application: Application, devices: Devices): void {
  const { catalogue, scoring, runImport, queue, clips, jobs, takePages, pictures } = application;
  handle(site, ENDPOINTS.status, () => Promise.resolve(application.status));
  handle(site, ENDPOINTS.archive, () => application.integrity.state());
  handle(site, ENDPOINTS.checkArchive, () => application.integrity.checkInBackground());
  handle(site, ENDPOINTS.devices, () => devices.list());
  handle(site, ENDPOINTS.revokeDevice, async ({ params }) => {
    await devices.revoke(params.id);
    return ok;
  });
  handle(site, ENDPOINTS.jobs, () => Promise.resolve(jobs.list()));
  handleRows(site, ENDPOINTS.specimens, () => catalogue.specimens());
  handle(site, ENDPOINTS.specimen, ({ params }) => catalogue.sheet(params.id));
  handle(site, ENDPOINTS.sessions, () => catalogue.sessions());
  handle(site, ENDPOINTS.protocols, () => application.protocols.protocols());
  handle(site, ENDPOINTS.rubrics, () => catalogue.rubrics());
  handle(site, ENDPOINTS.rates, () => scoring.rates());
  handle(site, ENDPOINTS.noteRates, async ({ body }) => {
    await scoring.noteRates(body.rates);
    return ok;
  });
  handle(site, ENDPOINTS.rubricVersions, ({ params }) => application.rubricBook.versions(params.category));
  handle(site, ENDPOINTS.saveRubric, ({ body }) => application.rubricBook.save(body));
  handle(site, ENDPOINTS.savedLists, () => application.savedLists.list());
  handle(site, ENDPOINTS.keepList, ({ body }) => application.savedLists.keep(body));
  handle(site, ENDPOINTS.removeList, async ({ params }) => {
    await application.savedLists.remove(params.id);
    return ok;
  });
  handle(site, ENDPOINTS.kinds, () => application.kindBook.kinds());
  handle(site, ENDPOINTS.saveKind, ({ body }) => application.kindBook.save(body));
  handle(site, ENDPOINTS.rankingInputs, ({ params }) => catalogue.rankingInputs(params.category));
  handle(site, ENDPOINTS.rankingOnDay, ({ params }) => catalogue.rankingOnDay(params.category, params.day));
  handle(site, ENDPOINTS.ranking, ({ params }) => catalogue.ranking(params.category));
  handle(site, ENDPOINTS.importRun, ({ body }) => runImport.importUploaded(body));
  handle(site, ENDPOINTS.givePoints, async ({ params, body }) => {
    await scoring.givePoints(params.id, body);
    return ok;
  });
  handle(site, ENDPOINTS.notePrice, async ({ params, body }) => {
    await scoring.notePrice(params.id, body);
    return ok;
  });
  handle(site, ENDPOINTS.addRelation, ({ params, body }) => application.relations.add(params.id, body));
  handle(site, ENDPOINTS.addVariant, ({ params, body }) => application.variants.add(params.id, body));
  handle(site, ENDPOINTS.countVariant, async ({ params, body }) => {
    await application.variants.count(params.id, body);
    return ok;
  });
  handle(site, ENDPOINTS.endRelation, async ({ params }) => {
    await application.relations.end(params.id);
    return ok;
  });
  handle(site, ENDPOINTS.fillSheet, async ({ params, body }) => {
    await application.sheets.put(params.id, body);
    return ok;
  });
  handle(site, ENDPOINTS.addUnit, ({ body }) => scoring.addUnit(body));
  handle(site, ENDPOINTS.corrections, () => application.corrections.list(null));
  handle(site, ENDPOINTS.correctionsOfUnit, ({ params }) => application.corrections.list(params.id));
  handle(site, ENDPOINTS.correct, ({ body }) => application.corrections.correct(body));
  handle(site, ENDPOINTS.undoCorrection, async ({ params }) => {
    await application.corrections.undo(params.id);
    return ok;
  });
  handle(site, ENDPOINTS.answersOfUnit, ({ params }) => application.unitAnswers.of(params.id));
  handle(site, ENDPOINTS.removals, () => application.removals.list());
  handle(site, ENDPOINTS.previewRemoval, ({ params }) => application.removals.preview(params.what, params.id));
  handle(site, ENDPOINTS.remove, ({ body }) => application.removals.remove(body));
  handle(site, ENDPOINTS.setCustody, async ({ params, body }) => {
    await scoring.setCustody(params.id, body.onDesk);
    return ok;
  });
  handle(site, ENDPOINTS.retryAnalysis, async ({ params }) => {
    await queue.retry(params.id);
    return ok;
  });
  handle(site, ENDPOINTS.clip, async ({ params }) => {
    const clip = await clips.find(params.sha256);
    if (!clip) throw new Failure('not-found', 'There is no such clip in the archive.');
    return clip;
  });
  handle(site, ENDPOINTS.waveform, async ({ params }) => {
    const waveform = await clips.waveform(params.sha256);
    if (!waveform) throw new Failure('not-found', 'This clip has not been measured yet.');
    return waveform;
  });
  handle(site, ENDPOINTS.spectrogram, ({ params }) => pictures.spectrogram(params.sha256));
  handle(site, ENDPOINTS.take, ({ params }) => takePages.page(params.id));
  handle(site, ENDPOINTS.chooseSegments, ({ params, body }) => takePages.chooseSegments(params.id, body.segments));
}
