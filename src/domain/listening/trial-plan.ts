import { balancedOrder } from '#core/rules/listening/balanced-order';
import { drawHeats, heatCount, nextRound } from '#core/rules/listening/heats';
import { sequentialAbx } from '#core/stats/abx';
import { seededBits, uniform } from '#core/stats/random';
import { shuffled } from '#core/stats/shuffle';
import type { ItemRole, NewTest, TrialDocument } from '#contracts/listening';

/** An item as trials are made of it. */
export interface PlanItem {
  readonly id: string;
  readonly role: ItemRole;
}

/** A listener's place in the test, and their own chance. */
export interface Seat {
  readonly ordinal: number;
  /** Not known to the listener: with it they could work out the key. */
  readonly seed: string;
  /** The same for all listeners of a test, so that their heats can be compared. */
  readonly testSeed: string;
}

/** A trial that was answered: what was asked, and items in the order of the answer where it is an order. */
export interface AnsweredTrial {
  readonly trial: TrialDocument;
  readonly order: readonly string[];
  readonly isRight: boolean | null;
}

/** More would tire any ear. */
const MOST_FAMILIAR = 8;
const MOST_OPEN_ENDED = 60;

/** Whether an item is a unit that is compared; the others are copies that check the listener or mark the scale. */
export const isRanked = ({ role }: Pick<PlanItem, 'role'>): boolean =>
  role === 'unit' || role === 'yardstick' || role === 'reference';
/** Low-passed copies are made of the others. */
export const isCopy = (item: Pick<PlanItem, 'role'>): boolean => !isRanked(item);

/** Whether no sitting has trials of its own to go through: answers come from elsewhere, or turn by turn. */
export const isHeldElsewhere = ({ design }: Pick<NewTest, 'design'>): boolean =>
  design === 'performer' || design === 'panel' || design === 'pack';

/** Trials with which a sitting begins. */
export function firstTrials(test: NewTest, items: readonly PlanItem[], seat: Seat): TrialDocument[] {
  const ranked = items.filter(isRanked).map((i) => i.id);
  const familiar = offered(ranked.slice(0, MOST_FAMILIAR), seat, 'familiar');
  const familiarise: TrialDocument[] = isHeldElsewhere(test) ? [] : [{ kind: 'familiarise', items: familiar }];
  switch (test.design) {
    case 'heats':
      return [...familiarise, ...heats(drawHeats(ranked, test.heatSize, test.seeding, seat.testSeed), seat, 1)];
    case 'pairs':
      return [...familiarise, ...withControls(pairs(ranked, seat), controlTrials(test, items, seat), seat)];
    case 'abx':
      return [...familiarise, ...(test.openEnded ? [abx(ranked, seat, 0)] : abxBlock(ranked, test.trials, seat))];
    case 'names':
      return [...familiarise, { kind: 'names', items: offered(ranked, seat, 'names') }];
    case 'ratings': {
      const reference = items.find((i) => i.role === 'reference')?.id ?? ranked[0];
      const rated = items.filter((i) => i.role !== 'known-worse').map((i) => i.id);
      return [...familiarise, { kind: 'ratings', items: offered(rated, seat, 'ratings'), reference }];
    }
    case 'performer':
    case 'panel':
    case 'pack':
      return [];
  }
}

/** What follows when everything asked so far is answered: the next round of heats, controls, one more ABX trial. */
export function followingTrials(
  test: NewTest,
  items: readonly PlanItem[],
  seat: Seat,
  answered: readonly AnsweredTrial[],
): TrialDocument[] {
  if (test.design === 'abx' && test.openEnded) {
    const rights = answered.flatMap((a) => (a.isRight === null ? [] : [a.isRight]));
    const ranked = items.filter(isRanked).map((i) => i.id);
    const isOpen = sequentialAbx(rights).verdict === 'go-on' && rights.length < MOST_OPEN_ENDED;
    return isOpen ? [abx(ranked, seat, rights.length)] : [];
  }
  if (test.design !== 'heats') return [];
  const orders = answered.filter((a) => a.trial.kind === 'order');
  const round = Math.max(...orders.map((a) => (a.trial.kind === 'order' ? a.trial.round : 0)));
  const last = orders.filter((a) => a.trial.kind === 'order' && a.trial.round === round).map((a) => a.order);
  const next = heats(nextRound(last, test.heatSize, `${seat.seed}/round ${round}`), seat, round + 1);
  if (next.length > 0) return next;
  const isChecked = answered.some((a) => a.trial.kind === 'pair');
  return isChecked ? [] : controlTrials(test, items, seat);
}

