import type { MessagePort } from 'node:worker_threads';
import { analyseClip, type ClipAnalysis } from '#core/measure/clip-analysis';
import { clipMeasurements } from '#core/measure/clip-measurements';
import { clipSummary } from '#core/measure/clip-summary';
import type { AnalyseClipResult, AnalyseClipTask } from '#contracts/worker-messages';
import { openClip } from '../open-clip';
import { readWithOthers, type SharedStretches } from '../shared-stretches';
import { Helper } from '../helper';
import { tellProgress } from '../tell-progress';

/** Order to a worker: measure a clip, alone or with others that "read-stretches" of it. */
export interface SharedClipTask extends AnalyseClipTask {
  readonly shared?: SharedStretches;
  /** Where the others tell. */
  readonly others?: readonly MessagePort[];
}

/** Measures one clip. */
export default async function analyseClipTask(task: SharedClipTask): Promise<AnalyseClipResult> {
  const { path, shared, sound = null } = task;
  const helpers = (task.others ?? []).map((port) => new Helper(port));
  const onProgress = tellProgress(task.progress);
  const stream = openClip(path);
  try {
    const analysis = await analyseClip(stream, {
      segments: task.segments ?? null,
      dualMono: task.dualMono ?? false,
      sound,
      reopen: () => openClip(path),
      onProgress,
      readings: shared && ((clip) => readWithOthers(clip, shared, helpers, onProgress)),
      spectral: (channels, pauses) => firstOf(helpers, (helper) => helper.spectralFigures({ channels, pauses, sound })),
    });
    return resultOf(analysis, task);
  } finally {
    stream.close();
    for (const helper of helpers) helper.close();
  }
}

/** What the first gives that gives anything. */
function firstOf<Thing, Given>(things: readonly Thing[], give: (thing: Thing) => Given | null): Given | null {
  for (const thing of things) {
    const given = give(thing);
    if (given !== null) return given;
  }
  return null;
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
