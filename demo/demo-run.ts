import type { ProtocolSweep } from '#contracts/protocol';
import type { RunDocumentInput } from '#contracts/run-document';
import type { InterfaceModel } from '#rig/audio-interface';
import type { BoosterModel } from '#rig/booster';
import type { OutsideNoise } from '#rig/take';
import type { GateModel } from '#rig/gate';
import type { HeadphonesModel } from '#rig/headphones';
import type { MicrophoneModel } from '#rig/microphone';
import type { LinkModel } from '#rig/radio-link';

/** Names of the files in demo/speech. */
export const DEMO_VOICES = ['low', 'high', 'north'] as const;
export type DemoVoice = (typeof DEMO_VOICES)[number];

/** What a worker needs to render one run of the demo, and the document that goes with it. */
export interface DemoRunPlan {
  readonly document: RunDocumentInput;
  readonly onDesk: boolean;
  readonly microphone: MicrophoneModel;
  /** The microphone as it sounds through what is tested, at steps that are made with it. */
  readonly with?: MicrophoneModel;
  /** What is between microphone and interface at steps that are made with it. */
  readonly booster?: BoosterModel;
  /** What is taken of the noise from outside at steps that are made with it. */
  readonly shield?: Pick<OutsideNoise, 'lessDb' | 'bells'>;
  /** What its protocol plays through a loop; none by default. */
  readonly sweep?: ProtocolSweep;
  /** Headphones on the artificial ear, at steps that play the sweep. */
  readonly headphones?: HeadphonesModel;
  /** Clothing that rubs on it, dB re speech. */
  readonly rubDb?: number;
  /** How far its radio link holds on a walk. */
  readonly link?: LinkModel;
  /** Its radio link turns pauses down. */
  readonly gate?: GateModel;
  readonly interface: InterfaceModel;
  readonly voice: DemoVoice;
}
