import type { MessagePort } from 'node:worker_threads';
import { analyseClip, type ClipAnalysis, type SpectralFigures } from '#core/measure/clip-analysis';
import { clipMeasurements } from '#core/measure/clip-measurements';
import { clipSummary } from '#core/measure/clip-summary';
import type { ClipPauses } from '#core/measure/level-pass';
import type { AnalyseClipResult, AnalyseClipTask } from '#contracts/worker-messages';
import { arrivalAt } from '../arrival';
import { openClip } from '../open-clip';
import { tellProgress } from '../tell-progress';

/** Order to a worker: measure a clip, alone or with another one that reads its spectra. */
export interface SharedClipTask extends AnalyseClipTask {
  /** Where "read-spectra" is told the pauses, and tells what they and its spectra come to. */
  readonly spectra?: MessagePort;
}

/** Measures one clip. */
export default async function analyseClipTask(task: SharedClipTask): Promise<AnalyseClipResult> {
  const { path } = task;
  const stream = openClip(path);
  try {
    const analysis = await analyseClip(stream, {
      segments: task.segments ?? null,
      dualMono: task.dualMono ?? false,
      sound: task.sound ?? null,
      reopen: () => openClip(path),
      onProgress: tellProgress(task.progress),
      spectral: task.spectra ? asking(task.spectra) : null,
    });
    return resultOf(analysis, task);
  } finally {
    stream.close();
    task.spectra?.close();
  }
}

/** Tells another thread the pauses, and waits for what it makes of them. */
function asking(port: MessagePort): (pauses: ClipPauses) => Promise<SpectralFigures> {
  const answer = arrivalAt<SpectralFigures>(port);
  return async ({ format, durationS, segments, framePowers, isZeroFrame }) => {
    port.postMessage({ format, durationS, segments, framePowers, isZeroFrame } satisfies ClipPauses);
    const figures = await answer;
    if (!figures) throw new Error('The spectra of the clip could not be read.');
    return figures;
  };
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
