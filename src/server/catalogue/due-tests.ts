import type { DueUnit } from '#contracts/session-plan';
import { dueUnits } from '#domain/sessions/due-units';
import type { Clock } from '../platform/clock';
import type { Database } from '../platform/db/database';
import type { Rigs } from '../rigs/rigs';
import type { Catalogue } from './catalogue';
import { listUnitEvents } from './queries/unit-event';

/** Units that should be tested again. */
export class DueTests {
  constructor(
    private readonly database: Database,
    private readonly catalogue: Catalogue,
    private readonly rigs: Rigs,
    private readonly clock: Clock,
  ) {}

  /** Those with the weightiest reasons first. */
  async list(): Promise<DueUnit[]> {
    return dueUnits({
      specimens: await this.catalogue.specimens(),
      ranked: await this.catalogue.allRankingInputs(),
      events: await listUnitEvents(this.database),
      controls: await this.rigs.controlUnits(),
      offDays: await this.rigs.offDays(),
      today: this.clock.today(),
    });
  }
}
