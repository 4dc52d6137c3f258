import { atOneGain, takeGain } from '#core/rules/take-gain';
import { levelMatch, TRUE_PEAK_CEILING_DBTP } from '#core/measure/level-match';
import { dbtp, lufs } from '#core/units';
import type { CompareRequest } from '#contracts/compare';
import { TARGET_LUFS, type ComparedTake } from './compared-take';

/**
 * Gains that are applied to clips which are heard beside each other, none of which may bring one nearer to full scale
 * than the ceiling: then all are held back together.
 *
 * @param takes - in the order of the lanes
 * @param levels - loudness of each, LUFS; null for silence
 * @param match - by loudness, by the gain of the rig, or as they are
 * @returns decibels per take, the common loudness, the take that holds all down, and why the gains could not be evened
 *   out: all are heard as they are then
 */
export function appliedGains(
  takes: readonly Pick<ComparedTake, 'gainDb' | 'dial' | 'summary'>[],
  levels: readonly (number | null)[],
  match: CompareRequest['match'],
): { gains: number[]; targetLufs: number | null; heldBack: number | null; gainRefused: string | null } {
  const peaks = takes.map(({ summary }) => summary.loudness.truePeakDbtp ?? -144);
  if (match === 'loudness') {
    // A lane without loudness (silence) is shown with the others, at the gain that the first of them gets.
    const known = takes.flatMap((_, i) => (levels[i] === null ? [] : [i]));
    const { gainsDb, targetLufs, heldBackBy } = levelMatch(
      known.map((i) => ({ integratedLufs: lufs(levels[i] ?? 0), truePeakDbtp: dbtp(peaks[i]) })),
      TARGET_LUFS,
    );
    const gains = takes.map((_, i) => (known.includes(i) ? gainsDb[known.indexOf(i)] : Math.min(0, gainsDb[0] ?? 0)));
    return {
      gains,
      targetLufs: known.length > 0 ? targetLufs : null,
      heldBack: heldBackBy === null ? null : known[heldBackBy],
      gainRefused: null,
    };
  }
  // As it comes out: gains of the rig are evened out, so that one unit's sensitivity stays what it is.
  const noted = match === 'gain' ? atOneGain(takes.map((t) => takeGain(t.gainDb, t.dial))) : takes.map(() => 0);
  const gainRefused = 'refused' in noted ? noted.refused : null;
  const turned = 'refused' in noted ? takes.map(() => 0) : noted;
  const wanted = turned.map((gain) => Math.min(...turned) - gain);
  const over = wanted.map((gain, i) => peaks[i] + gain - TRUE_PEAK_CEILING_DBTP);
  const most = Math.max(0, ...over);
  return {
    gains: wanted.map((gain) => gain - most),
    targetLufs: null,
    heldBack: most > 0 ? over.indexOf(most) : null,
    gainRefused,
  };
}
