import type { NewSavedList, SavedList } from '#contracts/saved-list';
import type { Clock } from '../platform/clock';
import type { Database } from '../platform/db/database';
import { Failure } from '../platform/failure';
import { keepList, removeList, savedLists } from './queries/saved-list';

/** Lists under a name: "under 50", "for the road". A list is what the address of its page says, so it stays up to date. */
export class SavedLists {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
  ) {}

  list(): Promise<SavedList[]> {
    return savedLists(this.database);
  }

  async keep(list: NewSavedList): Promise<{ id: string }> {
    return { id: await this.database.transaction((tx) => keepList(tx, list, this.clock.now())) };
  }

  /** @throws Failure `not-found` */
  async remove(id: string): Promise<void> {
    if (!(await removeList(this.database, id, this.clock.now())))
      throw new Failure('not-found', 'There is no such list.');
  }
}
