import { Injectable, signal } from '@angular/core';
import { Subject, type Observable } from 'rxjs';
import { serverEventSchema, type Job, type ServerEvent } from '#contracts/events';
import { PLAIN_PATHS } from '#contracts/http';

/** What the server tells, as it happens. The browser connects again by itself after a break. */
@Injectable({ providedIn: 'root' })
export class Events {
  private readonly subject = new Subject<ServerEvent>();
  private readonly reconnected = new Subject<void>();
  readonly events: Observable<ServerEvent> = this.subject.asObservable();
  /** After a break, anything may have changed. */
  readonly reconnects: Observable<void> = this.reconnected.asObservable();
  readonly jobs = signal<readonly Job[]>([]);
  readonly connected = signal(true);

  constructor() {
    const source = new EventSource(PLAIN_PATHS.events);
    let wasOpen = false;
    source.onopen = () => {
      this.connected.set(true);
      if (wasOpen) this.reconnected.next();
      wasOpen = true;
    };
    source.onerror = () => this.connected.set(false);
    source.onmessage = (message: MessageEvent<string>) => {
      const event = serverEventSchema.parse(JSON.parse(message.data));
      if (event.type === 'jobs') this.jobs.set(event.jobs);
      this.subject.next(event);
    };
  }
}
