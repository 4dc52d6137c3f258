import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { demoRuns, type DemoRunPlan } from '../../../demo/run-plan';
import type { RenderDemoRunTask } from '#worker/render-demo-run';
import type { Application } from '../wiring';

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
  if (missing.length === 0) return;
  const job = application.jobs.open('Recording the demo catalogue', missing.length, null);
  const folder = await mkdtemp(join(tmpdir(), 'sediment-demo-'));
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
    job.finish();
  } catch (error) {
    job.fail(error instanceof Error ? error.message : String(error));
    throw error;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Plans whose unit was not recorded on that day yet: an interrupted first start goes on where it stopped. */
async function missingPlans(application: Application, plans: readonly DemoRunPlan[]): Promise<DemoRunPlan[]> {
  const there = new Set<string>();
  for (const session of await application.catalogue.sessions()) {
    for (const unit of session.units) there.add(`${session.date} ${unit.name}`);
  }
  return plans.filter(
    ({ document: { date, specimen } }) => !there.has(`${date} ${specimen.maker} ${specimen.model} · ${specimen.label}`),
  );
}
