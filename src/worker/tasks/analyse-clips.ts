import type { AnalyseClipResult, AnalyseClipTask } from '#contracts/worker-messages';
import { takeNext, type TakenCount } from '../taken-count';
import analyseClip from './analyse-clip';

/** Order to several threads at once: measure clips, each taking the next one that nobody has taken. */
export interface AnalyseClipsTask {
  readonly clips: readonly AnalyseClipTask[];
  readonly taken: TakenCount;
}

/** What became of a clip: its place in the list, and what was found or why nothing was. */
export type ClipOutcome =
  { readonly place: number; readonly result: AnalyseClipResult } | { readonly place: number; readonly refused: string };

/** Measures clips that other threads measure as well. */
export default async function analyseClips({ clips, taken }: AnalyseClipsTask): Promise<readonly ClipOutcome[]> {
  const outcomes: ClipOutcome[] = [];
  for (;;) {
    const place = takeNext(taken);
    if (place >= clips.length) return outcomes;
    try {
      outcomes.push({ place, result: await analyseClip(clips[place]) });
    } catch (error) {
      outcomes.push({ place, refused: error instanceof Error ? error.message : String(error) });
    }
  }
}
