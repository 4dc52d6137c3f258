import { sweepTime } from '../dsp/exponential-sweep';
import { DEFAULT_GATE_MS, frequencyResponse, substituted, type FrequencyResponse } from './frequency-response';
import { distortionMeasurement, harmonicDistortion, type HarmonicDistortion } from './harmonic-distortion';
import { impulseResponse, stretch, type ImpulseResponse } from './impulse-response';
import type { Measurement } from './measurement';
import { responseMeasurements, summariseResponse, type ResponseSummary } from './response-summary';
import { assertPace, sweepFindings, type SweepFinding } from './sweep-checks';
import { roomReport, type RoomReport } from './room-acoustics';

/** A recorded sweep as points, summary and distortion. */
export interface MeasuredResponse extends FrequencyResponse {
  readonly gateMs: number;
  readonly delayS: number;
  readonly summary: ResponseSummary;
  readonly distortion: HarmonicDistortion;
  /** Of the place it was recorded in, from the response as it is, not gated; null where nobody asked. */
  readonly room: RoomReport | null;
  /** What makes it doubtful. */
  readonly findings: readonly SweepFinding[];
  readonly impulse: ImpulseResponse;
}

/** Longest decay that is looked for; a part before the direct sound belongs to it. */
const LONGEST_DECAY_S = 3;
const BEFORE_S = 0.002;
/** Frequency at which distortion is read. */
const DISTORTION_HZ = 1000;

/**
 * All that a recorded sweep tells.
 *
 * @param played - the sweep as it was played
 * @param recorded - what came back, same sample rate
 * @param sampleRate - in hertz
 * @param options - settings
 * @param options.gateMs - gate behind the direct sound
 * @param options.withRoom - also the figures of the place it was recorded in
 * @param options.reference - the same sweep through the reference unit, for substitution
 * @throws AudioFileError as {@link impulseResponse} and {@link assertPace}
 */
export function measureResponse(
  played: Float64Array,
  recorded: Float64Array,
  sampleRate: number,
  options: { readonly gateMs?: number; readonly reference?: Float64Array | null; readonly withRoom?: boolean } = {},
): MeasuredResponse {
  const gateMs = options.gateMs ?? DEFAULT_GATE_MS;
  const impulse = impulseResponse(played, recorded, sampleRate);
  assertPace(impulse);
  const own = frequencyResponse(impulse, gateMs);
  const response = options.reference
    ? substituted(own, frequencyResponse(impulseResponse(played, options.reference, sampleRate), gateMs))
    : own;
  return {
    ...response,
    gateMs,
    delayS: impulse.peak / sampleRate,
    summary: summariseResponse(response),
    distortion: harmonicDistortion(impulse, DISTORTION_HZ),
    room: options.withRoom ? roomOf(impulse) : null,
    findings: sweepFindings(recorded, impulse),
    impulse,
  };
}

/** The part of a measured response that its figures are made of. */
export type SweepFigures = Pick<MeasuredResponse, 'gateMs' | 'summary' | 'distortion' | 'findings'>;

/**
 * The figures of a recorded sweep with their conditions: one path for runs and for the command line.
 *
 * @param response - what was measured
 * @param where - angle or reference, in words
 */
export function sweepMeasurements(response: SweepFigures, where: string): Measurement[] {
  const { gateMs, summary, distortion, findings } = response;
  const how = `swept sine, ${where}, gate ${gateMs} ms, 1/24 octave`;
  const all = [...responseMeasurements(summary, how), distortionMeasurement(distortion, how)];
  if (findings.length === 0) return all;
  const text = findings.map((f) => f.text).join('; ');
  return all.map((m) => (m.value === null ? m : { ...m, settings: { ...m.settings, findings: text } }));
}

function roomOf({ samples, sampleRate, peak, sweep, recordedS }: ImpulseResponse): RoomReport {
  const before = Math.round(BEFORE_S * sampleRate);
  const behind = Math.min(Math.round(LONGEST_DECAY_S * sampleRate), (samples.length >> 1) - before);
  return roomReport(
    stretch(samples, peak, before, behind),
    sampleRate,
    (hz) => recordedS - peak / sampleRate - sweepTime(sweep, hz),
  );
}
