import type { HeldSession } from '#contracts/session-plan';
import type { Database } from '../platform/db/database';
import { Failure } from '../platform/failure';
import type { Rigs } from '../rigs/rigs';
import { runsOfDay } from '../runs/queries/run';
import type { PlanPages } from './plan-pages';

/** What was tested on a day, planned here or not. */
export class HeldSessions {
  constructor(
    private readonly database: Database,
    private readonly pages: PlanPages,
    private readonly rigs: Rigs,
  ) {}

  /** @throws Failure `not-found` */
  async of(day: string): Promise<HeldSession> {
    const runs = await runsOfDay(this.database, day);
    if (runs.length === 0) throw new Failure('not-found', `Nothing was tested on ${day}.`);
    const rig = await this.rigs.rigOfDay(day);
    return {
      day,
      rig,
      runs: runs.map((r) => ({
        id: r.id,
        purpose: r.purpose,
        specimenId: r.specimen_id,
        name: r.name,
        protocol: r.protocol,
        protocolVersion: r.protocol_version,
        takes: r.takes,
        overruled: r.overruled,
      })),
      health: await this.rigs.health(day, rig),
      plans: (await this.pages.list()).filter((p) => p.day === day).map(({ id, title }) => ({ id, title })),
    };
  }
}
