import type { DueUnit, PlanRow } from '#contracts/session-plan';
import type { SpecimenRow } from '#contracts/specimen';
import { daysBetween } from '../../ui/format';

/** What is to be done next with a unit, and where. */
export interface NextStep {
  readonly text: string;
  readonly action: string;
  /** Anchor on the unit's page, a screen that begins with the unit, or a review of it. */
  readonly to:
    { readonly fragment: string } | { readonly screen: '/new-run' | '/reviews' } | { readonly review: string };
  /** What is open may stay so: not everything that was measured is written about. */
  readonly kind: 'work' | 'wait' | 'attention' | 'open' | 'done';
}

/** Prices older than this are worth a look (design of the bench). */
const PRICE_AGE_DAYS = 90;

/** The next step of a unit in the order of the work. */
export function nextStep(row: SpecimenRow): NextStep {
  if (row.failedAnalyses > 0) {
    const what = row.failedAnalyses === 1 ? 'One analysis' : `${row.failedAnalyses} analyses`;
    return { text: `${what} failed`, action: 'See why', to: { fragment: 'takes' }, kind: 'attention' };
  }
  if (row.takes === 0 && row.lastTested === null)
    return { text: 'No takes yet', action: 'Bring in takes', to: { screen: '/new-run' }, kind: 'work' };
  if (row.waitingAnalyses > 0)
    return {
      text: `Measuring, ${row.waitingAnalyses} to go`,
      action: 'Watch',
      to: { fragment: 'takes' },
      kind: 'wait',
    };
  if (row.missingPoints.length > 0) {
    return {
      text: `Points missing: ${row.missingPoints.join(', ')}`,
      action: 'Give points',
      to: { fragment: 'points' },
      kind: 'work',
    };
  }
  if (!row.hasRules) return written(row);
  // The review, and the place, are those of the configuration that counts.
  if (row.family?.counts === false)
    return { text: 'Measured; another configuration of it counts', action: 'Look at them', to: { fragment: 'configurations' }, kind: 'done' }; // prettier-ignore
  if (row.place === null)
    return { text: 'Scored, not ranked', action: 'See why', to: { fragment: 'place' }, kind: 'attention' };
  return written(row);
}

/** What is left of a unit that is measured and, where there are rules, scored. */
function written({ review, lastTested, hasRules }: SpecimenRow): NextStep {
  const text = `${hasRules ? 'Scored' : 'Measured'}, nothing published`;
  if (review === null) return { text, action: 'Write about it', to: { screen: '/reviews' }, kind: 'open' };
  const to = { review: review.id };
  if (review.publishedOn === null) return { text, action: 'Go on writing', to, kind: 'work' };
  if (lastTested !== null && lastTested > review.publishedOn)
    return { text: `Tested again since it was published ${review.publishedOn}`, action: 'See what has changed', to, kind: 'open' }; // prettier-ignore
  const place = { fragment: hasRules ? 'place' : 'takes' };
  return { text: `Published ${review.publishedOn}`, action: hasRules ? 'Look at its place' : 'Look at its takes', to: place, kind: 'done' }; // prettier-ignore
}

/** Units on the desk whose price has not been looked at for long; a configuration costs what its unit costs. */
export function stalePrices(rows: readonly SpecimenRow[], today: string): SpecimenRow[] {
  return rows.filter(
    (r) =>
      r.onDesk &&
      (r.family?.main ?? r.id) === r.id &&
      r.price !== null &&
      daysBetween(r.price.date, today) > PRICE_AGE_DAYS,
  );
}

/** The session that runs, else the one that comes first; null where none is planned. */
export function nextSession(plans: readonly PlanRow[]): PlanRow | null {
  const first = (status: PlanRow['status']): PlanRow | undefined =>
    plans.filter((p) => p.status === status).sort((a, b) => a.day.localeCompare(b.day))[0];
  return first('running') ?? first('planned') ?? null;
}

/** How many units should be tested again, and whether the control unit is one of them. */
export function dueSentence(due: readonly DueUnit[]): string {
  if (due.length === 0) return '';
  const control = due.find((d) => d.reasons.some((r) => r.kind === 'control-due'));
  const count = `${due.length} ${due.length === 1 ? 'unit is' : 'units are'} due for another test`;
  return control ? `${count}; the rig is due for a control take of ${control.name}.` : `${count}.`;
}
