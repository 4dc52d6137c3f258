import type { AnalyseClipResult, AnalyseClipTask } from '#contracts/worker-messages';
import analyseClip from './analyse-clip';

/** Order to several threads at once: measure clips, each taking the next one that nobody has taken. */
export interface AnalyseClipsTask {
  readonly clips: readonly AnalyseClipTask[];
  /** How many were taken: one Int32, shared by the threads. */
  readonly taken: Int32Array<SharedArrayBuffer>;
}

/** What became of a clip: its place in the list, and what was found or why nothing was. */
export type ClipOutcome =
  { readonly place: number; readonly result: AnalyseClipResult } | { readonly place: number; readonly refused: string };

/** Measures clips that other threads measure as well. */
export default async function analyseClips({ clips, taken }: AnalyseClipsTask): Promise<readonly ClipOutcome[]> {
  const outcomes: ClipOutcome[] = [];
  for (;;) {
    const place = Atomics.add(taken, 0, 1);
    if (place >= clips.length) return outcomes;
    try {
      outcomes.push({ place, result: await analyseClip(clips[place]) });
    } catch (error) {
      outcomes.push({ place, refused: error instanceof Error ? error.message : String(error) });
    }
  }
}
