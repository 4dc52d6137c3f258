import { DEFAULT_GATE_MS, frequencyResponse, substituted, type FrequencyResponse } from './frequency-response';
import { harmonicDistortion, type HarmonicDistortion } from './harmonic-distortion';
import { impulseResponse, type ImpulseResponse } from './impulse-response';
import { summariseResponse, type ResponseSummary } from './response-summary';

/** A recorded sweep as points, summary and distortion. */
export interface MeasuredResponse extends FrequencyResponse {
  readonly gateMs: number;
  readonly delayS: number;
  readonly summary: ResponseSummary;
  readonly distortion: HarmonicDistortion;
  readonly impulse: ImpulseResponse;
}

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
 * @param options.reference - the same sweep through the reference unit, for substitution
 * @throws RangeError as {@link impulseResponse}
 */
export function measureResponse(
  played: Float64Array,
  recorded: Float64Array,
  sampleRate: number,
  options: { readonly gateMs?: number; readonly reference?: Float64Array | null } = {},
): MeasuredResponse {
  const gateMs = options.gateMs ?? DEFAULT_GATE_MS;
  const impulse = impulseResponse(played, recorded, sampleRate);
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
    impulse,
  };
}
