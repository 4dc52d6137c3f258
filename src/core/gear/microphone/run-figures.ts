import { distanceMeasurements, fitDistanceLadder, type Rung } from '../../measure/distance-ladder';
import { handlingNoise } from '../../measure/knocks';
import { notMeasured, type Measurement } from '../../measure/measurement';
import { noiseReSpeech } from '../../measure/noise-re-speech';
import { rearRejection } from '../../measure/rear-rejection';
import { roomMeasurements, type RoomReport } from '../../measure/room-acoustics';
import { selfNoise } from '../../measure/self-noise';
import { heldAgainstPauses } from '../../measure/silence-against-pauses';
import { windNoise } from '../../measure/wind';
import {
  lastTake,
  NO_CURVES,
  type AnalysedTake,
  type RunChain,
  type RunCurves,
  type RunFigures,
} from '../run/analysed-take';
import { clipFigures } from '../run/clip-figures';
import { dropOutFigure } from '../run/drop-out-figure';
import { sweepFigures } from '../run/sweep-figures';
import { gained, isRefused } from '../run/gained-take';
import { fieldFigures, linkFigures, windBySpeed, windOf } from './field-figures';
import { radioFigure, runningTime } from './link-endurance';
import { acousticReference } from './acoustic-reference';
import { distanceLadder, ladderTakes, normalDistance, proximityFigure } from './distance-figures';
import { driveFigures } from './drive-figures';
import { rangeWalk } from './range-walk';
import type { RunTable } from '../run/run-table';

const NO_SPEECH = 'No speech was found in the speech take: is it the right file?';
/** Figures of single clips that say something of the unit, and the role of the take that they are read from. */
const UNIT_FIGURES = [
  ['sibilance', 'speech'],
  ['hum', 'silence'],
  ['interference', 'silence'],
  ['plosives', 'plosive'],
] as const;

/** Roles whose figures are told as missing where the protocol asks for them and the run does not have them. */
const EXPECTED_ROLES: ReadonlySet<string> = new Set(['speech', 'rear']);

/**
 * The figures and curves that take several clips of one run of anything that sound is picked up with. Where a step was
 * taken more than once, the last take counts. Figures of steps that the run does not have are left out, but for those
 * that its protocol promises: noise re speech and rejection are then not measured, with the reason.
 *
 * @param takes - all takes of the run
 * @param chain - what is known of interface and unit
 * @param planned - roles that the protocol has steps of
 * @param tables - moments of a range walk, running times, by the role of their step
 */
export function pickupRunFigures(
  takes: readonly AnalysedTake[],
  chain: RunChain = { fullScaleDbu: null, claimedSensitivityMvPa: null },
  planned: ReadonlySet<string> = EXPECTED_ROLES,
  tables: ReadonlyMap<string, RunTable> = new Map(),
): RunFigures {
  const last = (role: string): AnalysedTake | undefined => lastTake(takes, role);
  const [speech, silence, rear, calibration] = ['speech', 'silence', 'rear', 'calibration'].map(last);
  const sweeps = sweepFigures(takes);
  const room = last('room')?.response?.room ?? null;
  const ladder = ladderOf(takes, silence);
  const close = last('close');
  const normal = normalDistance(takes) ?? speech;
  const [handling, wind] = [last('handling'), last('wind')];
  const [walked, moments] = [last('range-walk'), tables.get('range-marks')];
  const walk = walked?.drops && moments ? rangeWalk(walked.drops, moments) : null;
  const measurements: Measurement[] = [
    ...(speech || planned.has('speech') ? noiseFigures(speech, silence ?? speech) : []),
    ...(rear || planned.has('rear') ? [rejectionFigure(speech, rear, silence)] : []),
    ...driveFigures(speech, calibration, chain),
    ...(silence ? selfNoiseFigure(silence, speech, calibration, chain) : []),
    ...clipFigures(takes, UNIT_FIGURES),
    ...dropOutFigure(takes),
    ...sweeps.measurements,
    ...(room ? roomMeasurements(room) : []),
    ...(close && normal ? [proximityFigure(close, normal, silence)] : []),
    ...(ladder ? distanceMeasurements(ladder) : []),
    ...(handling && speech ? handlingFigures(handling, speech) : []),
    ...(wind && speech ? windFigures(wind, speech) : []),
    ...(speech ? fieldFigures(takes, speech) : []),
    ...linkFigures(last('range-walk')),
    ...radioFigure(last('radio')),
    ...runningTime(tables.get('endurance')),
    ...(walk?.measurements ?? []),
  ];
  const fit = ladder ? fitDistanceLadder(ladder) : null;
  return {
    measurements,
    curves: {
      ...NO_CURVES,
      response: sweeps.response,
      polar: sweeps.polar,
      distance: ladder && fit ? { rungs: ladder, fit } : null,
      room: room && roomCurve(room),
      holesByDistance: walk?.holes ?? null,
      windBySpeed: speech ? windBySpeed(takes, speech) : null,
    },
  };
}

