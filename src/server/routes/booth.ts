import type { Express } from 'express';
import { ENDPOINTS } from '#contracts/http';
import { countPhonemes } from '../services/phoneme-counter';
import type { Application } from '../wiring';
import { handle } from './handle';

const ok = { ok: true } as const;

/** Protocols, rigs, sessions and the booth: parse, call, answer. */
export function boothRoutes(app: Express, application: Application): void {
  const { protocols, rigs, plans, booth, recordings, sorting, bench } = application;
  handle(app, ENDPOINTS.protocolVersions, () => protocols.versions());
  handle(app, ENDPOINTS.saveProtocol, ({ body }) => protocols.save(body.document));
  handle(app, ENDPOINTS.bridges, ({ params }) => protocols.bridges(params.slug, params.from, params.to));
  handle(app, ENDPOINTS.countPhonemes, ({ body }) => Promise.resolve(countPhonemes(body.text)));
  handle(app, ENDPOINTS.rigs, () => rigs.list());
  handle(app, ENDPOINTS.addRig, ({ body }) => rigs.add(body));
  handle(app, ENDPOINTS.calibrate, ({ params, body }) => rigs.calibrate(params.id, body));
  handle(app, ENDPOINTS.reading, ({ params }) => rigs.reading(params.sha256));
  handle(app, ENDPOINTS.plans, () => plans.list());
  handle(app, ENDPOINTS.due, () => plans.due());
  handle(app, ENDPOINTS.addPlan, ({ body }) => plans.add(body));
  handle(app, ENDPOINTS.plan, ({ params }) => plans.view(params.id));
  handle(app, ENDPOINTS.changePlan, ({ params, body }) => plans.change(params.id, body));
  handle(app, ENDPOINTS.movePlan, ({ params, body }) => plans.move(params.id, body.status));
  handle(app, ENDPOINTS.seeCaution, async ({ params, body }) => {
    await plans.seeCaution(params.id, body.caution);
    return ok;
  });
  handle(app, ENDPOINTS.addSlotTake, ({ params, body }) => booth.addTake(params.id, body));
  handle(app, ENDPOINTS.decideTake, ({ params, body }) => booth.decide(params.id, body));
  handle(app, ENDPOINTS.fillTable, async ({ params, body }) => {
    await booth.fillTable(params.id, body);
    return ok;
  });
  handle(app, ENDPOINTS.finishSlot, ({ params }) => booth.finish(params.id));
  handle(app, ENDPOINTS.matchClips, ({ params, body }) => sorting.match(params.id, body));
  handle(app, ENDPOINTS.cut, ({ body }) => sorting.cut(body));
  handle(app, ENDPOINTS.held, ({ params }) => plans.held(params.day));
  handle(app, ENDPOINTS.noteEvent, async ({ params, body }) => {
    await plans.noteEvent(params.id, body);
    return ok;
  });
  handle(app, ENDPOINTS.recordings, () => recordings.list());
  handle(app, ENDPOINTS.startRecording, ({ body }) => recordings.start(body));
  handle(app, ENDPOINTS.finishRecording, async ({ params, body }) => {
    const { clip, meta } = await recordings.finish(params.id, body.frames, `recording ${params.id.slice(0, 8)}.wav`);
    return { clip, slot: meta.slot, step: meta.step };
  });
  handle(app, ENDPOINTS.discardRecording, async ({ params }) => {
    await recordings.discard(params.id);
    return ok;
  });
  handle(app, ENDPOINTS.benchParts, () => Promise.resolve(bench.parts()));
}
