import { analyseClip, completeAnalysis, type ClipAnalysis } from '#core/measure/clip-analysis';
import { clipMeasurements } from '#core/measure/clip-measurements';
import { clipSummary } from '#core/measure/clip-summary';
import type { AnalyseClipResult, AnalyseClipTask } from '#contracts/worker-messages';
import { openClip } from '../open-clip';
import { tellProgress } from '../tell-progress';

/** Measures one clip, or completes what others have read of it. */
export default async function analyseClipTask(task: AnalyseClipTask): Promise<AnalyseClipResult> {
  const { path, passes } = task;
  const options = {
    segments: task.segments ?? null,
    dualMono: task.dualMono ?? false,
    sound: task.sound ?? null,
    reopen: () => openClip(path),
    onProgress: tellProgress(task.progress),
  };
  if (passes) return resultOf(await completeAnalysis(passes, options), task);
  const stream = openClip(path);
  try {
    return resultOf(await analyseClip(stream, options), task);
  } finally {
    stream.close();
  }
}

function resultOf(analysis: ClipAnalysis, task: AnalyseClipTask): AnalyseClipResult {
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
}
