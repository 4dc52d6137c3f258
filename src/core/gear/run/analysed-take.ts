import type { DropOut } from '../../dsp/drop-out-reading';
import type { DistanceFit, Rung } from '../../measure/distance-ladder';
import type { ResponsePoint } from '../../measure/frequency-response';
import type { LoudestFrame } from '../../measure/knocks';
import type { LoudnessFigures } from '../../measure/loudness';
import type { Bound, Measurement } from '../../measure/measurement';
import type { FirstOrderPattern, PolarLevel } from '../../measure/polar-pattern';
import type { SweepFigures } from '../../measure/response-report';
import type { RoomReport } from '../../measure/room-acoustics';
import type { SilenceNoise } from '../../measure/silence-noise';
import type { TakeTone } from '../../measure/take-tone';
import type { BandLevel } from '../../measure/third-octave-spectrum';

/** A take with what figures over several takes need of it. */
export interface AnalysedTake {
  /** What its step is for: "speech", "silence", "rear", "sweep" … */
  readonly role: string;
  /** Null where the device shows no decibels. */
  readonly gainDb: number | null;
  /** Place of its dial, "automatic" or "unknown"; it may stand beside decibels. */
  readonly dial?: string | null;
  /** Standard uncertainty of `gainDb` where it was read off the table of a dial, dB. */
  readonly gainU?: number;
  readonly distanceM: number | null;
  readonly angleDeg: number | null;
  /** Of a calibrator's tone, dB SPL. */
  readonly levelDbSpl: number | null;
  /** Of an electrical tone at the input, dBu. */
  readonly levelDbu: number | null;
  readonly windSpeedMs: number | null;
  readonly loudness: Pick<LoudnessFigures, 'integratedLufs' | 'uncertaintyLu'>;
  readonly noise: SilenceNoise | null;
  /** Seconds of speech that were found. */
  readonly speechS: number;
  readonly stepPowers: Float64Array;
  readonly thirdOctave: readonly BandLevel[];
  readonly loudest: LoudestFrame;
  /** A-weighted level of the whole take. */
  readonly aDbfs: number;
  /** Holes, in order of time; missing where nobody has asked for them. */
  readonly drops?: readonly DropOut[];
  /** Figures of the clip alone. */
  readonly clip: readonly Measurement[];
  /** Of steady tones; null or missing where the step plays none, or the take is too short. */
  readonly tone?: TakeTone | null;
  /** Of a recorded sweep. */
  readonly response: TakeResponse | null;
}

/** The part of a measured response that a run needs. */
export interface TakeResponse extends SweepFigures {
  readonly points: readonly ResponsePoint[];
  readonly lowestValidHz: number;
  readonly room: RoomReport | null;
}

/** What is known of the chain. */
export interface RunChain {
  /** Input level that reaches full scale at 0 dB of gain, dBu. */
  readonly fullScaleDbu: number | null;
  /** As claimed; used for dB SPL only where there is no calibration take. */
  readonly claimedSensitivityMvPa: number | null;
  /** Standard uncertainty of `fullScaleDbu`, in dB; null where nobody measured it. */
  readonly fullScaleUncertaintyDb?: number | null;
  /** Level of 1 Pa at 0 dB of gain, dBFS, by the rig's own sound calibration; only for the unit that it was made with. */
  readonly onePascal?: { readonly dbfs: number; readonly uncertaintyDb: number } | null;
}

/** Curves that a run gives beside its figures. */
export interface RunCurves {
  readonly response: Pick<TakeResponse, 'points' | 'lowestValidHz' | 'gateMs'> | null;
  /** Both sides of headphones, each the mean of its seatings, levels re the played sweep. */
  readonly sides: {
    readonly left: readonly ResponsePoint[];
    readonly right: readonly ResponsePoint[];
    readonly lowestValidHz: number;
  } | null;
  readonly polar: { readonly levels: readonly PolarLevel[]; readonly pattern: FirstOrderPattern | null } | null;
  readonly distance: { readonly rungs: readonly Rung[]; readonly fit: DistanceFit } | null;
  readonly room: Pick<RoomReport, 'octaves'> | null;
  /** Input noise of an interface over its gain, dBu(A), rising gain. */
  readonly noiseByGain:
    readonly { readonly gainDb: number; readonly einADbu: number; readonly u: number | null }[] | null;
  /** Distortion of a tone over its level, re the tone, dB; rising level. */
  readonly distortionByLevel: readonly DistortionAtLevel[] | null;
  /** What two channels do to each other over frequency, dB; rising frequency. */
  readonly channelsByFrequency: readonly ChannelsAtFrequency[] | null;
  /** Holes of a radio link from one distance of a walk to the next. */
  readonly holesByDistance: readonly HolesOnTheWay[] | null;
  /** Wind noise re speech over the speed of the wind, rising speed. */
  readonly windBySpeed: readonly WindAtSpeed[] | null;
}

/** What a tone of 1 kHz brings with it at one level, re the tone, dB. */
export interface DistortionAtLevel {
  /** AES17 dBFS. */
  readonly levelDbfs: number;
  readonly thdPlusNoiseDb: number;
  readonly thdPlusNoiseU: number | null;
  readonly thdDb: number;
  readonly thdU: number | null;
  /** At most: the noise hides the harmonics. */
  readonly thdBound: Bound;
}

/** Two channels at one frequency, dB; null for what was not recorded. */
export interface ChannelsAtFrequency {
  readonly hz: number;
  /** Of the channel that is not fed, re the one that is; null where that was not recorded. */
  readonly crosstalkDb: number | null;
  /** At most: the noise hides the tone there. */
  readonly crosstalkBound: Bound;
  /** Second channel re the first, both fed alike. */
  readonly balanceDb: number | null;
}

/** Holes of a radio link on one stretch of a walk. */
export interface HolesOnTheWay {
  readonly fromM: number;
  readonly toM: number;
  readonly count: number;
  /** Of all of them together. */
  readonly lostMs: number;
}

/** Wind noise at one speed, re gated speech loudness at equal gain, dB; null where a band holds nothing. */
export interface WindAtSpeed {
  readonly speedMs: number;
  /** Below 200 Hz. */
  readonly lowDb: number | null;
  readonly aDb: number | null;
  /** Both are limits where words may be drowned in the wind. */
  readonly bound: Bound;
}

/** What a run gives: figures, and curves beside them. */
export interface RunFigures {
  readonly measurements: Measurement[];
  readonly curves: RunCurves;
}

/** No curve of any kind. */
export const NO_CURVES: RunCurves = {
  response: null,
  sides: null,
  polar: null,
  distance: null,
  room: null,
  noiseByGain: null,
  distortionByLevel: null,
  channelsByFrequency: null,
  holesByDistance: null,
  windBySpeed: null,
};

/** The take of a role that counts: where a step was taken more than once, the last one. */
export const lastTake = (takes: readonly AnalysedTake[], role: string): AnalysedTake | undefined =>
  takes.findLast((t) => t.role === role);
