import { Command } from 'commander';
import Table from 'cli-table3';
import { encodeWav } from '#core/audio/wav-write';
import { figureText } from '#core/measure/figure-text';
import { QUANTITY_IDS, quantity, type QuantityId } from '#core/measure/registry';
import { measureResponse, sweepMeasurements, type MeasuredResponse } from '#core/measure/response-report';
import { roomMeasurements } from '#core/measure/room-acoustics';
import { gated } from '#core/measure/impulse-response';
import { responseText } from '#core/measure/response-text';
import { responseReportSchema, type ResponseReport } from '#contracts/comparisons';
import { readPair } from '#worker/read-clip';
import { numberOption } from './number-option';
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
        withRoom: true,
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
  const { points, lowestValidHz, gateMs, delayS, distortion, findings } = found;
  const figures = [
    ...sweepMeasurements(found, reference ? 're the reference' : 're the played sweep'),
    ...(found.room ? roomMeasurements(found.room) : []),
  ];
  return responseReportSchema.parse({
    points,
    lowestValidHz,
    gateMs,
    reference,
    delayS,
    measurements: Object.fromEntries(
      figures.map(({ quantity: id, ...figure }) => [id, { ...figure, unit: quantity(id).unit }]),
    ),
    room: { octaves: (found.room?.octaves ?? []).map((o) => ({ ...o, headroomDb: Math.min(999, o.headroomDb) })) },
    distortion,
    findings,
  });
}

function writeImpulse(path: string, { impulse }: MeasuredResponse, sampleRate: number): Promise<void> {
  const before = Math.round(BEFORE_PEAK_S * sampleRate);
  const length = Math.min(Math.round(IMPULSE_S * sampleRate), impulse.samples.length >> 1);
  const samples = gated(impulse.samples, impulse.peak, before, length - before);
  return writeNewFile(path, (write) => write(encodeWav([samples], sampleRate, 'float32')));
}

function table({ measurements, findings, lowestValidHz }: ResponseReport): string {
  const rows = new Table({ style: { head: [], border: [] } });
  for (const id of QUANTITY_IDS) {
    const figure = measurements[id];
    if (figure) rows.push([quantity(id).name, measuredText(id, figure)]);
  }
  rows.push(['valid from', `${lowestValidHz.toFixed(0)} Hz`]);
  for (const { text } of findings) rows.push(['caution', text]);
  return `${rows.toString()}\n`;
}

/** A figure as the pages show it, or why there is none. */
function measuredText(id: QuantityId, figure: ResponseReport['measurements'][string]): string {
  if (figure.value === null) return `not measured: ${figure.notMeasured ?? ''}`;
  const { value, spread, unit } = figureText(id, figure);
  return [value, spread, unit].filter(Boolean).join(' ');
}
