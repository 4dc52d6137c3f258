// What may be given to a thread: one file in tasks/ each, under its name, with what it takes and what it gives.
/* eslint-disable @typescript-eslint/consistent-type-imports -- a map of types alone; a list of imports would say every name three times */

/** The function behind each task. */
export interface WorkerTasks {
  'associate-word': typeof import('./tasks/associate-word').default;
  'analyse-clip': typeof import('./tasks/analyse-clip').default;
  'analyse-clips': typeof import('./tasks/analyse-clips').default;
  'cut-clip': typeof import('./tasks/cut-clip').default;
  'cut-listening-clips': typeof import('./tasks/cut-listening-clips').default;
  'cut-matched-clip': typeof import('./tasks/cut-matched-clip').default;
  'decode-clip': typeof import('./tasks/decode-clip').default;
  'draw-picture': typeof import('./tasks/draw-picture').default;
  'draw-spectrogram': typeof import('./tasks/draw-spectrogram').default;
  'inspect-clip': typeof import('./tasks/inspect-clip').default;
  'inspect-cuts': typeof import('./tasks/inspect-cuts').default;
  'kind-standing': typeof import('./tasks/kind-standing').default;
  'measure-clip-difference': typeof import('./tasks/measure-clip-difference').default;
  'measure-pair': typeof import('./tasks/measure-pair').default;
  'measure-reading': typeof import('./tasks/measure-reading').default;
  'measure-sweep': typeof import('./tasks/measure-sweep').default;
  'measure-sweep-likeness': typeof import('./tasks/measure-sweep-likeness').default;
  'measure-tone': typeof import('./tasks/measure-tone').default;
  'parse-answers': typeof import('./tasks/parse-answers').default;
  'publish-clip': typeof import('./tasks/publish-clip').default;
  'read-stretches': typeof import('./tasks/read-stretches').default;
  'rank-heard': typeof import('./tasks/rank-heard').default;
  'rank-for-uses': typeof import('./tasks/rank-for-uses').default;
  'rank-units': typeof import('./tasks/rank-units').default;
  'render-bench-take': typeof import('./tasks/render-bench-take').default;
  'render-blind-clip': typeof import('./tasks/render-blind-clip').default;
  'render-comparison-zip': typeof import('./tasks/render-comparison-zip').default;
  'render-demo-run': typeof import('./tasks/render-demo-run').default;
  'render-pack-clips': typeof import('./tasks/render-pack-clips').default;
  'render-sweep': typeof import('./tasks/render-sweep').default;
  'salvage-clip': typeof import('./tasks/salvage-clip').default;
  'split-channels': typeof import('./tasks/split-channels').default;
}

export type TaskName = keyof WorkerTasks;
export type TaskInput<Name extends TaskName> = Parameters<WorkerTasks[Name]>[0];
export type TaskOutput<Name extends TaskName> = Awaited<ReturnType<WorkerTasks[Name]>>;
