import { isQuantity } from '#core/measure/registry';
import type { House } from '#contracts/review';
import type { ProblemDetail } from '#contracts/problem';
import { SHIPPED_HOUSE } from '#domain/review/shipped-house';
import type { Database } from '../platform/db/database';
import { Failure } from '../platform/failure';
import { addHouse, savedHouse } from './queries/house';

/** How this desk reviews and publishes. */
export class HouseRules {
  constructor(private readonly database: Database) {}

  async current(): Promise<House> {
    return (await savedHouse(this.database)) ?? SHIPPED_HOUSE;
  }

  /**
   * Saves them as the next version; the version that was sent is the one that they go on from.
   *
   * @throws Failure `invalid-request` for a figure that is not there, or where they were saved meanwhile
   */
  async save(sent: House): Promise<House> {
    return this.database.transaction(async (tx) => {
      const stands = (await savedHouse(tx))?.version ?? SHIPPED_HOUSE.version;
      const problems = sent.uses.flatMap((use, i) =>
        use.wants.flatMap(({ figure }, j): ProblemDetail[] =>
          isQuantity(figure)
            ? []
            : [{ file: null, field: `uses.${i}.wants.${j}.figure`, message: `there is no figure called "${figure}"` }],
        ),
      );
      if (sent.version !== stands)
        problems.push({
          file: null,
          field: 'version',
          message: `this goes on from version ${sent.version}; version ${stands} is the newest. Load it anew.`,
        });
      if (problems.length > 0) throw new Failure('invalid-request', 'This cannot be saved as it is.', problems);
      const next = { ...sent, version: stands + 1 };
      await addHouse(tx, next);
      return next;
    });
  }
}
