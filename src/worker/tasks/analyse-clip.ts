import type { MessagePort } from 'node:worker_threads';
import { analyseClip, type ClipAnalysis } from '#core/measure/clip-analysis';
import { clipMeasurements } from '#core/measure/clip-measurements';
import { clipSummary } from '#core/measure/clip-summary';
import type { ClipSpectra } from '#core/measure/spectral-pass';
import type { AnalyseClipResult, AnalyseClipTask } from '#contracts/worker-messages';
import { openClip } from '../open-clip';
import { tellProgress } from '../tell-progress';

/** Order to a worker: measure a clip, alone or with another one that reads its spectra. */
export interface SharedClipTask extends AnalyseClipTask {
  /** Where the spectra arrive that "read-spectra" takes meanwhile. */
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
      spectra: task.spectra ? arriving(task.spectra) : null,
    });
    return resultOf(analysis, task);
  } finally {
    stream.close();
  }
}

/** What arrives at a port, which is closed then. */
function arriving(port: MessagePort): Promise<ClipSpectra> {
  return new Promise((resolve, reject) => {
    port.once('message', (spectra: ClipSpectra) => {
      resolve(spectra);
      port.close();
    });
    port.once('close', () => reject(new Error('The spectra of the clip could not be read.')));
  });
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
