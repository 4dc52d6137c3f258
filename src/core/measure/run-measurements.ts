import { distanceMeasurements, fitDistanceLadder, type DistanceFit, type Rung } from './distance-ladder';
import type { ResponsePoint } from './frequency-response';
import { gatedLoudness } from './integrated-loudness';
import { handlingNoise, type LoudestFrame } from './knocks';
import type { LoudnessFigures } from './loudness';
import { measured, notMeasured, type Measurement } from './measurement';
import { heldAgainstPauses } from './silence-against-pauses';
import { noiseReSpeech, SPEECH_TARGET_LUFS } from './noise-re-speech';
import {
  patternOfLevels,
  polarLevels,
  polarMeasurements,
  type FirstOrderPattern,
  type PolarLevel,
} from './polar-pattern';
import { proximityEffect } from './proximity';
import { rearRejection } from './rear-rejection';
import { sweepMeasurements, type SweepFigures } from './response-report';
import { roomMeasurements, type RoomReport } from './room-acoustics';
import {
  CALIBRATOR_UNCERTAINTY_DB,
  DBU_VOLTS,
  ONE_PASCAL_DB_SPL,
  selfNoise,
  type AcousticReference,
} from './self-noise';
import type { SilenceNoise } from './silence-noise';
import type { BandLevel } from './third-octave-spectrum';
import { windNoise } from './wind';
import { mean } from '../stats/moments';
import { powerToDb } from '../units';

/** A take with what figures over several takes need of it. */
export interface AnalysedTake {
  /** What its step is for: "speech", "silence", "rear", "sweep" … */
  readonly role: string;
  readonly gainDb: number;
  readonly distanceM: number | null;
  readonly angleDeg: number | null;
  readonly levelDbSpl: number | null;
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
  /** Figures of the clip alone. */
  readonly clip: readonly Measurement[];
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
  readonly polar: { readonly levels: readonly PolarLevel[]; readonly pattern: FirstOrderPattern | null } | null;
  readonly distance: { readonly rungs: readonly Rung[]; readonly fit: DistanceFit } | null;
  readonly room: Pick<RoomReport, 'octaves'> | null;
}

const NO_SPEECH = 'No speech was found in the speech take: is it the right file?';
/** Standard uncertainty of a claimed sensitivity (common practice, no source). */
const CLAIM_UNCERTAINTY_DB = 1;
/** What stands less above the noise gives no level of its own. */
const LEAST_ABOVE_NOISE_DB = 3;
/** Distance that "close" is compared with, and what a take without a noted one is taken to have. */
const USUAL_DISTANCE_M = 0.15;
const CLOSE_DISTANCE_M = 0.03;
/** Figures of single clips that say something of the unit, and the role of the take that they are read from. */
const UNIT_FIGURES = [
  ['sibilance', 'speech'],
  ['hum', 'silence'],
  ['interference', 'silence'],
  ['plosives', 'plosive'],
] as const;
/** A calibrator's tone repeats itself by nature: what looks like a repeat there is none. */
const SHOWS_NO_DROP_OUTS = ['calibration'];

/**
 * The figures and curves that take several clips of one run. Where a step was taken more than once, the last take
 * counts. Figures of steps that the run does not have are left out, but for those that every run is expected to give.
 *
 * @param takes - all takes of the run
 * @param chain - what is known of interface and unit
 */
export function runMeasurements(
  takes: readonly AnalysedTake[],
  chain: RunChain = { fullScaleDbu: null, claimedSensitivityMvPa: null },
): { readonly measurements: Measurement[]; readonly curves: RunCurves } {
  const last = (role: string): AnalysedTake | undefined => takes.findLast((t) => t.role === role);
  const [speech, silence, rear, calibration] = ['speech', 'silence', 'rear', 'calibration'].map(last);
  const reference = acousticReference(calibration, chain);
  const sweeps = sweepFigures(takes);
  const room = last('room')?.response?.room ?? null;
  const ladder = distanceLadder(takes, silence);
  const close = last('close');
  const normal = normalDistance(takes) ?? speech;
  const [handling, wind] = [last('handling'), last('wind')];
  const measurements: Measurement[] = [
    ...noiseFigures(speech, silence ?? speech),
    rejectionFigure(speech, rear, silence),
    ...driveFigures(speech, calibration, chain),
    ...(silence && reference ? [selfNoise(speech ? heldAgainstPauses(silence, speech) : silence.noise, silence.gainDb, reference)] : []), // prettier-ignore
    ...clipFigures(last),
    ...dropOutFigure(takes),
    ...sweeps.measurements,
    ...(room ? roomMeasurements(room) : []),
    ...(close && normal ? [proximityFigure(close, normal, silence)] : []),
    ...(ladder ? distanceMeasurements(ladder) : []),
    ...(handling && speech
      ? handlingNoise(handling.loudest, handling.gainDb, speech.loudness.integratedLufs, speech.gainDb)
      : []),
    ...(wind && speech ? windNoise(wind, speech.loudness.integratedLufs, speech.gainDb) : []),
  ];
  const fit = ladder ? fitDistanceLadder(ladder) : null;
  return {
    measurements,
    curves: {
      response: sweeps.response,
      polar: sweeps.polar,
      distance: ladder && fit ? { rungs: ladder, fit } : null,
      room: room && roomCurve(room),
    },
  };
}

