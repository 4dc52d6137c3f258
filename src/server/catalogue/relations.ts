import type { NewRelation } from '#contracts/relation';
import type { Database } from '../platform/db/database';
import type { Clock } from '../platform/clock';
import type { EventHub } from '../platform/event-hub';
import { Failure } from '../platform/failure';
import { addRelation, endRelation } from './queries/relation';
import { specimenExists } from './queries/specimen';

/** How units stand to each other: what one needs, replaces, shares. */
export class Relations {
  constructor(
    private readonly database: Database,
    private readonly hub: EventHub,
    private readonly clock: Clock,
  ) {}

  /** @throws Failure `not-found`, `invalid-request` where a unit is related to itself */
  async add(specimenId: string, relation: NewRelation): Promise<{ id: string }> {
    for (const id of [specimenId, ...(relation.other === null ? [] : [relation.other])])
      if (!(await specimenExists(this.database, id)))
        throw new Failure('not-found', `There is no unit with the number ${id}.`);
    if (relation.other === specimenId) {
      const message = 'a unit stands in no relation to itself';
      throw new Failure('invalid-request', `Nothing was noted: ${message}.`, [{ file: null, field: 'other', message }]);
    }
    const id = await addRelation(this.database, specimenId, relation, this.clock.today());
    this.tell(specimenId, relation.other);
    return { id };
  }

  /** @throws Failure `not-found` where it does not hold */
  async end(id: string): Promise<void> {
    const ended = await endRelation(this.database, id, this.clock.today());
    if (!ended) throw new Failure('not-found', 'There is no such relation, or it has ended.');
    this.tell(ended.specimen_id, ended.other_id);
  }

  private tell(specimenId: string, other: string | null): void {
    this.hub.specimenChanged(specimenId);
    if (other !== null) this.hub.specimenChanged(other);
  }
}
