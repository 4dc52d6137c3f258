import { existsSync, mkdirSync } from 'node:fs';
import { basename, extname, join } from 'node:path';
import { Command } from 'commander';
import { analyseLevel, type LevelAnalysis } from '#core/measure/level-analysis';
import { levelMatch } from '#core/measure/level-match';
import { copyWithGain } from '#worker/match-clip';
import { openClip } from '#worker/open-clip';
import { numberOption } from './number-option';
import { figure } from './report';
import { writeNewFile } from './write-file';

interface MatchedFile {
  readonly file: string;
  readonly out: string;
  readonly gainDb: number;
  /** Loudness of the copy, measured again, minus the target. */
  readonly residualLu: number;
}

/** Loudness that clips are brought to where none is asked for (EBU R 128). */
const DEFAULT_TARGET_LUFS = -23;

/** sediment match FILE… --out DIR */
export function matchCommand(): Command {
  return new Command('match')
    .description('write copies of clips that are equally loud, none above −1 dBTP')
    .argument('<file...>', 'WAV or FLAC files')
    .requiredOption('--out <dir>', 'folder for the copies')
    .addOption(
      numberOption('--target <lufs>', 'loudness to aim at', { low: -60, high: -1 }).default(DEFAULT_TARGET_LUFS),
    )
    .option('--json', 'print an object')
    .action(async (files: string[], options: { out: string; target: number; json?: boolean }) => {
      const outputs = outputNames(files, options.out);
      const loudness = await Promise.all(files.map(async (file) => (await levelOf(file)).loudness));
      loudness.forEach(({ integratedLufs }, i) => {
        if (!Number.isFinite(integratedLufs)) throw new Error(`${files[i]}: silence cannot be matched.`);
      });
      const { targetLufs, gainsDb, heldBackBy } = levelMatch(loudness, options.target);
      mkdirSync(options.out, { recursive: true });
      const matched: MatchedFile[] = [];
      for (const [i, file] of files.entries()) {
        await writeNewFile(outputs[i], (write) => copyWithGain(file, gainsDb[i], write));
        const residualLu = (await levelOf(outputs[i])).loudness.integratedLufs - targetLufs;
        matched.push({ file, out: outputs[i], gainDb: gainsDb[i], residualLu });
      }
      const heldBack = heldBackBy === null ? null : files[heldBackBy];
      process.stdout.write(
        options.json
          ? `${JSON.stringify({ targetLufs, heldBackBy: heldBack, files: matched }, null, 2)}\n`
          : text(targetLufs, heldBack, matched),
      );
    });
}

async function levelOf(file: string): Promise<LevelAnalysis> {
  const stream = openClip(file);
  try {
    return await analyseLevel(stream);
  } finally {
    stream.close();
  }
}

/** Names of the copies; all of them are checked before anything is written. */
function outputNames(files: readonly string[], folder: string): string[] {
  const names = files.map((file) => join(folder, `${basename(file, extname(file))}.wav`));
  names.forEach((name, i) => {
    if (names.indexOf(name) !== i) throw new Error(`Two files would both become ${name}; nothing was written.`);
    if (existsSync(name)) throw new Error(`${name} is there already; nothing was written. Choose another folder.`);
  });
  return names;
}

function text(targetLufs: number, heldBack: string | null, files: readonly MatchedFile[]): string {
  const lines = files.map(
    (f) => `${f.out}\t${figure(f.gainDb, 2, 'dB')}\t(${figure(f.residualLu, 2, 'LU')} off the target)`,
  );
  const why = heldBack ? `, held back by the peaks of ${heldBack}` : '';
  return `All at ${figure(targetLufs, 2, 'LUFS')}${why}:\n${lines.join('\n')}\n`;
}
