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
import { reachedLimits } from '../run/reached-limits';
import { sweepFigures } from '../run/sweep-figures';
import type { Measurement } from '../../measure/measurement';
import type { RunTable } from '../run/run-table';
import { withDialGains } from './dial-gain';
import { directMonitor, inputImpedance } from './input-figures';
import { LOOPED, loopResponse } from './loop-response';
import { directLatency, latencyFigure, outputLatency } from './latency-figures';
import { dialFigures, headphoneNoise, headphoneOutput } from './table-figures';
import { channelsByFrequency, distortionByLevel } from './tone-curves';
import { toneFigures } from './tone-figures';
import { equivalentInputNoise } from './equivalent-input-noise';

/** Lines in the noise of the input itself. */
const UNIT_FIGURES = [
  ['hum', 'terminated'],
  ['interference', 'terminated'],
] as const;

/**
 * Figures and curves of one run of an interface or a preamp. Where a step was taken more than once, the last take
 * counts; of a terminated input at several gains, the
 * one at the highest.
 *
 * @param noted - all takes of the run; where their gain is a place of the dial, its table says how much that is
 * @param _chain - of no account: the unit is the chain
 * @param planned - roles that the protocol has steps of: its equivalent input noise is then told as missing
 * @param tables - latency, gain by dial, headphone output, by the role of their step
 */
export function lineRunFigures(
  noted: readonly AnalysedTake[],
  _chain: RunChain,
  planned: ReadonlySet<string>,
  tables: ReadonlyMap<string, RunTable> = new Map(),
): RunFigures {
  const takes = withDialGains(noted, tables.get('dial'));
  const tone = lastTake(takes, 'level-tone');
  const quiet = byGain(takes.filter((t) => t.role === 'terminated'));
  const terminated = quiet.at(-1);
  const sweeps = sweepFigures(takes, LOOPED);
  const from = (role: string, read: (table: RunTable) => Measurement[]): Measurement[] => {
    const table = tables.get(role);
    return table ? read(table) : [];
  };
  return {
    measurements: [
      ...(terminated || planned.has('terminated') ? equivalentInputNoise(terminated, tone) : []),
      ...clipFigures(takes, UNIT_FIGURES),
      ...dropOutFigure(takes),
      ...toneFigures(takes),
      ...loopResponse(takes),
      ...reachedLimits(sweeps.measurements, sweeps.response),
      ...from('latency', (table) => latencyFigure(table, 'latency')),
      ...from('latency-output', (table) => outputLatency(table, tables.get('latency'))),
      ...from('latency-direct', directLatency),
      ...from('dial', dialFigures),
      ...from('input-impedance', inputImpedance),
      ...from('direct-monitor', directMonitor),
      ...from('headphones', headphoneOutput),
      ...from('headphone-noise', (table) => headphoneNoise(table, tables.get('headphones'))),
    ],
    curves: {
      ...NO_CURVES,
      response: sweeps.response,
      noiseByGain: noiseByGain(quiet, tone),
      distortionByLevel: distortionByLevel(takes),
      channelsByFrequency: channelsByFrequency(takes),
    },
  };
}

/** Takes by rising gain, the last of each; those without decibels by the place where they stand, before all others. */
function byGain(takes: readonly AnalysedTake[]): AnalysedTake[] {
  const last = new Map(takes.map((t) => [t.gainDb ?? t.dial ?? '', t]));
  return [...last.values()].sort((x, y) => (x.gainDb ?? -Infinity) - (y.gainDb ?? -Infinity));
}

/** Input noise over gain, where more than one gain was recorded. */
function noiseByGain(quiet: readonly AnalysedTake[], tone: AnalysedTake | undefined): RunCurves['noiseByGain'] {
  const points = quiet.flatMap((take) => {
    const found = equivalentInputNoise(take, tone).find((m) => m.quantity === 'einA');
    return take.gainDb === null || !found || found.value === null
      ? []
      : [{ gainDb: take.gainDb, einADbu: found.value, u: found.uncertainty }];
  });
  return points.length < 2 ? null : points;
}
