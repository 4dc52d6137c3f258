import { quantity } from '#core/measure/registry';
import { countingRun } from '../../catalogue/counting-run';
import { plainProposal, type ProposingRule } from '../review-facts';

/** A noise figure that was refused because a gate closes between the words says something of the unit. */
export const findings: ProposingRule = ({ sheet }) => {
  const refused = (countingRun(sheet.runs)?.run.measurements ?? []).filter(
    (m) => m.value === null && m.notMeasured !== null && /\bgate\b/i.test(m.notMeasured),
  );
  const first = refused.at(0);
  return first
    ? [plainProposal('cons', 'finding', 'gate', 'Closes a gate between the words, so its noise has no figure', `${quantity(first.quantity).name}: ${first.notMeasured ?? ''}`, 'measured')] // prettier-ignore
    : [];
};
