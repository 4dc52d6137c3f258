import { DEFAULT_GATE_MS, frequencyResponse, substituted, type FrequencyResponse } from './frequency-response';
import { harmonicDistortion, type HarmonicDistortion } from './harmonic-distortion';
import { gated, impulseResponse, type ImpulseResponse } from './impulse-response';
import { summariseResponse, type ResponseSummary } from './response-summary';
import { roomFigures, type RoomFigures } from './room-acoustics';

/** A recorded sweep as points, summary and distortion. */
export interface MeasuredResponse extends FrequencyResponse {
  readonly gateMs: number;
  readonly delayS: number;
  readonly summary: ResponseSummary;
  readonly distortion: HarmonicDistortion;
  /** Of the place it was recorded in, from the response as it is, not gated. */
  readonly room: RoomFigures;
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
    room: roomOf(impulse),
    impulse,
  };
}

function roomOf({ samples, sampleRate, peak }: ImpulseResponse): RoomFigures {
  const before = Math.round(BEFORE_S * sampleRate);
  const behind = Math.min(Math.round(LONGEST_DECAY_S * sampleRate), (samples.length >> 1) - before);
  return roomFigures(gated(samples, peak, before, behind), sampleRate);
}
