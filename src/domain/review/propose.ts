import type { House, LineMark, Proposal, ProposalRule, RestsOn, ReviewDocument } from '#contracts/review';
import { claims } from './proposals/claims';
import { findings } from './proposals/findings';
import { forUse } from './proposals/for-use';
import { heard } from './proposals/heard';
import { hiddenLowCut } from './proposals/hidden-low-cut';
import { keptSums } from './proposals/kept-sums';
import { needs } from './proposals/needs';
import { notMeasured } from './proposals/not-measured';
import { betterBuy, frontier, turningPrice } from './proposals/price';
import { holdsRecord } from './proposals/record';
import { standing } from './proposals/standing';
import { standsOut } from './proposals/stands-out';
import type { ProposingRule, ReviewFacts } from './review-facts';

const RULES: Readonly<Record<ProposalRule, ProposingRule>> = {
  'stands-out': standsOut,
  record: holdsRecord,
  'hidden-low-cut': hiddenLowCut,
  claim: claims,
  finding: findings,
  needs: needs,
  standing: standing,
  heard: heard,
  frontier: frontier,
  'for-use': forUse,
  'better-buy': betterBuy,
  'turning-price': turningPrice,
  'not-measured': notMeasured,
  sum: keptSums,
};

/** What all rules say of a unit. */
export const propose = (facts: ReviewFacts, house: House): Proposal[] =>
  (Object.keys(RULES) as ProposalRule[]).flatMap((rule) => RULES[rule](facts, house));

/** What is offered of it: by the rules that are on. A record says what "better than most" would say again. */
export function offered(all: readonly Proposal[], house: Pick<House, 'rulesOff'>): Proposal[] {
  const on = all.filter((p) => !house.rulesOff.includes(p.restsOn.rule));
  const records = new Set(on.filter((p) => p.restsOn.rule === 'record').map((p) => p.restsOn.subject));
  return on.filter((p) => p.restsOn.rule !== 'stands-out' || !records.has(p.restsOn.subject));
}

/** What tells a proposal from all others of a unit. */
export const proposalKey = ({ rule, subject }: RestsOn): string => `${rule} ${subject}`;

/** Everything in a review that rests on a fact. */
export const restingLines = (document: ReviewDocument): RestsOn[] =>
  [
    ...document.pros,
    ...document.cons,
    ...document.uses,
    ...document.alternatives,
    ...document.notTested,
    ...document.sums,
    ...(document.turningPrice ? [document.turningPrice] : []),
  ].flatMap((line) => (line.restsOn ? [line.restsOn] : []));

/**
 * Lines whose facts say something else today than when they were taken, or nothing any more. Rules that are off are asked
 * all the same: what a line rests on does not hang on what is offered.
 *
 * @param document - as it is written
 * @param proposals - what all rules say today
 */
export function changedLines(document: ReviewDocument, proposals: readonly Proposal[]): LineMark[] {
  const today = new Map(proposals.map((p) => [proposalKey(p.restsOn), p.restsOn]));
  return restingLines(document).flatMap((restsOn): LineMark[] => {
    const now = today.get(proposalKey(restsOn)) ?? null;
    return now?.gist === restsOn.gist ? [] : [{ restsOn, now: now?.fact ?? null }];
  });
}
