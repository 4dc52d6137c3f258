import { Command } from 'commander';
import Table from 'cli-table3';
import { encodeWav } from '#core/audio/wav-write';
import { measureResponse, type MeasuredResponse } from '#core/measure/response-report';
import { gated } from '#core/measure/impulse-response';
import { responseText } from '#core/measure/response-text';
import type { ResponseReport } from '#contracts/comparisons';
import { readPair } from '#worker/read-clip';
import { numberOption } from './number-option';
import { figure } from './report';
import { writeNewFile } from './write-file';

interface ResponseOptions {
  readonly sweep: string;
  readonly recorded: string;
  readonly reference?: string;
  readonly gateMs?: number;
  readonly impulse?: string;
  readonly text?: string;
  readonly json?: boolean;
}

/** Length of an exported impulse response, and what is kept before its peak. */
const IMPULSE_S = 1;
const BEFORE_PEAK_S = 0.01;

/** sediment response --sweep F --recorded F [--reference F] [--gate-ms G] --json */
export function responseCommand(): Command {
  return new Command('response')
    .description('frequency response and distortion from a recorded exponential sweep')
    .requiredOption('--sweep <file>', 'the sweep as it was played')
    .requiredOption('--recorded <file>', 'the recording of it')
    .option('--reference <file>', 'the same sweep through the reference unit: the response is then relative to it')
    .addOption(numberOption('--gate-ms <ms>', 'cut off what comes later than this', { low: 0.5, high: 2000 }))
    .option('--impulse <file>', 'write the impulse response as a WAV file')
    .option('--text <file>', 'write the response as plain text (frequency, dB)')
    .option('--json', 'print an object')
    .action(async (options: ResponseOptions) => {
      const { a: played, b: recorded, sampleRate } = await readPair(options.sweep, options.recorded);
      const reference = options.reference ? (await readPair(options.sweep, options.reference)).b : null;
      const found = measureResponse(played, recorded, sampleRate, {
        reference,
        ...(options.gateMs === undefined ? {} : { gateMs: options.gateMs }),
      });
      if (options.impulse) await writeImpulse(options.impulse, found, sampleRate);
      if (options.text) {
        const text = responseText(found, options.recorded);
        await writeNewFile(options.text, (write) => write(new TextEncoder().encode(text)));
      }
      const report = reportOf(found, options.reference ?? null);
      process.stdout.write(options.json ? `${JSON.stringify(report, null, 2)}\n` : table(report));
    });
}

function reportOf(found: MeasuredResponse, reference: string | null): ResponseReport {
  const { points, lowestValidHz, gateMs, delayS, summary, distortion, room } = found;
  const finite = (value: number): number | null => (Number.isFinite(value) ? value : null);
  const { referenceDb } = summary;
  return {
    points: [...points],
    lowestValidHz,
    gateMs,
    reference,
    delayS,
    summary: { ...summary, referenceDb: finite(referenceDb) },
    room: { ...room, c50Db: finite(room.c50Db), directToReverberantDb: finite(room.directToReverberantDb) },
    distortion: { ...distortion, orders: [...distortion.orders] },
  };
}

function writeImpulse(path: string, { impulse }: MeasuredResponse, sampleRate: number): Promise<void> {
  const before = Math.round(BEFORE_PEAK_S * sampleRate);
  const length = Math.min(Math.round(IMPULSE_S * sampleRate), impulse.samples.length >> 1);
  const samples = gated(impulse.samples, impulse.peak, before, length - before);
  return writeNewFile(path, (write) => write(encodeWav([samples], sampleRate, 'float32')));
}

function table({ summary, distortion, room, lowestValidHz }: ResponseReport): string {
  const hz = (value: number | null): string => figure(value, 0, 'Hz');
  const rows = new Table({ style: { head: [], border: [] } });
  rows.push(
    ['−3 dB', `${hz(summary.minus3LowHz)} … ${hz(summary.minus3HighHz)}`],
    ['−6 dB', `${hz(summary.minus6LowHz)} … ${hz(summary.minus6HighHz)}`],
    ['100 Hz–10 kHz', `±${figure(summary.deviationDb, 1, 'dB')}`],
    ['slope', figure(summary.slopeDbPerOctave, 2, 'dB/octave')],
    ['5–9 kHz re 1–3 kHz', figure(summary.presenceDb, 1, 'dB')],
    ['THD at 1 kHz', figure(distortion.thdDb, 1, 'dB')],
    ['valid from', hz(lowestValidHz)],
    ['reverberation time T20', figure(room.t20S, 2, 's')],
    ['clarity C50', figure(room.c50Db, 1, 'dB')],
  );
  return `${rows.toString()}\n`;
}
