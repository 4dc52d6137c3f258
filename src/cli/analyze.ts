import { Command } from 'commander';
import type { ClipSummary } from '#contracts/clip-summary';
import { numberOption } from './number-option';
import { measureClips } from './measure-clips';
import { plainClip } from './plain-clip';
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
  const clips = await Promise.allSettled(files.map(plainClip));
  const opened = clips.flatMap((clip) => (clip.status === 'fulfilled' ? [clip.value] : []));
  const measured = await measureClips(
    opened.map(({ path, sound }) => ({ path, sound, part, dualMono: options.dualMono ?? false, progress: null })),
  );
  for (const clip of opened) clip.remove();
  let taken = 0;
  return clips.flatMap((clip, i) => {
    const found = clip.status === 'fulfilled' ? measured[taken++] : { refused: (clip.reason as Error).message };
    if ('result' in found) return [{ file: files[i], ...found.result.summary }];
    const message = found.refused;
    reportError(new Error(`${files[i]}: ${message.startsWith('ENOENT') ? 'there is no such file' : message}`));
    return [];
  });
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
