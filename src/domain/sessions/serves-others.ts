import { gearKind, gearKindIds } from '#core/gear/kinds';
import { servedKinds, type Protocol } from '#contracts/protocol';

/** The name of a kind within a sentence; of one that is not known, as it was written. */
const kindWord = (kind: string): string => {
  const known = gearKindIds().find((id) => id === kind);
  return known === undefined ? kind : gearKind(known).name.toLowerCase();
};

/**
 * That a protocol does not serve a kind of gear, and which ones it does.
 *
 * @param name - of the protocol, as whoever reads it knows it
 */
export const servesOthers = (name: string, protocol: Pick<Protocol, 'category' | 'alsoFor'>, kind: string): string =>
  `“${name}” is a protocol for ${servedKinds(protocol).map(kindWord).join(' and ')}, not for ${kindWord(kind)}`;
