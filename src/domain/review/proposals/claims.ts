import { compareClaim, impossibleClaim } from '#core/gear/claim-comparison';
import { isQuantity, quantity } from '#core/measure/registry';
import { COVERAGE, spreadOf } from '#core/rules/figures-apart';
import { figureWords, plainProposal, type ProposingRule } from '../review-facts';

/** Claims that the measurement does not bear out, by more than it leaves open, to the maker's advantage; and those that nothing can keep. */
export const claims: ProposingRule = ({ own, sheet }) =>
  sheet.claims.flatMap((claim) => {
    if (!isQuantity(claim.quantity)) return [];
    const id = claim.quantity;
    const { name, better } = quantity(id);
    const claimed = `${claim.value} ${claim.unit}${claim.condition === '' ? '' : `, ${claim.condition}`}`.replace(
      '-',
      '−',
    );
    const beyond = impossibleClaim(claim);
    if (beyond !== null)
      return [plainProposal('cons', 'claim', id, `${name}: ${claimed} is claimed, which is ${beyond}`, `Claimed: ${claimed}; ${beyond}`, 'claims')]; // prettier-ignore
    const measured = own.figures[id];
    if (!measured || measured.value === null || measured.bound !== 'exact' || better === null) return [];
    const compared = compareClaim(claim, measured.value);
    if (!compared.comparable || compared.differenceInUnit === null) return [];
    const short = better === 'higher' ? -compared.differenceInUnit : compared.differenceInUnit;
    const spread = spreadOf(measured);
    if (spread === 0 || short <= COVERAGE * spread) return [];
    const figure = figureWords(id, measured);
    return [plainProposal('cons', 'claim', id, `${name}: ${claimed} is claimed, ${figure} was measured`, `Claimed: ${claimed}; measured: ${figure}`, 'claims')]; // prettier-ignore
  });
