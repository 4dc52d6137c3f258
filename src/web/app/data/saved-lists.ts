import { Injectable, inject } from '@angular/core';
import { Subject, map, merge, shareReplay, tap, type Observable } from 'rxjs';
import { ENDPOINTS } from '#contracts/http';
import type { ListPage, NewSavedList, SavedList } from '#contracts/saved-list';
import { Api } from './api';
import { Events } from './events';
import { live } from './live';
import type { Loaded } from './loaded';

/** Lists that are kept under a name. */
@Injectable({ providedIn: 'root' })
export class SavedListData {
  private readonly api = inject(Api);
  private readonly changed = new Subject<void>();
  private readonly lists: Observable<Loaded<SavedList[]>> = live(
    () => this.api.call(ENDPOINTS.savedLists, {}),
    merge(this.changed, inject(Events).reconnects),
  ).pipe(shareReplay({ bufferSize: 1, refCount: true }));

  /** Those of a page. */
  of(page: ListPage): Observable<readonly SavedList[]> {
    return this.lists.pipe(map(({ value }) => (value ?? []).filter((l) => l.page === page)));
  }

  keep(list: NewSavedList): Observable<unknown> {
    return this.api.call(ENDPOINTS.keepList, { body: list }).pipe(tap(() => this.changed.next()));
  }

  remove(id: string): Observable<unknown> {
    return this.api.call(ENDPOINTS.removeList, { params: { id } }).pipe(tap(() => this.changed.next()));
  }
}
