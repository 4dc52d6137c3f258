import { availableParallelism } from 'node:os';
import { Command } from 'commander';
import type { ClipSummary } from '#contracts/clip-summary';
import { workerFolder } from '#server/platform/package-root';
import { bytesOf, isShared } from '#server/platform/shared-clip';
import analyseClip from '#worker/tasks/analyse-clip';
import type { AnalyseClipResult, AnalyseClipTask } from '#contracts/worker-messages';
import { numberOption } from './number-option';
import { plainClip, type PlainClip } from './plain-clip';
import { figure, reportError } from './report';

type AnalyzedFile = { readonly file: string } & ClipSummary;

interface AnalyzeOptions {
  readonly json?: boolean;
  readonly dualMono?: boolean;
  readonly from?: number;
  readonly to?: number;
}

/** sediment analyze FILE… [--json] */
export function analyzeCommand(): Command {
  return new Command('analyze')
    .description('measure WAV, FLAC, MP3 or Opus files, or the sound of films')
    .argument('<file...>', 'sound files, or films')
    .option('--json', 'print an array with one object per file')
    .option('--dual-mono', 'a one-channel file counts as played by two loudspeakers (+3.01 LU)')
    .addOption(numberOption('--from <s>', 'also the loudness of a part that begins here', { low: 0, high: 1e6 }))
    .addOption(numberOption('--to <s>', 'and ends here', { low: 0, high: 1e6 }))
    .action(async (files: string[], options: AnalyzeOptions) => {
      const results = await analyzeFiles(files, options);
      process.stdout.write(options.json ? `${JSON.stringify(results, null, 2)}\n` : await table(results));
    });
}

async function analyzeFiles(files: readonly string[], options: AnalyzeOptions): Promise<AnalyzedFile[]> {
  const { from, to } = options;
  const part = from === undefined && to === undefined ? null : { startS: from ?? 0, endS: to ?? Infinity };
  if (part && part.endS <= part.startS) throw new Error('--to must come after --from.');
  const task = { dualMono: options.dualMono ?? false, part, segments: null };
  const clips = await Promise.allSettled(files.map(plainClip));
  const isQuick = clips.length === 1 && !clips.some(isLong);
  const settled = await (isQuick ? measureHere(clips, task) : measureInThreads(clips, task));
  for (const clip of clips) if (clip.status === 'fulfilled') clip.value.remove();
  return settled.flatMap((outcome, i) => {
    if (outcome.status === 'fulfilled') return [{ file: files[i], ...outcome.value.summary }];
    const { message } = outcome.reason as Error;
    reportError(new Error(`${files[i]}: ${message.startsWith('ENOENT') ? 'there is no such file' : message}`));
    return [];
  });
}

type Task = Omit<AnalyseClipTask, 'path' | 'progress' | 'sound'>;
type Clips = readonly PromiseSettledResult<PlainClip>[];
type Outcomes = readonly PromiseSettledResult<AnalyseClipResult>[];

/** What could not be opened is no less an outcome. */
const each = (clips: Clips, measure: (clip: PlainClip) => Promise<AnalyseClipResult>): Promise<Outcomes> =>
  Promise.allSettled(
    clips.map((clip) => (clip.status === 'fulfilled' ? measure(clip.value) : Promise.reject(clip.reason as Error))),
  );

/** A long file is work for two threads. */
const isLong = (clip: PromiseSettledResult<PlainClip>): boolean =>
  clip.status === 'fulfilled' && isShared(bytesOf(clip.value.path), 1, availableParallelism());

/** One file is measured at once: a thread would be started for nothing. */
const measureHere = (clips: Clips, task: Task): Promise<Outcomes> =>
  each(clips, ({ path, sound }) => analyseClip({ path, sound, progress: null, ...task }));

/** Several files, or a long one, take as many threads as there are cores. */
async function measureInThreads(clips: Clips, { segments, ...options }: Task): Promise<Outcomes> {
  const { openWorkerPool } = await import('#server/platform/worker-pool');
  const pool = openWorkerPool(workerFolder);
  try {
    return await each(clips, ({ path, sound }) => pool.analyse(path, () => undefined, segments, { ...options, sound }));
  } finally {
    await pool.close();
  }
}

async function table(results: readonly AnalyzedFile[]): Promise<string> {
  if (results.length === 0) return '';
  const { default: Table } = await import('cli-table3');
  const rows = new Table({
    head: [
      'file',
      'length',
      'peak',
      'RMS (AES17)',
      'loudness',
      'range',
      'true peak',
      'clipped',
      'silent part',
      'noise re speech',
      'hum',
    ],
    style: { head: [], border: [] },
  });
  for (const r of results) {
    rows.push([
      r.file,
      `${r.format.durationS.toFixed(2)} s`,
      figure(r.level.peakDbfs, 2, 'dBFS'),
      figure(r.level.rmsDbfs, 2, 'dBFS'),
      figure(r.loudness.integratedLufs, 1, 'LUFS'),
      figure(r.loudness.loudnessRangeLu, 1, 'LU'),
      figure(r.loudness.truePeakDbtp, 1, 'dBTP'),
      r.level.clippedRuns,
      figure(r.noise.silenceRmsDbfs.a, 1, 'dBFS(A)'),
      figure(r.noise.reSpeechDb.a, 1, 'dB(A)'),
      humText(r.hum),
    ]);
  }
  return `${rows.toString()}\n`;
}

function humText(hum: ClipSummary['hum']): string {
  if (!hum) return 'not measured';
  return hum.mainsHz === null ? 'none' : `${figure(hum.totalDbfs, 1, 'dBFS')} (${hum.mainsHz} Hz)`;
}
