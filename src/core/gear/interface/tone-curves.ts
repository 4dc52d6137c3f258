import { isNoiseLimited } from '../../measure/tone-distortion';
import type { AnalysedTake, ChannelsAtFrequency, DistortionAtLevel, RunCurves } from '../run/analysed-take';
import { isToneAlone } from './tone-figures';
import { crosstalkOf, isSameTone, tonesByFrequency, tonesByLevel } from './tones-of-role';

/**
 * Distortion of a tone of 1 kHz over its level, re the tone; null where fewer than two levels were recorded.
 *
 * @param takes - of the run: role "full-tone", at whatever levels
 */
export function distortionByLevel(takes: readonly AnalysedTake[]): RunCurves['distortionByLevel'] {
  const points = tonesByLevel(takes, 'full-tone')
    .filter((tone) => !tone.isClipped && isToneAlone(tone))
    .map(({ distortion, thd, thdPlusNoise }): DistortionAtLevel => ({
      levelDbfs: distortion.levelDbfs,
      thdPlusNoiseDb: thdPlusNoise.db,
      thdPlusNoiseU: thdPlusNoise.u,
      thdDb: thd.db,
      thdU: thd.u,
      thdBound: isNoiseLimited(distortion) ? 'at-most' : 'exact',
    }));
  return points.length < 2 ? null : points;
}

/**
 * Crosstalk and balance of two channels over frequency; null where fewer than two frequencies were recorded.
 *
 * @param takes - of the run: roles "one-channel" and "both-channels", with tones of whatever frequency
 */
export function channelsByFrequency(takes: readonly AnalysedTake[]): RunCurves['channelsByFrequency'] {
  const alone = (role: string) => tonesByFrequency(takes, role).filter((t) => !t.isClipped && isToneAlone(t));
  const [one, both] = [alone('one-channel'), alone('both-channels')];
  const tones = [...one, ...both.filter((b) => !one.some((o) => isSameTone(o, b)))].sort((a, b) => a.distortion.hz - b.distortion.hz); // prettier-ignore
  const points = tones.map((tone): ChannelsAtFrequency => {
    const fed = one.find((o) => isSameTone(o, tone));
    const same = both.find((b) => isSameTone(b, tone));
    const crosstalk = fed && crosstalkOf(fed);
    return {
      hz: tone.distortion.hz,
      crosstalkDb: crosstalk?.db ?? null,
      crosstalkBound: crosstalk?.bound ?? 'exact',
      balanceDb: same ? same.channelsDbfs[1] - same.channelsDbfs[0] : null,
    };
  });
  return points.length < 2 ? null : points;
}
