import { ALGORITHM_VERSION } from '#core/measure/registry';
import { responseText } from '#core/measure/response-text';
import { roomText } from '#core/measure/room-text';
import { answersSweep, protocolSchema, roleOf, type StepRole } from '#contracts/protocol';
import type { MeasureSweepTask, SweepResult } from '#worker/tasks/measure-sweep';
import type { ClipStore } from '../platform/archive/clip-store';
import type { Database } from '../platform/db/database';
import { takeForPage } from './queries/run';
import { Failure } from '../platform/failure';
import type { WorkerPool } from '../platform/worker-pool';

/** Responses and impulse responses of recorded sweeps, made anew when somebody asks for them. */
export class SweepExports {
  constructor(
    private readonly database: Database,
    private readonly store: ClipStore,
    private readonly pool: WorkerPool,
  ) {}

  /** @throws Failure `not-found` where the take is no sweep */
  async text(takeId: string): Promise<{ name: string; text: string }> {
    const { name, role, result } = await this.measure(takeId, false);
    const title = `${name}; gate ${result.gateMs} ms; dB re the played sweep`;
    return { name, text: role === 'room' && result.room ? roomText(result.room, name) : responseText(result, title) };
  }

  /** @throws Failure `not-found` where the take is no sweep */
  async impulse(takeId: string): Promise<{ name: string; wav: Uint8Array }> {
    const { name, result } = await this.measure(takeId, true);
    if (!result.impulseWav) throw new Failure('not-found', 'This take has no impulse response.');
    return { name, wav: result.impulseWav };
  }

  private async measure(
    takeId: string,
    withImpulse: boolean,
  ): Promise<{ name: string; role: StepRole; result: SweepResult }> {
    const row = await takeForPage(this.database, takeId, ALGORITHM_VERSION);
    const protocol = row ? protocolSchema.parse(row.protocol_document) : null;
    const step = protocol?.steps.find((s) => s.id === row?.step) ?? { id: '' };
    const sweep = answersSweep(step) ? protocol?.sweep : null;
    const path = row ? await this.store.verified(row.sha256) : null;
    if (!row || !sweep || !path) throw new Failure('not-found', 'There is no recorded sweep with this number.');
    const task: MeasureSweepTask = { path, sweep, withImpulse, withRoom: roleOf(step) === 'room' };
    const result = await this.pool.run('measure-sweep', task);
    return { name: `${row.unit_name} ${row.step_title} ${row.date}`, role: roleOf(step), result };
  }
}