/** JSON knows no infinity: a decay without noise under it has headroom beyond all that is told. */
const roomCurve = ({ octaves }: RoomReport): RunCurves['room'] => ({
  octaves: octaves.map((o) => ({ ...o, headroomDb: Math.min(999, o.headroomDb) })),
});

function noiseFigures(speech: AnalysedTake | undefined, silence: AnalysedTake | undefined): Measurement[] {
  if (speech && silence && speech.speechS > 0)
    return noiseReSpeech(speech, { ...silence, noise: heldAgainstPauses(silence, speech) });
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

/** Level of the calibrator's tone: its third octave holds nothing else of weight. */
const toneDbfs = ({ loudest }: AnalysedTake): number | null =>
  Number.isFinite(loudest.oneKilohertzDbfs) ? loudest.oneKilohertzDbfs : null;

function driveFigures(
  speech: AnalysedTake | undefined,
  calibration: AnalysedTake | undefined,
  chain: RunChain,
): Measurement[] {
  const figures: Measurement[] = [];
  if (speech && speech.speechS > 0 && Number.isFinite(speech.loudness.integratedLufs)) {
    const at = speech.distanceM === null ? 'distance not noted' : `at ${speech.distanceM.toFixed(2)} m`;
    figures.push(
      measured(
        'gainToTarget',
        speech.gainDb + SPEECH_TARGET_LUFS - speech.loudness.integratedLufs,
        `spoken passage ${at}, this interface`,
        { uncertainty: speech.loudness.uncertaintyLu },
      ),
    );
  }
  const tone = calibration ? toneDbfs(calibration) : null;
  if (calibration && calibration.levelDbSpl !== null && tone !== null && chain.fullScaleDbu !== null) {
    const dbu = tone - calibration.gainDb + chain.fullScaleDbu + ONE_PASCAL_DB_SPL - calibration.levelDbSpl;
    const value = 1000 * DBU_VOLTS * 10 ** (dbu / 20);
    figures.push(
      measured('sensitivity', value, `1 kHz, by a calibrator of ${calibration.levelDbSpl} dB SPL`, {
        uncertainty:
          value * (10 ** (Math.hypot(CALIBRATOR_UNCERTAINTY_DB, chain.fullScaleUncertaintyDb ?? 0) / 20) - 1),
        settings: { fullScaleDbu: chain.fullScaleDbu },
      }),
    );
  }
  return figures;
}

function acousticReference(calibration: AnalysedTake | undefined, chain: RunChain): AcousticReference | null {
  const tone = calibration ? toneDbfs(calibration) : null;
  if (calibration && calibration.levelDbSpl !== null && tone !== null) {
    return {
      kind: 'calibration',
      toneDbfs: tone,
      toneDbSpl: calibration.levelDbSpl,
      gainDb: calibration.gainDb,
      uncertaintyDb: CALIBRATOR_UNCERTAINTY_DB,
    };
  }
  if (chain.onePascal) {
    const { dbfs, uncertaintyDb } = chain.onePascal;
    return { kind: 'calibration', toneDbfs: dbfs, toneDbSpl: ONE_PASCAL_DB_SPL, gainDb: 0, uncertaintyDb };
  }
  if (chain.claimedSensitivityMvPa === null || chain.fullScaleDbu === null) return null;
  return {
    kind: 'sensitivity',
    sensitivityMvPa: chain.claimedSensitivityMvPa,
    fullScaleDbu: chain.fullScaleDbu,
    uncertaintyDb: Math.hypot(CLAIM_UNCERTAINTY_DB, chain.fullScaleUncertaintyDb ?? 0),
  };
}

function clipFigures(last: (role: string) => AnalysedTake | undefined): Measurement[] {
  return UNIT_FIGURES.flatMap(([id, role]) => last(role)?.clip.filter((m) => m.quantity === id) ?? []);
}

/** Drop-outs of all takes that can show them, with where they are: one bad take is the unit's, whatever the others say. */
function dropOutFigure(takes: readonly AnalysedTake[]): Measurement[] {
  const counted = takes.flatMap(({ role, clip }) => {
    const found = SHOWS_NO_DROP_OUTS.includes(role) ? undefined : clip.find((m) => m.quantity === 'dropOuts');
    return found && found.value !== null ? [{ role, found, count: found.value }] : [];
  });
  if (counted.length === 0) return [];
  const total = counted.reduce((sum, { count }) => sum + count, 0);
  const roles = new Map<string, number>();
  for (const { role, count } of counted) if (count > 0) roles.set(role, (roles.get(role) ?? 0) + count);
  const where = [...roles].map(([role, count]) => `${role} ${count}`).join(', ');
  const takesText = `${counted.length} ${counted.length === 1 ? 'take' : 'takes'}`;
  const longest = Math.max(0, ...counted.map(({ found }) => Number(found.settings['longestMs'] ?? 0)));
  return [
    measured(
      'dropOuts',
      total,
      `${counted[0].found.condition}, all of ${takesText}${where === '' ? '' : `: ${where}`}`,
      { settings: longest === 0 ? {} : { longestMs: longest } },
    ),
  ];
}

function sweepFigures(takes: readonly AnalysedTake[]): {
  measurements: Measurement[];
  response: RunCurves['response'];
  polar: RunCurves['polar'];
} {
  const byAngle = new Map<number, TakeResponse>();
  for (const take of takes) if (take.role === 'sweep' && take.response) byAngle.set(take.angleDeg ?? 0, take.response);
  const front = byAngle.get(0);
  if (!front) return { measurements: [], response: null, polar: null };
  const { points, lowestValidHz, gateMs } = front;
  const turned = [...byAngle].flatMap(([angleDeg, r]) => (angleDeg === 0 ? [] : [{ angleDeg, points: r.points }]));
  const levels = turned.length === 0 ? null : polarLevels(points, turned);
  return {
    measurements: [...sweepMeasurements(front, '0°'), ...(levels ? polarMeasurements(levels) : [])],
    response: { points, lowestValidHz, gateMs },
    polar: levels && {
      levels,
      pattern: patternOfLevels(levels),
    },
  };
}

/** The short line at the usual distance: the very close take says the same words, which the passage does not. */
function normalDistance(takes: readonly AnalysedTake[]): AnalysedTake | undefined {
  const usual = (t: AnalysedTake): number => Math.abs(Math.log((t.distanceM ?? NaN) / USUAL_DISTANCE_M));
  return takes
    .filter((t) => t.role === 'distance' && usual(t) < Math.LN2)
    .reduce<AnalysedTake | undefined>((best, t) => (best && usual(best) <= usual(t) ? best : t), undefined);
}

function proximityFigure(close: AnalysedTake, normal: AnalysedTake, silence: AnalysedTake | undefined): Measurement {
  const noiseAt = (gainDb: number): BandLevel[] =>
    (silence?.noise?.thirdOctave ?? []).map((b) => ({
      ...b,
      levelDbfs: b.levelDbfs === null ? null : b.levelDbfs + gainDb - (silence?.gainDb ?? 0),
    }));
  const take = (t: AnalysedTake, fallbackM: number) => ({
    distanceM: t.distanceM ?? fallbackM,
    thirdOctave: t.thirdOctave,
    speechS: t.speechS,
    noise: noiseAt(t.gainDb),
  });
  return proximityEffect(take(close, CLOSE_DISTANCE_M), take(normal, USUAL_DISTANCE_M));
}

/** Levels of speech by distance at equal gain; null for a run without distance takes. */
function distanceLadder(takes: readonly AnalysedTake[], silence: AnalysedTake | undefined): Rung[] | null {
  const rungs = takes.filter((t) => t.distanceM !== null && t.role === 'distance' && t.speechS > 0);
  if (rungs.length === 0) return null;
  return rungs.flatMap((take) => {
    const noise = silence?.stepPowers.length
      ? mean(silence.stepPowers) * 10 ** ((take.gainDb - silence.gainDb) / 10)
      : 0;
    const { power } = gatedLoudness(take.stepPowers, noise);
    const isClear = power > 0 && powerToDb(power / noise) >= LEAST_ABOVE_NOISE_DB;
    return isClear ? [{ distanceM: take.distanceM ?? 0, db: powerToDb(power) - take.gainDb }] : [];
  });
}
