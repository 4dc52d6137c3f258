import { Subject, type Observable } from 'rxjs';
import type { SeparateFacts, ServerEvent } from '#contracts/events';

/** Where services tell what happened, and pages (through server-sent events) and caches listen. */
export class EventHub {
  private readonly subject = new Subject<ServerEvent>();
  readonly events: Observable<ServerEvent> = this.subject.asObservable();

  emit(event: ServerEvent): void {
    this.subject.next(event);
  }

  /**
   * Facts of a unit changed.
   *
   * @param specimenId - which unit
   * @param only - which of its facts, where no other can have
   */
  specimenChanged(specimenId: string, only?: SeparateFacts): void {
    this.emit({ type: 'specimen', specimenId, ...(only && { only }) });
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