/** How many trials a sitting will have, as far as that is known. */
export function expectedTrials(test: NewTest, items: readonly PlanItem[], planned: number): number {
  if (test.design !== 'heats') return planned;
  const ranked = items.filter(isRanked).length;
  const controls = test.controls ? 1 + (items.some((i) => i.role === 'known-worse') ? 1 : 0) : 0;
  return Math.max(planned, 1 + heatCount(ranked, test.heatSize) + controls);
}

function heats(groups: readonly (readonly string[])[], seat: Seat, round: number): TrialDocument[] {
  return groups
    .filter((group) => group.length > 1)
    .map((group, i) => ({
      kind: 'order',
      items: offered(group, seat, `heat ${round}/${i}`),
      round,
      isFinal: groups.length === 1,
    }));
}

/** Balanced over listeners: a row of a Williams square, over items shuffled alike for all. */
function offered(ids: readonly string[], seat: Seat, what: string): string[] {
  const base = shuffled(ids, `${seat.testSeed}/${what}`);
  return balancedOrder(base.length, seat.ordinal).map((i) => base[i]);
}

/** All pairs in an order of the listener's own; each unit is heard first and second equally often over listeners. */
function pairs(ids: readonly string[], seat: Seat): TrialDocument[] {
  const all: [string, string][] = [];
  for (let a = 0; a < ids.length; a++)
    for (let b = a + 1; b < ids.length; b++)
      all.push((a + b + seat.ordinal) % 2 === 0 ? [ids[a], ids[b]] : [ids[b], ids[a]]);
  return shuffled(all, `${seat.seed}/pairs`).map((items) => ({ kind: 'pair', items, control: null }));
}

/** One clip against itself, and against its low-passed copy. */
function controlTrials(test: NewTest, items: readonly PlanItem[], seat: Seat): TrialDocument[] {
  if (!test.controls) return [];
  const bits = seededBits(`${seat.seed}/controls`);
  const ranked = items.filter(isRanked).map((i) => i.id);
  const same = ranked[Math.floor(uniform(bits) * ranked.length)];
  const worse = items.find((i) => i.role === 'known-worse')?.id;
  const trials: TrialDocument[] = [{ kind: 'pair', items: [same, same], control: 'same' }];
  // It is a copy of the first unit.
  if (worse)
    trials.push({
      kind: 'pair',
      items: uniform(bits) < 0.5 ? [ranked[0], worse] : [worse, ranked[0]],
      control: 'worse',
    });
  return trials;
}

function withControls(
  trials: readonly TrialDocument[],
  controls: readonly TrialDocument[],
  seat: Seat,
): TrialDocument[] {
  const bits = seededBits(`${seat.seed}/places`);
  const all = [...trials];
  for (const control of controls) all.splice(1 + Math.floor(uniform(bits) * all.length), 0, control);
  return all;
}

function abx(ids: readonly string[], seat: Seat, number: number): TrialDocument {
  const bits = seededBits(`${seat.seed}/abx ${number}`);
  return { kind: 'abx', items: [...ids], x: uniform(bits) < 0.5 ? ids[0] : ids[1] };
}

/** Independent draws, not a shuffled half-and-half: a listener who keeps count must not gain by it. */
const abxBlock = (ids: readonly string[], trials: number, seat: Seat): TrialDocument[] =>
  Array.from({ length: trials }, (_, i) => abx(ids, seat, i));