/** JSON knows no infinity: a decay without noise under it has headroom beyond all that is told. */
const roomCurve = ({ octaves }: RoomReport): RunCurves['room'] => ({
  octaves: octaves.map((o) => ({ ...o, headroomDb: Math.min(999, o.headroomDb) })),
});

function noiseFigures(speech: AnalysedTake | undefined, silence: AnalysedTake | undefined): Measurement[] {
  let reason = speech ? NO_SPEECH : 'The run has no speech take.';
  if (speech && silence && speech.speechS > 0) {
    const both = gained(speech, silence);
    if (!isRefused(both)) return noiseReSpeech(both[0], { ...both[1], noise: heldAgainstPauses(both[1], both[0]) });
    reason = both.refused;
  }
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
  if (speech && rear && silence) {
    const all = gained(speech, rear, silence);
    return isRefused(all)
      ? notMeasured('rearRejection', condition, all.refused)
      : rearRejection(all[0], all[1], all[2]);
  }
  return notMeasured('rearRejection', condition, `The run lacks: ${missing}.`);
}

function selfNoiseFigure(
  silence: AnalysedTake,
  speech: AnalysedTake | undefined,
  calibration: AnalysedTake | undefined,
  chain: RunChain,
): Measurement[] {
  const found = acousticReference(silence, calibration, chain);
  if (!found) return [];
  if (isRefused(found)) return [notMeasured('selfNoise', 'A-weighted', found.refused)];
  const both = speech ? gained(silence, speech) : null;
  const noise = both && !isRefused(both) ? heldAgainstPauses(both[0], both[1]) : silence.noise;
  return [selfNoise(noise, found.gainDb, found.reference)];
}

/** Takes at noted distances whose levels can be held against each other; null where there are none. */
function ladderOf(takes: readonly AnalysedTake[], silence: AnalysedTake | undefined): Rung[] | null {
  const rungs = ladderTakes(takes);
  if (rungs.length === 0) return null;
  const all = gained(...rungs, ...(silence ? [silence] : []));
  if (isRefused(all)) return null;
  return distanceLadder(all.slice(0, rungs.length), silence && all[rungs.length]);
}

function handlingFigures(handling: AnalysedTake, speech: AnalysedTake): Measurement[] {
  const both = gained(handling, speech);
  if (isRefused(both))
    return (['handlingZ', 'handlingA'] as const).map((id) => notMeasured(id, 're speech, equal gain', both.refused));
  return handlingNoise(handling.loudest, both[0].gainDb, speech.loudness.integratedLufs, both[1].gainDb);
}

function windFigures(wind: AnalysedTake, speech: AnalysedTake): Measurement[] {
  const both = gained(wind, speech);
  if (isRefused(both))
    return (['windLow', 'windA'] as const).map((id) => notMeasured(id, 're speech, equal gain', both.refused));
  return windNoise(windOf(both), speech.loudness.integratedLufs, both[1].gainDb);
}
