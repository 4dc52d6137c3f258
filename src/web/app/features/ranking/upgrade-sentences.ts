import { capital } from '#core/text/capital';
import { quantity } from '#core/measure/registry';
import { numberText } from '#core/text/read-number';
import type { UpgradeRule } from '#core/rules/rubric';
import type { UpgradeAdvice } from '#core/rules/upgrade-advice';
import { chanceText, figureText, formatPrice } from '../../ui/format';

/** A share as the rules give it, without digits that say nothing. */
const share = (p: number): string => numberText(Number((100 * p).toFixed(1)), { unit: '%' });

/** The rule of the verdict. */
export const upgradeRuleWords = ({ clearly, probably, mostMore }: UpgradeRule, currency: string | null): string =>
  `another unit is clearly better from ${share(clearly)}, probably from ${share(probably)}` +
  (mostMore === null || currency === null ? '' : `, and may cost ${formatPrice(mostMore, currency)} more`);

/**
 * Whether to go over from one unit to another, in sentences computed from what stands beside them.
 *
 * @param currency - of the rubric's price rule
 */
export function upgradeSentences(advice: UpgradeAdvice, currency: string): string[] {
  const cost =
    advice.costsMore === null
      ? 'what it costs more is not known'
      : advice.costsMore === 0
        ? 'at the same price'
        : `for ${formatPrice(Math.abs(advice.costsMore), currency)} ${advice.costsMore > 0 ? 'more' : 'less'}`;
  const { clearly, probably, mostMore } = advice.rule;
  const rule = `clearly from ${share(clearly)}, probably from ${share(probably)}, the price left out`;
  const tooDear =
    advice.isTooDear && mostMore !== null
      ? `, which is beyond the ${formatPrice(mostMore, currency)} that the rules allow`
      : '';
  const named = (isBetter: boolean | null): string =>
    advice.figures
      .filter((f) => f.isBetter === isBetter)
      .map((f) => {
        const { value: old } = figureText(f.quantity, { value: f.old });
        const { value, unit } = figureText(f.quantity, { value: f.new });
        return `${(quantity(f.quantity).shortName ?? quantity(f.quantity).name).toLowerCase()} ${old} → ${value} ${unit}`.trim();
      })
      .join(', ');
  const sentences = [`${capital(advice.verdict)} (${chanceText(advice.probability)}; ${rule}), ${cost}${tooDear}.`];
  const lines: readonly [string, string][] = [
    ['Measured better: ', named(true)],
    ['Measured worse: ', named(false)],
    ['Measured otherwise: ', named(null)],
    ['Gained: ', advice.gained.join(', ')],
    ['Lost: ', advice.lost.join(', ')],
  ];
  for (const [head, text] of lines) if (text !== '') sentences.push(`${head}${text}.`);
  if (advice.figures.length === 0) sentences.push('No figure of both differs by more than its uncertainty.');
  sentences.push(
    advice.heard === null
      ? 'They have not both been heard blind.'
      : `Preferred by ear with a probability of ${chanceText(advice.heard)}.`,
  );
  return sentences;
}
