import { analyseClip } from '#core/measure/clip-analysis';
import { clipMeasurements } from '#core/measure/clip-measurements';
import { clipSummary } from '#core/measure/clip-summary';
import type { AnalyseClipResult, AnalyseClipTask, ProgressMessage } from '#contracts/worker-messages';
import { openClip } from '../open-clip';

/** Measures one clip. */
export default async function analyseClipTask(task: AnalyseClipTask): Promise<AnalyseClipResult> {
  const { path, progress } = task;
  const stream = openClip(path);
  try {
    const analysis = await analyseClip(stream, {
      segments: task.segments ?? null,
      dualMono: task.dualMono ?? false,
      sound: task.sound ?? null,
      reopen: () => openClip(path),
      onProgress: (share) => progress?.postMessage({ kind: 'progress', share } satisfies ProgressMessage),
    });
    const { loudness, noise, stepPowers, waveform, loudest } = analysis;
    return {
      summary: clipSummary(analysis, task.part ?? null),
      measurements: clipMeasurements(analysis),
      detail: {
        speechS: analysis.segments.speech.reduce((s, { startS, endS }) => s + endS - startS, 0),
        loudness: { integratedLufs: loudness.integratedLufs, uncertaintyLu: loudness.uncertaintyLu },
        noise: noise && { ...noise, thirdOctave: [...noise.thirdOctave], findings: [...noise.findings] },
        thirdOctave: [...analysis.thirdOctave],
        loudest: { ...loudest },
        aDbfs: analysis.aDbfs,
      },
      stepPowers,
      waveform: waveform.pairs,
    };
  } finally {
    stream.close();
  }
}
