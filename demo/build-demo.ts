import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { DemoRunPlan } from './demo-run';
import { demoRuns } from './run-plan';
import { DEMO_EVENTS, DEMO_PLANS, DEMO_RIGS, DEMO_UNITS } from './scenario';
import { rigDocumentSchema } from '#contracts/rig';
import { newPlanSchema, type PlannedUnit } from '#contracts/session-plan';
import { unitName } from '#contracts/unit-name';
import { temporaryFolder } from '#server/platform/archive/clip-store';
import { asFailure } from '#server/platform/as-failure';
import { ensureSpecimen } from '#server/catalogue/queries/specimen';
import type { RenderDemoRunTask } from '#worker/tasks/render-demo-run';
import type { Application } from '#server/wiring';
import { buildBeside } from './beside';
import { buildDemoListening } from './build-listening';
import { buildDemoReviews } from './reviews';

/** How many runs are rendered ahead of the import: one per thread. */
const AT_ONCE = 2;

/**
 * Fills an archive with the demo: every run is played through the simulated bench into a run folder, and that folder
 * goes through the same import as anybody's. Runs that are there already are recognised and stay one.
 *
 * @param application - the services
 * @param speechFolder - dry voices
 * @param plans - which runs
 */
export async function buildDemo(application: Application, speechFolder: string, plans = demoRuns()): Promise<void> {
  const missing = await missingPlans(application, plans);
  if (missing.length === 0) {
    await buildDemoListening(application);
    return buildDemoReviews(application);
  }
  await buildRigs(application);
  const job = application.jobs.open('Recording the demo catalogue', missing.length, null);
  const folder = await temporaryFolder(application.store);
  try {
    let done = 0;
    const waiting = [...missing.entries()];
    const worker = async (): Promise<void> => {
      for (let next = waiting.shift(); next; next = waiting.shift()) {
        const [i, plan] = next;
        const into = join(folder, String(i));
        await application.pool.run('render-demo-run', { plan, into, speechFolder } satisfies RenderDemoRunTask);
        const { specimenId } = await application.runImport.importFolder(into);
        if (!plan.onDesk) await application.scoring.setCustody(specimenId, false);
        await rm(into, { recursive: true });
        job.progress(++done);
      }
    };
    await Promise.all(Array.from({ length: AT_ONCE }, worker));
    await buildPlans(application);
    await buildBeside(application);
    job.finish();
    await application.queue.idle();
    await buildDemoListening(application);
    await buildDemoReviews(application);
  } catch (error) {
    job.fail(asFailure(error).message);
    throw error;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** The desk's rig before and after its change, with the reference microphone as control unit. */
async function buildRigs({ database, rigs }: Application): Promise<void> {
  if ((await rigs.list()).length > 0) return;
  const { maker, model, label } = DEMO_UNITS[0];
  const controlUnit = await ensureSpecimen(database, { maker, model, label, category: 'microphone' });
  for (const rig of DEMO_RIGS) {
    const { id } = await rigs.add(rigDocumentSchema.parse({ ...rig, controlUnit }));
    // A tone of −10 dBu at 20 dB of gain reads what the interface's full scale leaves of it.
    const read = -10 + 20 - rig.inputFullScaleDbu;
    await rigs.calibrate(id, {
      kind: 'electrical',
      day: rig.since,
      fedIn: -10,
      gainDb: 20,
      read,
      clip: null,
      note: 'tone generator of the workshop',
    });
  }
}

/** Sessions that are still ahead, and what happened to units since they were tested. */
async function buildPlans({ plans, planPages, unitEvents, catalogue, clock }: Application): Promise<void> {
  if ((await planPages.list()).length > 0) return;
  const units = await catalogue.specimens();
  const find = (model: string) => units.findLast((u) => u.model === model && (u.family?.main ?? u.id) === u.id);
  for (const event of DEMO_EVENTS) {
    const unit = find(event.model);
    if (unit) await unitEvents.note(unit.id, { kind: event.kind, day: event.day, note: event.note, sum: null });
  }
  for (const plan of DEMO_PLANS) {
    const members = plan.units.flatMap(({ model, source, backInDays }): PlannedUnit[] => {
      const unit = find(model);
      return unit
        ? [
            {
              maker: unit.maker,
              model: unit.model,
              label: unit.label,
              source,
              dueBack: backInDays === null ? null : clock.inDays(backInDays),
            },
          ]
        : [];
    });
    if (members.length === 0) continue;
    await plans.add(
      newPlanSchema.parse({
        title: plan.title,
        day: clock.inDays(plan.inDays),
        category: 'microphone',
        protocol: 'desk-voice',
        protocolVersion: 3,
        rig: DEMO_RIGS[0].name,
        units: members,
        randomised: plan.randomised,
        controlSteps: ['speech', 'silence'],
        needs: plan.needs,
        note: plan.note,
      }),
    );
  }
}

/** Plans whose unit was not recorded on that day yet: an interrupted first start goes on where it stopped. */
async function missingPlans(application: Application, plans: readonly DemoRunPlan[]): Promise<DemoRunPlan[]> {
  const there = new Map<string, number>();
  for (const session of await application.catalogue.sessions()) {
    for (const unit of session.units) {
      const key = `${session.date} ${unit.name}`;
      there.set(key, (there.get(key) ?? 0) + 1);
    }
  }
  return plans.filter(({ document: { date, specimen } }) => {
    const key = `${date} ${unitName(specimen)}`;
    const left = there.get(key) ?? 0;
    if (left > 0) there.set(key, left - 1);
    return left === 0;
  });
}
