import type { ArchiveState } from '#contracts/archive';
import type { EventHub } from './event-hub';

/** Something of the archive that cannot be used as it is; everything else goes on without it. */
export interface SetAsideItem {
  readonly kind: ArchiveState['setAside'][number]['kind'];
  /** What it is, as far as that is known. */
  readonly name: string;
  readonly problem: string;
  /** What to do about it. */
  readonly next: string;
}

const NEXT: Record<SetAsideItem['kind'], string> = {
  clip: 'Upload the original file again: it takes the place of this one.',
  run: 'Everything else works. Import the run again, or note it and wait for a version that reads it.',
  recording:
    'Its sound, if there is any, lies in the file audio.pcm of that folder. Move the folder away once you have it.',
  test: 'Prepare its clips again on the page of the test.',
  job: 'It is tried again at the next start.',
  file: 'Move it out of the data folder.',
  photograph: 'Bring in the same photograph again: it takes the place of this one.',
  original:
    'The clip that was decoded from it is not touched. Upload the same file again: it takes the place of this one.',
};

/** What was passed over, named for the page "Archive". A start never ends because of one of these. */
export class SetAside {
  private readonly items = new Map<string, SetAsideItem>();

  constructor(private readonly hub: EventHub) {}

  note(kind: SetAsideItem['kind'], name: string, problem: string): void {
    this.items.set(`${kind}/${name}`, { kind, name, problem, next: NEXT[kind] });
    this.hub.emit({ type: 'archive' });
  }

  clear(kind: SetAsideItem['kind'], name: string): void {
    if (this.items.delete(`${kind}/${name}`)) this.hub.emit({ type: 'archive' });
  }

  list(): SetAsideItem[] {
    return [...this.items.values()];
  }
}

/** A clip as a person knows it, with enough of its hash to find the file. */
export const clipName = (sha256: string, name: string): string => `${name} (${sha256.slice(0, 12)}…)`;
