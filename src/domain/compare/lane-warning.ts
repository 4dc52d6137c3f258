import { codecWords, isLossy } from '#core/audio/codec';
import { comparableBetween } from '#core/rules/comparability';
import type { Protocol } from '#contracts/protocol';
import type { ComparedTake } from './compared-take';

type Named = Pick<ComparedTake, 'step' | 'stepTitle' | 'protocol' | 'protocolVersion' | 'rig' | 'processing' | 'sound'>;

/**
 * What makes a take no fair companion of the one it is held against; null where nothing does.
 *
 * @param take - the one
 * @param zero - the other
 * @param versions - all versions of all protocols
 */
export function laneWarning(take: Named, zero: Named, versions: readonly Protocol[]): string | null {
  const reasons: string[] = [];
  if (take.step !== zero.step) reasons.push(`Another step: ${take.stepTitle}.`);
  else if (take.protocol !== zero.protocol) reasons.push(`Another protocol: ${take.protocol}.`);
  else {
    const own = versions.filter((v) => v.id === take.protocol);
    const verdict = comparableBetween(own, take.step, take.protocolVersion, zero.protocolVersion);
    if (!verdict.comparable) reasons.push(`Protocol version ${take.protocolVersion}: ${verdict.reason}`);
  }
  if (take.rig !== zero.rig)
    reasons.push(`Another rig: ${take.rig ?? 'not noted'}; part of what is heard may be the rig's.`);
  if (take.processing !== zero.processing)
    reasons.push(`${take.processing === null ? 'As it came, and the other processed' : 'Processed'}: ${take.processing ?? zero.processing}.`); // prettier-ignore
  const packed = [take, zero].find(({ sound }) => sound && isLossy(sound.codec))?.sound;
  if (packed && take.sound?.codec !== zero.sound?.codec)
    reasons.push(`One of the two came through ${codecWords(packed)}: part of what is heard may be the codec's.`);
  return reasons.join(' ') || null;
}
