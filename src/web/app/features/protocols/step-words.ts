import { gainText, playKindOf } from '#core/rules/compare-versions';
import { TAKE_CHECKS } from '#core/rules/take-checks/take-check';
import { quantity, isQuantity } from '#core/measure/registry';
import type { Step } from '#contracts/protocol';
import { formatNumber } from '../../ui/format';

const PLAY_WORDS: Readonly<Record<string, string>> = {
  text: 'read the passage',
  phrase: 'say a line',
  sung: 'sing a line',
  sweep: 'play the sweep',
  noise: 'play noise',
  tone: 'play a tone',
  recording: 'play the recorded performance',
  silence: 'silence',
  knocks: 'knock',
  walk: 'move',
  wind: 'in wind',
  table: 'fill in a table',
};

/** What is said or played, in words. */
export const playWords = (step: Step): string => PLAY_WORDS[playKindOf(step)] ?? playKindOf(step);

/** The conditions of a step in short lines. */
export function conditionsOf(step: Step): { name: string; value: string }[] {
  const lines: { name: string; value: string }[] = [{ name: 'Gain', value: gainText(step.gain) }];
  if (step.lengthS) {
    lines.push({
      name: 'Length',
      value: `${Number(step.lengthS.least.toFixed(1))} to ${formatNumber(step.lengthS.most, 0)} s`,
    });
  }
  if (step.repeats > 1) lines.push({ name: 'Repeats', value: String(step.repeats) });
  if (step.voices.length > 0) lines.push({ name: 'Voices', value: step.voices.join(', ') });
  if (step.accessories.length > 0) lines.push({ name: 'With', value: step.accessories.join(', ') });
  if (step.pair) lines.push({ name: 'Pair', value: `${step.pair.varies}; the other half is "${step.pair.step}"` });
  if (step.levelDbSpl !== null) lines.push({ name: 'Calibrator', value: `${step.levelDbSpl} dB SPL` });
  if (step.levelDbu !== null)
    lines.push({ name: 'Tone at the input', value: `${step.levelDbu} dBu`.replace('-', '−') });
  if (step.table) {
    const { rows, columns, cell, unit, rowName, columnName } = step.table;
    lines.push({
      name: 'Table',
      value: `${cell} in ${unit}: ${rows.length} × ${columns.length} (${rowName.toLowerCase()} by ${columnName.toLowerCase()})`,
    });
  }
  const limits = step.checks.filter((c) => c.limit !== null);
  if (limits.length > 0)
    lines.push({
      name: 'Limits',
      value: limits.map((c) => `${TAKE_CHECKS[c.check].toLowerCase()} ${c.limit}`).join(', '),
    });
  const figures = step.measures.filter(isQuantity);
  if (figures.length > 0) lines.push({ name: 'Gives', value: figures.map((m) => quantity(m).name).join('; ') });
  return lines;
}
