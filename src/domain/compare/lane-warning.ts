import { comparableBetween } from '#core/rules/comparability';
import type { Protocol } from '#contracts/protocol';
import type { ComparedTake } from './compared-take';

type Named = Pick<ComparedTake, 'step' | 'stepTitle' | 'protocol' | 'protocolVersion' | 'rig'>;

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
  return reasons.join(' ') || null;
}
