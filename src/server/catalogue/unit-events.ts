import type { Database } from '../platform/db/database';
import type { EventHub } from '../platform/event-hub';
import type { Catalogue } from './catalogue';
import { noteCustody } from './queries/specimen';
import { noteUnitEvent } from './queries/unit-event';

/** What happens to a unit between two tests: a repair, firmware, a part that was exchanged. */
export class UnitEvents {
  constructor(
    private readonly database: Database,
    private readonly catalogue: Catalogue,
    private readonly hub: EventHub,
  ) {}

  /** @throws Failure `not-found` */
  async note(specimenId: string, event: Parameters<typeof noteUnitEvent>[2]): Promise<void> {
    await this.catalogue.specimen(specimenId);
    await this.database.transaction(async (tx) => {
      await noteUnitEvent(tx, specimenId, event);
      // What comes back from a repair is here to be tested.
      if (event.kind === 'repair') await noteCustody(tx, specimenId, true, event.day);
    });
    this.hub.specimenChanged(specimenId);
  }
}
