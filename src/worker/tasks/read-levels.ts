import { levelsAndEvents, type ClipPasses } from '#core/measure/clip-analysis';
import type { ReadLevelsTask } from '#contracts/worker-messages';
import { openClip } from '../open-clip';
import { tellProgress } from '../tell-progress';

/** Levels of a long clip, and what happens at single moments of it, while another thread takes its spectra. */
export default async function readLevels(task: ReadLevelsTask): Promise<Pick<ClipPasses, 'level' | 'events'>> {
  const stream = openClip(task.path);
  try {
    const { level, events } = await levelsAndEvents(stream, {
      segments: task.segments ?? null,
      dualMono: task.dualMono ?? false,
      onProgress: tellProgress(task.progress),
    });
    // A view would travel with all the room behind it.
    const { lowBandPeaks, sibilant } = events;
    return { level, events: { ...events, lowBandPeaks: lowBandPeaks.slice(), sibilant: sibilant.slice() } };
  } finally {
    stream.close();
  }
}
