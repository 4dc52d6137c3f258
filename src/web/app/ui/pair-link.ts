import type { HeardPair } from '#contracts/curves';

/** Where a pair is heard: the take without the part first, since that is the zero line. */
export const pairLink = ({ without, fitted, match }: HeardPair): Record<string, string> => ({
  takes: `${without},${fitted}`,
  ...(match === 'gain' ? { match } : {}),
});
