import type { ClipAnalysis } from './clip-analysis';
import { levelMeasurements } from './level';
import { loudnessMeasurements } from './loudness';
import type { Measurement } from './measurement';
import { silenceMeasurements } from './silence-noise';

/** Every figure of a single clip, with its condition. */
export function clipMeasurements(analysis: Pick<ClipAnalysis, 'level' | 'loudness' | 'noise'>): Measurement[] {
  return [
    ...levelMeasurements(analysis.level),
    ...loudnessMeasurements(analysis.loudness),
    ...silenceMeasurements(analysis.noise),
  ];
}
