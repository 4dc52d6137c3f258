import { Command } from 'commander';
import { AudioFileError } from '#core/audio/audio-file-error';
import { type ToneValue } from '#core/measure/take-tone';
import { isNoiseLimited } from '#core/measure/tone-distortion';
import { toneReportSchema, type ToneReport } from '#contracts/comparisons';
import measureTone from '#worker/tasks/measure-tone';
import { figure } from './report';

/** sediment tone FILE --json */
export function toneCommand(): Command {
  return new Command('tone')
    .description('distortion, dynamic range and intermodulation of recorded steady tones')
    .argument('<file>', 'WAV or FLAC file, at least 1.5 s at 48 kHz')
    .option('--json', 'print an object')
    .action(async (file: string, options: { json?: boolean }) => {
      const found = await measureTone({ path: file });
      if (!found)
        throw new AudioFileError(
          'unmeasurable',
          'The file is too short to read tones from: it needs 65,536 samples at least, which are 1.4 s at 48 kHz.',
        );
      const report = toneReportSchema.parse({
        isClipped: found.isClipped,
        hz: found.distortion.hz,
        levelDbfs: found.distortion.levelDbfs,
        thdPlusNoise: finite(found.thdPlusNoise),
        thd: { ...finite(found.thd), isLimit: isNoiseLimited(found.distortion) },
        harmonicsDb: found.distortion.harmonicsDb.map(orNull),
        dynamicRangeA: finite(found.rangeA),
        modulation: found.smpte && { hz: found.smpte.hz, balanceDb: found.smpte.balanceDb, db: found.smpte.db },
        difference: found.twinTone && { hz: found.twinTone.hz, balanceDb: found.twinTone.balanceDb, db: found.twinTone.db }, // prettier-ignore
        channelsDbfs: found.channelsDbfs.map(orNull),
      });
      process.stdout.write(options.json ? `${JSON.stringify(report, null, 2)}\n` : text(report));
    });
}

/** A file without any noise has no level of it. */
const orNull = (value: number): number | null => (Number.isFinite(value) ? value : null);
const finite = ({ db, u }: ToneValue) => ({ db: orNull(db), u: u === null ? null : orNull(u) });

function text(r: ToneReport): string {
  const lines = [
    ['Tone', `${figure(r.hz, 1, 'Hz')} at ${figure(r.levelDbfs, 2, 'dBFS')}${r.isClipped ? ', CLIPPED' : ''}`],
    ['THD+N', figure(r.thdPlusNoise.db, 1, 'dB')],
    ['THD', `${r.thd.isLimit ? 'at most ' : ''}${figure(r.thd.db, 1, 'dB')}`],
    ['Full scale re the rest, A-weighted', figure(r.dynamicRangeA.db, 1, 'dB(A)')],
    ...r.channelsDbfs.map((level, i) => [`Channel ${i + 1}`, figure(level, 2, 'dBFS')]),
  ];
  return `${lines.map(([name, value]) => `${name}\t${value}`).join('\n')}\n`;
}
