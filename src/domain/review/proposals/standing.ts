import { unitName } from '#contracts/unit-name';
import { plainProposal, type ProposingRule } from '../review-facts';

/** Fewer ranked units have no top. */
const LEAST_STRATA = 2;

/** The top stratum, or the bottom one, of a ranking that has several. */
export const standing: ProposingRule = ({ own, names, standing: { ranked } }, house) => {
  const place = ranked.find((u) => u.id === own.id);
  const lowest = ranked.at(-1)?.stratum ?? 0;
  if (!place || lowest < LEAST_STRATA || ranked.length < house.leastUnits) return [];
  const { stratum } = place;
  if (stratum !== 1 && stratum !== lowest) return [];
  const peers = ranked.filter((u) => u.stratum === stratum && u.id !== own.id).map((u) => unitName(names[u.id]));
  const shared = peers.length === 0 ? 'alone' : `beside ${peers.slice(0, 3).join(', ')}${peers.length > 3 ? ` and ${peers.length - 3} more` : ''}`; // prettier-ignore
  const [where, part] = stratum === 1 ? (['top', 'pros'] as const) : (['lowest', 'cons'] as const);
  return [
    plainProposal(
      part,
      'standing',
      'stratum',
      `In the ${where} stratum of ${ranked.length} units, ${shared}`,
      `Stratum ${stratum} of ${lowest}; place ${place.place} of ${ranked.length}, with 90 % probability ${place.rank90[0]} to ${place.rank90[1]}`,
      'points',
      where,
    ),
  ];
};
