import { ALGORITHM_VERSION } from '#core/measure/registry';
import type { Clip, Waveform } from '#contracts/clip';
import type { Database } from '../platform/db/database';
import { waveformOf } from './queries/analysis';
import { findClip } from './queries/clip';

/** What is known of a clip. */
export class ClipReader {
  constructor(private readonly database: Database) {}

  find(sha256: string): Promise<Clip | null> {
    return findClip(this.database, sha256);
  }

  /** Null where the clip is unknown or not measured yet. */
  async waveform(sha256: string): Promise<Waveform | null> {
    const clip = await this.find(sha256);
    const pairs = await waveformOf(this.database, sha256, ALGORITHM_VERSION);
    return clip && pairs
      ? { pairs: [...pairs].map((v) => Math.round(v * 1e4) / 1e4), durationS: clip.format.durationS }
      : null;
  }
}
