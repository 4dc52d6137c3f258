import { compareRequestSchema, type CompareRequest, type CompareSet } from '#contracts/compare';
import type { Database } from '../platform/db/database';
import { Failure } from '../platform/failure';
import type { Compare } from './compare';
import {
  findCompareSet,
  insertCompareSet,
  listCompareSets,
  setCompareSetRemoved,
  type CompareSetRow,
} from './queries/compare';

/** Comparisons that were kept under a name, each behind its link. */
export class CompareSets {
  constructor(
    private readonly database: Database,
    private readonly compare: Compare,
    private readonly now: () => Date,
  ) {}

  async list(): Promise<CompareSet[]> {
    return (await listCompareSets(this.database)).map(setFromRow);
  }

  /** @throws Failure `not-found` */
  async find(id: string): Promise<CompareSet> {
    const row = await findCompareSet(this.database, id);
    if (!row) throw new Failure('not-found', `There is no comparison with the number ${id}.`);
    return setFromRow(row);
  }

  /** @throws Failure `not-found`, `invalid-request` */
  async keep(name: string, request: CompareRequest): Promise<CompareSet> {
    await this.compare.table(request);
    return this.find(await insertCompareSet(this.database, name, request));
  }

  /** Takes a set off the list, or puts it back; its link goes on working. */
  async remove(id: string, isRemoved: boolean): Promise<void> {
    await this.find(id);
    await setCompareSetRemoved(this.database, id, isRemoved ? this.now() : null);
  }
}

const setFromRow = ({ id, name, document, day }: CompareSetRow): CompareSet => ({
  ...compareRequestSchema.parse(document),
  id,
  name,
  day,
});
