import { Subject, type Observable } from 'rxjs';
import type { ServerEvent } from '#contracts/events';

/** Where services tell what happened, and pages (through server-sent events) and caches listen. */
export class EventHub {
  private readonly subject = new Subject<ServerEvent>();
  readonly events: Observable<ServerEvent> = this.subject.asObservable();

  emit(event: ServerEvent): void {
    this.subject.next(event);
  }

  /** Facts of a unit changed. */
  specimenChanged(specimenId: string): void {
    this.emit({ type: 'specimen', specimenId });
  }

  /** A protocol or a rig changed: what figures come to may change. */
  rulesChanged(): void {
    this.emit({ type: 'rules' });
  }

  /** A session changed. */
  planChanged(planId: string): void {
    this.emit({ type: 'plan', planId });
  }
}
