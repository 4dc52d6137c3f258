import { measured, type Measurement } from '../../measure/measurement';
import type { AnalysedTake } from './analysed-take';

/** A calibrator's tone repeats itself by nature: what looks like a repeat there is none. */
const SHOWS_NO_DROP_OUTS = ['calibration', 'level-tone'];

/** Drop-outs of all takes that can show them, with where they are: one bad take is the unit's, whatever the others say. */
export function dropOutFigure(takes: readonly AnalysedTake[]): Measurement[] {
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
