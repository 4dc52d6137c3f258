import { lastTake, NO_CURVES, type AnalysedTake, type RunChain, type RunFigures } from '../run/analysed-take';
import { clipFigures } from '../run/clip-figures';
import { dropOutFigure } from '../run/drop-out-figure';
import { sweepFigures } from '../run/sweep-figures';
import { equivalentInputNoise } from './equivalent-input-noise';

/** Lines in the noise of the input itself. */
const UNIT_FIGURES = [
  ['hum', 'terminated'],
  ['interference', 'terminated'],
] as const;

/**
 * Figures and curves of one run of an interface or a preamp. Where a step was taken more than once, the last take
 * counts.
 *
 * @param takes - all takes of the run
 * @param _chain - of no account: the unit is the chain
 * @param planned - roles that the protocol has steps of: its equivalent input noise is then told as missing
 */
export function lineRunFigures(
  takes: readonly AnalysedTake[],
  _chain: RunChain,
  planned: ReadonlySet<string>,
): RunFigures {
  const terminated = lastTake(takes, 'terminated');
  const sweeps = sweepFigures(takes);
  return {
    measurements: [
      ...(terminated || planned.has('terminated')
        ? equivalentInputNoise(terminated, lastTake(takes, 'level-tone'))
        : []),
      ...clipFigures(takes, UNIT_FIGURES),
      ...dropOutFigure(takes),
      ...sweeps.measurements,
    ],
    curves: { ...NO_CURVES, response: sweeps.response },
  };
}
