import { Command } from 'commander';
import { encodeWav } from '#core/audio/wav-write';
import { exponentialSweep } from '#core/dsp/exponential-sweep';
import { numberOption } from './number-option';
import { writeNewFile } from './write-file';

interface SweepOptions {
  readonly out: string;
  readonly seconds: number;
  readonly rate: number;
  readonly low: number;
  readonly high?: number;
  readonly level: number;
}

/** Highest frequency of a sweep where none is asked for: above the band, below the converters' filters. */
const highestOf = (rate: number): number => Math.min(22_000, 0.45 * rate);

/** sediment sweep --out F --seconds S --rate R */
export function sweepCommand(): Command {
  return new Command('sweep')
    .description('write an exponential sine sweep (24-bit WAV) to be played and recorded')
    .requiredOption('--out <file>', 'WAV file to write')
    .addOption(numberOption('--seconds <s>', 'length', { low: 0.5, high: 120 }).default(10))
    .addOption(numberOption('--rate <hz>', 'sample rate', { low: 8000, high: 384_000 }).default(48_000))
    .addOption(numberOption('--low <hz>', 'first frequency', { low: 1, high: 10_000 }).default(15))
    .addOption(numberOption('--high <hz>', 'last frequency (22 kHz, or 0.45 of the rate)', { low: 20, high: 192_000 }))
    .addOption(numberOption('--level <dbfs>', 'peak level', { low: -80, high: 0 }).default(-6))
    .action(async (options: SweepOptions) => {
      const { seconds, rate, low, level } = options;
      const high = options.high ?? highestOf(rate);
      const samples = exponentialSweep({ lowHz: low, highHz: high, seconds }, rate, level);
      await writeNewFile(options.out, (write) => write(encodeWav([samples], rate, 'pcm24')));
      process.stdout.write(
        `${options.out}: ${seconds} s from ${low} Hz to ${Math.round(high)} Hz at ${level} dBFS. Start low: sweeps are loud in headphones and can harm tweeters.\n`,
      );
    });
}
