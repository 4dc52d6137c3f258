import { quantity, type QuantityId } from '#core/measure/registry';
import { isBetterBeyondDoubt } from '#core/rules/figures-apart';
import { figureWords, inSentence, measuredFigures, othersOf, plainProposal, type ProposingRule } from '../review-facts';

/** What is said of a figure that is better, and of one that is worse. */
const WORDS: Readonly<Partial<Record<QuantityId, readonly [string, string]>>> = {
  noiseReSpeechA: ['Quieter', 'Noisier'],
  noiseReSpeechZ: ['Quieter, unweighted,', 'Noisier, unweighted,'],
  selfNoise: ['Less noise of its own', 'More noise of its own'],
  einA: ['Quieter input', 'Noisier input'],
  gainToTarget: ['Needs less gain', 'Needs more gain'],
  rearRejection: ['Rejects more from behind', 'Rejects less from behind'],
  rejection90: ['Rejects more from the side (90°)', 'Rejects less from the side (90°)'],
  rejection180: ['Rejects more from straight behind (180°)', 'Rejects less from straight behind (180°)'],
  plosives: ['Fewer plosives', 'More plosives'],
  handlingA: ['Less handling noise', 'More handling noise'],
  usableDistance: ['Usable from farther away', 'Usable from less far'],
  rubLoudest: ['Less clothing rub', 'More clothing rub'],
  linkDropOuts: ['Fewer drop-outs', 'More drop-outs'],
  latencyFixed: ['Less latency beyond the buffers', 'More latency beyond the buffers'],
  outsideLessA: ['Takes more outside noise away', 'Takes less outside noise away'],
};

/** Figures that are better, or worse, than those of most units of the kind that have them, by more than both leave open. */
export const standsOut: ProposingRule = (facts, house) =>
  measuredFigures(facts.own).flatMap(([id, own]) => {
    const { better } = quantity(id);
    const others = othersOf(facts).flatMap((u) => ((u.figures[id]?.value ?? null) === null ? [] : [u.figures[id]]));
    if (better === null || others.length + 1 < house.leastUnits) return [];
    const ahead = others.filter((o) => isBetterBeyondDoubt(own, o, better)).length;
    const behind = others.filter((o) => isBetterBeyondDoubt(o, own, better)).length;
    const isPro = 100 * ahead >= house.standsOutPercent * others.length;
    const isCon = 100 * behind >= house.standsOutPercent * others.length;
    if (!isPro && !isCon) return [];
    const count = isPro ? ahead : behind;
    const [good, bad] = WORDS[id] ?? [`Better in ${inSentence(id)}`, `Worse in ${inSentence(id)}`];
    const share = Math.floor((100 * count) / others.length);
    const figure = figureWords(id, own);
    return [
      plainProposal(
        isPro ? 'pros' : 'cons',
        'stands-out',
        id,
        `${isPro ? good : bad} than ${share} % of the others of its kind: ${figure}`,
        `${quantity(id).name} ${figure}; told apart from ${count} of ${others.length} others of its kind`,
        'measured',
        figure,
      ),
    ];
  });
