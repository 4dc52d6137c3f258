import { plainProposal, type ProposingRule } from '../review-facts';

/** Parts without which it cannot be used. */
export const needs: ProposingRule = ({ sheet }) =>
  sheet.relations
    .filter((r) => r.kind === 'needs' && r.isOwn)
    .map((r) => {
      const name = r.other?.name ?? r.name;
      const use = r.uses.length === 0 ? '' : ` for ${r.uses.join(', ')}`;
      const price = r.price ? ` (${r.price.amount} ${r.price.currency}, ${r.price.date})` : '';
      return plainProposal('cons', 'needs', `needs ${name}`, `Needs ${name}${use}, which is not in the price`, `Needed${use || ' for every use'}: ${name}${price}`, 'prices'); // prettier-ignore
    });
