import { createHash } from 'node:crypto';
import type { Category } from '#contracts/common';
import type { Attribute } from '#contracts/listening';
import { ensureListener } from '../listening/queries/listening';
import { namesOfParts } from '../mending/queries/unit-merge';
import type { Clock } from '../platform/clock';
import type { Database } from '../platform/db/database';
import { Failure } from '../platform/failure';
import type { WorkerPool } from '../platform/worker-pool';
import { distinct, type HeardAnswers } from './heard-answers';
import type { HeardScale } from './heard-scale';
import { hasImport, insertImported } from './queries/heard';

/** Answers of tests that were run elsewhere. */
export class AnswersImport {
  constructor(
    private readonly database: Database,
    private readonly pool: WorkerPool,
    private readonly answers: HeardAnswers,
    private readonly scale: HeardScale,
    private readonly clock: Clock,
  ) {}

  /**
   * Answers of tests that were run elsewhere. The same file is not taken in twice.
   *
   * @throws Failure `answers-refused` with every line that is wrong
   */
  async importCsv(
    csv: string,
    attribute: Attribute,
    category: Category,
  ): Promise<{ answers: number; units: number; alreadyThere: boolean }> {
    const parsed = await this.pool.run('parse-answers', csv);
    const named = [...(await namesOfParts(this.database, category)), ...(await this.answers.units(category))];
    const known = new Map(named.map((u) => [u.name.toLowerCase(), u.id]));
    const problems = [...parsed.problems];
    for (const name of parsed.units)
      if (!known.has(name.toLowerCase()))
        problems.push({ file: null, field: null, message: `there is no unit called "${name}"` });
    if (problems.length > 0)
      throw new Failure('answers-refused', 'This file cannot be taken in as it is.', problems.slice(0, 50));
    const importKey = createHash('sha256').update(`${category}/${attribute}/${csv}`).digest('hex');
    const units = Object.fromEntries(parsed.units.map((n) => [n.toLowerCase(), known.get(n.toLowerCase()) ?? '']));
    const ids = distinct(Object.values(units));
    if (await hasImport(this.database, importKey))
      return { answers: parsed.count, units: ids.length, alreadyThere: true };
    await this.database.transaction(async (tx) => {
      const listeners: Record<string, string> = {};
      for (const name of parsed.listeners) listeners[name] = await ensureListener(tx, name);
      const common = {
        importKey,
        attribute,
        category,
        tiesAllowed: parsed.hasTies,
        day: this.clock.today(),
        units,
        listeners,
      };
      for (const batch of parsed.batches) {
        await insertImported(tx, batch, common);
        // The database works in this thread: between two batches others have their turn.
        await new Promise((resolve) => setImmediate(resolve));
      }
    });
    this.scale.changed(ids);
    return { answers: parsed.count, units: ids.length, alreadyThere: false };
  }
}
