import { capital } from '#core/text/capital';
import { quantity } from '#core/measure/registry';
import { UPGRADE_RULE, type UpgradeAdvice } from '#core/rules/upgrade-advice';
import { chanceText, figureText, formatPrice } from '../../ui/format';

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
  const named = (isBetter: boolean | null): string =>
    advice.figures
      .filter((f) => f.isBetter === isBetter)
      .map((f) => {
        const { value: old } = figureText(f.quantity, { value: f.old });
        const { value, unit } = figureText(f.quantity, { value: f.new });
        return `${(quantity(f.quantity).shortName ?? quantity(f.quantity).name).toLowerCase()} ${old} → ${value} ${unit}`.trim();
      })
      .join(', ');
  const sentences = [`${capital(advice.verdict)} (${chanceText(advice.probability)}; ${UPGRADE_RULE}), ${cost}.`];
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
