import { quantity } from '#core/measure/registry';
import { figureWords, inSentence, plainProposal, type ProposingRule } from '../review-facts';

/** Figures that no other unit of the kind equals: the record alone, beyond doubt, of figures that are known to be sure. */
export const holdsRecord: ProposingRule = (facts, house) => {
  return facts.standing.records.flatMap(({ quantity: id, steps, ties }) => {
    const holder = steps.at(-1);
    const with_ = facts.units.filter((u) => (u.figures[id]?.value ?? null) !== null).length;
    if (holder?.unit !== facts.own.id || holder.spread === 0 || ties.length > 0 || with_ < house.leastUnits) return [];
    const figure = figureWords(id, facts.own.figures[id]);
    return [
      plainProposal(
        'pros',
        'record',
        id,
        `The best ${inSentence(id)} of ${with_} measured: ${figure}`,
        `${quantity(id).name} ${figure}; no other of ${with_} comes within what both leave open`,
        'measured',
        figure,
      ),
    ];
  });
};
