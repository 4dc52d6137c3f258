import { fractionalOctaveBands } from '../../dsp/fractional-octave';
import type { FrequencyResponse } from '../../measure/frequency-response';
import { measured, notMeasured, type Measurement } from '../../measure/measurement';
import { meanOfPoints, type ResponseFigure } from '../../measure/response-summary';
import { mean, standardDeviation } from '../../stats/moments';

/** Where the level of a side is read: neither seal nor seating moves it much (common practice, no source). */
export const MIDDLE_HZ = [500, 2000] as const;
/** Below, the seal decides; above, the seating (common practice, no source). */
const COMPARED_HZ = [100, 8000] as const;

/** Mean level of a band; null where the response does not cover it. */
export function bandLevel(
  { points, lowestValidHz }: FrequencyResponse,
  [lowHz, highHz]: readonly [number, number],
): ResponseFigure | null {
  const inside = points.filter((p) => p.hz >= lowHz && p.hz < highHz && p.hz >= lowestValidHz);
  const [first, last] = [inside.at(0), inside.at(-1)];
  const covers = first && last && first.hz < lowHz * 1.06 && last.hz > highHz / 1.06;
  return covers && inside.every((p) => Number.isFinite(p.db)) ? meanOfPoints(inside) : null;
}

/** Level of a band over the seatings of one side: their mean, with the scatter of that mean and the noise. */
function overSeatings(seatings: readonly FrequencyResponse[], band: readonly [number, number]): ResponseFigure | null {
  const levels = seatings.map((s) => bandLevel(s, band));
  if (!levels.every((l) => l !== null)) return null;
  const values = levels.map((l) => l.value);
  const scatter = values.length < 2 ? 0 : standardDeviation(values) / Math.sqrt(values.length);
  return { value: mean(values), u: Math.hypot(scatter, Math.hypot(...levels.map((l) => l.u)) / levels.length) };
}

function apart(
  left: readonly FrequencyResponse[],
  right: readonly FrequencyResponse[],
  band: readonly [number, number],
): ResponseFigure | null {
  const [x, y] = [overSeatings(left, band), overSeatings(right, band)];
  return x && y ? { value: y.value - x.value, u: Math.hypot(x.u, y.u) } : null;
}

/**
 * How far the two sides are apart, in level and in the third octave where they differ most. With one seating of each,
 * seating and unit cannot be told apart, and no uncertainty is given.
 *
 * @param left - its seatings, one or more
 * @param right - its seatings, one or more
 */
export function sideMeasurements(
  left: readonly FrequencyResponse[],
  right: readonly FrequencyResponse[],
): Measurement[] {
  const where = `same artificial ear, ${seatings(left.length)} left, ${right.length} right`;
  const isRepeated = left.length > 1 && right.length > 1;
  const told = ({ u }: ResponseFigure): number | null => (isRepeated ? u : null);
  const level = apart(left, right, MIDDLE_HZ);
  const thirds = fractionalOctaveBands(3, ...COMPARED_HZ).map((band) => ({
    hz: Math.sqrt(band.lowHz * band.highHz),
    figure: apart(left, right, [band.lowHz, band.highHz]),
  }));
  const known = thirds.flatMap(({ hz, figure }) => (figure ? [{ hz, ...figure }] : []));
  const largest = known.length < thirds.length ? null : known.reduce((a, b) => (Math.abs(b.value) > Math.abs(a.value) ? b : a)); // prettier-ignore
  return [
    level
      ? measured('sideLevel', level.value, `500 Hz–2 kHz, ${where}`, { uncertainty: told(level) })
      : notMeasured('sideLevel', where, 'The sweeps do not cover 500 Hz–2 kHz.'),
    largest
      ? measured('sideDifference', Math.abs(largest.value), `third octave of ${nominal(largest.hz)}, ${largest.value > 0 ? 'right' : 'left'} louder, ${where}`, { uncertainty: told(largest) }) // prettier-ignore
      : notMeasured('sideDifference', where, 'The sweeps do not cover 100 Hz–8 kHz.'),
  ];
}

const seatings = (n: number): string => `${n} ${n === 1 ? 'seating' : 'seatings'}`;
const nominal = (hz: number): string => (hz < 1000 ? `${Math.round(hz)} Hz` : `${Math.round(hz / 100) / 10} kHz`);
