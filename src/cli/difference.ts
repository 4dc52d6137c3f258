import { Command } from 'commander';
import { difference } from '#core/measure/difference';
import { lowCutWords } from '#core/measure/low-cut';
import { differenceReportSchema, type DifferenceReport } from '#contracts/comparisons';
import { readPair } from '#worker/read-clip';
import { figure } from './report';

/** sediment difference A B --json */
export function differenceCommand(): Command {
  return new Command('difference')
    .description('how the second clip of a step differs from the first: aligned, levels matched, by band')
    .argument('<first>', 'WAV or FLAC file, the zero line')
    .argument('<second>', 'WAV or FLAC file')
    .option('--json', 'print an object')
    .action(async (first: string, second: string, options: { json?: boolean }) => {
      const { a, b, sampleRate } = await readPair(first, second);
      const found = difference(a, b, sampleRate);
      const report = differenceReportSchema.parse(found);
      process.stdout.write(options.json ? `${JSON.stringify(report, null, 2)}\n` : text(report));
    });
}

function text({ points, levelDb, lagS, method, lowCut }: DifferenceReport): string {
  const how = method === 'transfer' ? 'one performance, transfer function' : 'two readings, long-term spectra';
  const rows = points.map((p) => `${figure(p.hz, 0, 'Hz')}\t${p.trusted ? figure(p.db, 1, 'dB') : 'not trusted'}`);
  return `${how}; level ${figure(levelDb, 2, 'dB')}, later by ${figure(1000 * lagS, 3, 'ms')}; ${lowCutWords(lowCut)}\n${rows.join('\n')}\n`;
}
