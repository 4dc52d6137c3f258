import type { WhyAbove } from '#core/rules/why-above';
import { formatNumber } from '../../ui/format';

/** A weight that is shown is rounded away from the turn: at what is shown, the order has turned. */
const WEIGHT_DECIMALS = 1;

/**
 * What would have to change for the order of two units to turn.
 *
 * @param why - as it was computed
 * @param criterionName - of an id
 * @param first - name of the unit that is asked about first
 * @param second - name of the other one
 */
export function turningSentences(
  why: WhyAbove,
  criterionName: (id: string) => string,
  first: string,
  second: string,
): string[] {
  if (Math.abs(why.difference) < 5e-13) return ['They stand equal.'];
  const sentences: string[] = [];
  const { weight, points } = why;
  if (weight) {
    const step = 10 ** -WEIGHT_DECIMALS;
    const beyond = weight.to > weight.from ? Math.ceil(weight.to / step) : Math.floor(weight.to / step);
    const way = weight.to > weight.from ? 'above' : 'below';
    sentences.push(
      `The order turns where ${criterionName(weight.criterion)} counts ${way} ${formatNumber(Math.max(0, beyond * step), WEIGHT_DECIMALS)} instead of ${formatNumber(weight.from, WEIGHT_DECIMALS)}.`,
    );
  } else sentences.push('No weight alone turns the order.');
  if (points) {
    const unit = points.unit === 'second' ? second : first;
    const by = Math.ceil(points.by * 10) / 10;
    sentences.push(
      `Or where ${unit} had ${formatNumber(by, 1)} points ${points.gains ? 'more' : 'fewer'} in ${criterionName(points.criterion)}.`,
    );
  } else sentences.push('No criterion alone makes up for the difference.');
  return sentences;
}
