import type { ClipAnalysis } from './clip-analysis';
import { withoutCodecFigures } from './codec-decides';
import { dropOutMeasurement } from './drop-outs';
import { humMeasurement } from './hum';
import { interferenceMeasurement } from './interference';
import { levelMeasurements } from './level';
import { loudnessMeasurements } from './loudness';
import type { Measurement } from './measurement';
import { plosiveMeasurement } from './plosives';
import { quasiPeakMeasurement } from './silence-lines';
import { silenceMeasurements } from './silence-noise';

/** Every figure of a single clip, with its condition. */
export function clipMeasurements(
  analysis: Pick<
    ClipAnalysis,
    'level' | 'loudness' | 'noise' | 'lines' | 'plosives' | 'sibilance' | 'dropOuts' | 'segments' | 'sound'
  >,
): Measurement[] {
  const { lines, loudness, segments } = analysis;
  const speechLufs = segments.speech.length === 0 ? -Infinity : loudness.integratedLufs;
  const measurements = [
    ...levelMeasurements(analysis.level),
    ...loudnessMeasurements(loudness),
    ...silenceMeasurements(analysis.noise),
    quasiPeakMeasurement(lines),
    humMeasurement(lines?.hum ?? null),
    interferenceMeasurement(lines?.interference ?? null, lines?.limitDbfs ?? null),
    plosiveMeasurement(analysis.plosives, speechLufs),
    analysis.sibilance,
    dropOutMeasurement(analysis.dropOuts),
  ];
  return withoutCodecFigures(measurements, analysis.sound);
}
