import { exponentialSweep } from '#core/dsp/exponential-sweep';
import type { InterfaceModel } from '#rig/audio-interface';
import type { LineInputSetup } from '#rig/line-input';
import type { ProtocolSweep } from '#contracts/protocol';

type Scene = Pick<LineInputSetup, 'durationS' | 'tones' | 'played' | 'fed'>;

/** The part of a take that its scene follows from. */
interface FedTake {
  readonly step: string;
  readonly levelDbu?: number | undefined;
  readonly settings?: Readonly<Record<string, unknown>> | undefined;
}

const TONE_S = 6;
const REST_S = 12;

/**
 * What a cable feeds at a step of the protocol for interfaces; null for a step that a microphone hears.
 *
 * @param take - of the run
 * @param gainDb - as its dial says
 * @param model - of the interface
 * @param sweep - that the protocol plays; null where it plays none
 * @param sampleRate - in hertz
 */
export function lineScene(
  take: FedTake,
  gainDb: number,
  model: InterfaceModel,
  sweep: ProtocolSweep | null,
  sampleRate: number,
): Scene | null {
  /** Level at the input that reads so much. */
  const reads = (dbfs: number): number => dbfs + model.fullScaleDbu - gainDb - (model.gainErrorDb ?? 0);
  const tone = (hz: number, dbfs: number) => ({ hz, dbu: reads(dbfs) });
  /** What was noted of the tone where it is not the one that the step names. */
  const noted = (name: 'tone dBFS' | 'tone Hz', usual: number): number => Number(take.settings?.[name] ?? usual);
  switch (take.step) {
    case 'electrical':
    case 'most-input':
      return { durationS: TONE_S, tones: [{ hz: 1000, dbu: take.levelDbu ?? 0 }] };
    case 'noise-150':
    case 'noise-150-20':
      return { durationS: REST_S };
    case 'dynamic-range':
      return { durationS: TONE_S, tones: [tone(997, -60)] };
    case 'distortion':
      return { durationS: TONE_S, tones: [tone(997, noted('tone dBFS', -1))] };
    case 'two-tones':
      // Four to one, with a common peak of −3 dBFS.
      return { durationS: TONE_S, tones: [tone(60, -4.94), tone(7000, -16.98)] };
    case 'twin-tones':
      return { durationS: TONE_S, tones: [tone(18_000, -9.02), tone(19_000, -9.02)] };
    case 'one-channel':
      return { durationS: TONE_S, tones: [tone(noted('tone Hz', 1000), -6)], fed: [true, false] };
    case 'both-channels':
      return { durationS: TONE_S, tones: [tone(noted('tone Hz', 1000), -6)], fed: [true, true] };
    case 'sweep-low':
    case 'sweep-full':
      return (
        sweep && {
          durationS: sweep.seconds + 1.5,
          played: { samples: exponentialSweep(sweep, sampleRate, sweep.levelDbfs), fullScaleDbu: reads(0) },
        }
      );
    default:
      return null;
  }
}
