import { Command } from 'commander';
import { analyseLevel } from '#core/measure/level-analysis';
import { openClip } from '#worker/open-clip';

/** sediment peaks FILE */
export function peaksCommand(): Command {
  return new Command('peaks')
    .description('print lowest and highest sample per column of a waveform, as JSON')
    .argument('<file>', 'WAV or FLAC file')
    .action(async (file: string) => {
      const stream = openClip(file);
      try {
        const { format, durationS, waveform } = await analyseLevel(stream);
        process.stdout.write(
          `${JSON.stringify({
            file,
            sampleRateHz: format.sampleRate,
            channels: format.channels,
            durationS,
            framesPerColumn: waveform.framesPerColumn,
            pairs: Array.from(waveform.pairs, (x) => Number(x.toFixed(6))),
          })}\n`,
        );
      } finally {
        stream.close();
      }
    });
}
