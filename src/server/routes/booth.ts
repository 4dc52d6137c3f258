import { ENDPOINTS } from '#contracts/http';
import { countPhonemes } from '../sessions/phoneme-counter';
import type { Application } from '../wiring';
import { handle, type Site } from './handle';

const ok = { ok: true } as const;

/** Protocols, rigs, sessions and the booth: parse, call, answer. */
export function boothRoutes(site: Site, application: Application): void {
  const { protocols, rigs, plans, planPages, booth, recordings, sorting, bench } = application;
  handle(site, ENDPOINTS.protocolVersions, () => protocols.versions());
  handle(site, ENDPOINTS.saveProtocol, ({ body }) => protocols.save(body.document));
  handle(site, ENDPOINTS.bridges, ({ params }) => protocols.bridges(params.slug, params.from, params.to));
  handle(site, ENDPOINTS.countPhonemes, ({ body }) => Promise.resolve(countPhonemes(body.text)));
  handle(site, ENDPOINTS.rigs, () => rigs.list());
  handle(site, ENDPOINTS.addRig, ({ body }) => rigs.add(body));
  handle(site, ENDPOINTS.calibrate, ({ params, body }) => rigs.calibrate(params.id, body));
  handle(site, ENDPOINTS.reading, ({ params }) => rigs.reading(params.sha256));
  handle(site, ENDPOINTS.plans, () => planPages.list());
  handle(site, ENDPOINTS.due, () => application.dueTests.list());
  handle(site, ENDPOINTS.addPlan, ({ body }) => plans.add(body));
  handle(site, ENDPOINTS.plan, ({ params }) => planPages.view(params.id));
  handle(site, ENDPOINTS.changePlan, ({ params, body }) => plans.change(params.id, body));
  handle(site, ENDPOINTS.movePlan, ({ params, body }) => plans.move(params.id, body.status));
  handle(site, ENDPOINTS.seeCaution, async ({ params, body }) => {
    await plans.seeCaution(params.id, body.caution);
    return ok;
  });
  handle(site, ENDPOINTS.addSlotTake, ({ params, body }) => booth.addTake(params.id, body));
  handle(site, ENDPOINTS.decideTake, ({ params, body }) => booth.decide(params.id, body));
  handle(site, ENDPOINTS.correctSlotTake, ({ params, body }) => booth.correct(params.id, body));
  handle(site, ENDPOINTS.fillTable, async ({ params, body }) => {
    await booth.fillTable(params.id, body);
    return ok;
  });
  handle(site, ENDPOINTS.finishSlot, ({ params, body }) => booth.finish(params.id, body));
  handle(site, ENDPOINTS.matchClips, ({ params, body }) => sorting.match(params.id, body));
  handle(site, ENDPOINTS.matchSteps, ({ body }) => sorting.matchSteps(body));
  handle(site, ENDPOINTS.findCuts, ({ body }) => sorting.findCuts(body));
  handle(site, ENDPOINTS.splitChannels, ({ params }) => sorting.splitChannels(params.sha256));
  handle(site, ENDPOINTS.cut, ({ body }) => sorting.cut(body));
  handle(site, ENDPOINTS.held, ({ params }) => application.heldSessions.of(params.day));
  handle(site, ENDPOINTS.noteEvent, async ({ params, body }) => {
    await application.unitEvents.note(params.id, body);
    return ok;
  });
  handle(site, ENDPOINTS.recordings, () => recordings.list());
  handle(site, ENDPOINTS.startRecording, ({ body }) => recordings.start(body));
  handle(site, ENDPOINTS.finishRecording, async ({ params, body }) => {
    const { clip, meta } = await recordings.finish(params.id, body.frames, `recording ${params.id.slice(0, 8)}.wav`);
    return { clip, slot: meta.slot, step: meta.step };
  });
  handle(site, ENDPOINTS.discardRecording, async ({ params }) => {
    await recordings.discard(params.id);
    return ok;
  });
  handle(site, ENDPOINTS.benchParts, () => Promise.resolve(bench.parts()));
}
