import { signal } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import type { Recording } from '#contracts/recording';
import type { SessionData } from '../../data/sessions';

/** Between two looks for recordings that a closed page has left. */
export const LOOK_AGAIN_MS = 2_000;

/**
 * Recordings that nobody goes on with: what a closed page or a crash has left. One whose page was closed a moment ago
 * still counts as running, so it is looked for again until it does not.
 */
export class LeftRecordings {
  readonly all = signal<readonly Recording[]>([]);
  private looking: ReturnType<typeof setTimeout> | null = null;
  private isLeft = false;

  /** @param own - the recording of this page, which is not left */
  constructor(
    private readonly server: Pick<SessionData, 'recordings'>,
    private readonly own: () => string | null,
  ) {}

  async look(): Promise<void> {
    const found = await firstValueFrom(this.server.recordings()).catch((): Recording[] => []);
    if (this.isLeft) return;
    const others = found.filter((r) => r.id !== this.own());
    this.all.set(others.filter((r) => !r.isActive));
    this.stop();
    if (others.some((r) => r.isActive)) this.looking = setTimeout(() => void this.look(), LOOK_AGAIN_MS);
  }

  /** It has become a take, or was thrown away. */
  forget(recording: Recording): void {
    this.all.update((all) => all.filter((r) => r.id !== recording.id));
  }

  leave(): void {
    this.isLeft = true;
    this.stop();
  }

  private stop(): void {
    if (this.looking !== null) clearTimeout(this.looking);
    this.looking = null;
  }
}
