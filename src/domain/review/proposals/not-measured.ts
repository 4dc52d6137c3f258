import { isQuantity, quantity, type QuantityId } from '#core/measure/registry';
import { inSentence, plainProposal, type ProposingRule } from '../review-facts';

/** What its kind is tested for, by its lists and its rules, and what of that this unit has no figure of. */
export const notMeasured: ProposingRule = ({ own, kind, rubric }) => {
  const byRules = (rubric?.criteria ?? []).flatMap((c): QuantityId[] => (c.kind === 'measured' ? [c.quantity] : []));
  const asked = [...new Set<string>([...kind.keyFigures, ...byRules])].filter(isQuantity);
  const figures = asked.flatMap((id) => {
    const fact = own.figures[id];
    if (fact && fact.value !== null) return [];
    const why = fact?.notMeasured ?? 'No take of it says so.';
    return [plainProposal('notTested', 'not-measured', id, `Not measured: ${inSentence(id)}`, `${quantity(id).name}: ${why}`, 'measured')]; // prettier-ignore
  });
  const isHeard = rubric?.criteria.some((c) => c.kind === 'heard') === true && !own.heard;
  return isHeard ? [...figures, plainProposal('notTested', 'not-measured', 'heard', 'Not heard blind', 'No blind answer names it', 'heard')] : figures; // prettier-ignore
};
