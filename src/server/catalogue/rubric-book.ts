import type { Rubric } from '#core/rules/rubric';
import { localDay } from '#core/text/local-day';
import type { Category } from '#contracts/common';
import type { ProblemDetail } from '#contracts/problem';
import { rubricProblems, type RubricVersion } from '#contracts/rubric';
import type { Clock } from '../platform/clock';
import type { Database } from '../platform/db/database';
import type { EventHub } from '../platform/event-hub';
import { Failure } from '../platform/failure';
import { listProtocols } from '../sessions/queries/protocol';
import { addRubricVersion, rubricVersions } from './queries/rubric';

/** The written rules of scoring: versions, each as it was saved. The newest of a kind counts; none is ever changed. */
export class RubricBook {
  constructor(
    private readonly database: Database,
    private readonly hub: EventHub,
    private readonly clock: Clock,
  ) {}

  /** All versions of the rules of a kind, newest first. */
  async versions(category: Category): Promise<RubricVersion[]> {
    return (await rubricVersions(this.database, category)).map(({ rubric, saved_at, points }) => ({
      rubric,
      savedOn: localDay(saved_at, this.clock.zone),
      points,
    }));
  }

  /**
   * Saves rules as the next version of their kind; the version that was sent is the one that it goes on from.
   *
   * @throws Failure `invalid-request` with everything that is wrong, or where others were saved meanwhile
   */
  async save(sent: Rubric): Promise<RubricVersion> {
    const category = sent.category;
    const problems: ProblemDetail[] = rubricProblems(sent, await listProtocols(this.database)).map((p) => ({
      file: null,
      ...p,
    }));
    // Read and written in one: of two that go on from the same version, the second is told.
    await this.database.transaction(async (tx) => {
      const stands = (await rubricVersions(tx, category)).at(0)?.rubric ?? null;
      if (stands && (stands.id !== sent.id || stands.version !== sent.version))
        problems.push({
          file: null,
          field: 'version',
          message: `these rules go on from version ${sent.version}; version ${stands.version} of "${stands.id}" is the newest. Load them anew.`,
        });
      if (problems.length > 0)
        throw new Failure('invalid-request', 'These rules cannot be saved as they are.', problems);
      await addRubricVersion(tx, { ...sent, version: stands ? stands.version + 1 : 1 });
    });
    this.hub.rulesChanged();
    return (await this.versions(category))[0];
  }
}
