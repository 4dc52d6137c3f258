import type { Measurement } from './measurement';
import { notMeasured } from './measurement';
import { noiseReSpeech } from './noise-re-speech';
import { rearRejection } from './rear-rejection';
import type { LoudnessFigures } from './loudness';
import type { SilenceNoise } from './silence-noise';

/** A take with what figures over several takes need of it. */
export interface AnalysedTake {
  readonly step: string;
  readonly gainDb: number;
  readonly loudness: Pick<LoudnessFigures, 'integratedLufs' | 'uncertaintyLu'>;
  readonly noise: SilenceNoise | null;
  /** Seconds of speech that were found. */
  readonly speechS: number;
  readonly stepPowers: Float64Array;
}

const NO_SPEECH = 'No speech was found in the speech take: is it the right file?';

/**
 * The figures that take several clips of one run: noise re speech and rear rejection. Where a step was taken more
 * than once, the last take counts. Without a silent take, the longest pause of the spoken passage stands in for the
 * noise figure; rejection then goes without.
 *
 * @param takes - all takes of the run
 */
export function runMeasurements(takes: readonly AnalysedTake[]): Measurement[] {
  const last = (step: string): AnalysedTake | undefined => takes.findLast((t) => t.step === step);
  const speech = last('speech');
  const silence = last('silence') ?? speech;
  const rear = last('rear');
  return [...noiseFigures(speech, silence), rejectionFigure(speech, rear, last('silence'))];
}

function noiseFigures(speech: AnalysedTake | undefined, silence: AnalysedTake | undefined): Measurement[] {
  if (speech && silence && speech.speechS > 0) return noiseReSpeech(speech, silence);
  const reason = speech ? NO_SPEECH : 'The run has no speech take.';
  return [notMeasured('noiseReSpeechZ', 'unweighted', reason), notMeasured('noiseReSpeechA', 'A-weighted', reason)];
}

function rejectionFigure(
  speech: AnalysedTake | undefined,
  rear: AnalysedTake | undefined,
  silence: AnalysedTake | undefined,
): Measurement {
  const missing = [!speech && 'speech', !rear && 'rear', !silence && 'silence'].filter(Boolean).join(', ');
  const condition = 'K-weighted speech, 0° against 180°';
  if (speech?.speechS === 0) return notMeasured('rearRejection', condition, NO_SPEECH);
  if (speech && rear && silence) return rearRejection(speech, rear, silence);
  return notMeasured('rearRejection', condition, `The run lacks: ${missing}.`);
}
