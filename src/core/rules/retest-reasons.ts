/** What is known of a unit that may have to be tested again. */
export interface RetestFacts {
  readonly lastTested: string | null;
  readonly onDesk: boolean;
  readonly isControl: boolean;
  /** Newest note of each kind, with its day. */
  readonly firmwareOn: string | null;
  readonly repairedOn: string | null;
  /** Days on which its takes were made while the rig was off. */
  readonly flaggedOn: string | null;
  /** Criteria of the rubric that no take of it has fed. */
  readonly missingFigures: readonly string[];
  /** Steps of the current protocol version whose earlier results are not comparable. */
  readonly incomparable: readonly string[];
}

/** Why a unit should be tested again. */
export interface RetestReason {
  readonly kind: 'repair' | 'firmware' | 'drift' | 'missing' | 'incomparable' | 'control-due' | 'never';
  readonly text: string;
}

/** A control unit that was not heard for this long tells nothing of today's rig; common practice, no source. */
const CONTROL_DAYS = 90;
const DAY_MS = 86_400_000;

/**
 * All reasons to test a unit again, the weightiest first.
 *
 * @param facts - of the unit
 * @param today - day
 */
export function retestReasons(facts: RetestFacts, today: string): RetestReason[] {
  const reasons: RetestReason[] = [];
  const since = (day: string | null): boolean => day !== null && facts.lastTested !== null && day > facts.lastTested;
  if (since(facts.repairedOn))
    reasons.push({ kind: 'repair', text: `Repaired on ${facts.repairedOn}, after its last test.` });
  if (since(facts.firmwareOn))
    reasons.push({ kind: 'firmware', text: `New firmware on ${facts.firmwareOn}, after its last test.` });
  if (facts.flaggedOn !== null)
    reasons.push({ kind: 'drift', text: `The rig was off on ${facts.flaggedOn}, the day of its last test.` });
  if (facts.lastTested === null && facts.onDesk) reasons.push({ kind: 'never', text: 'On the desk, never tested.' });
  if (facts.missingFigures.length > 0 && facts.lastTested !== null)
    reasons.push({ kind: 'missing', text: `The rubric lacks: ${facts.missingFigures.join(', ')}.` });
  if (facts.incomparable.length > 0)
    reasons.push({ kind: 'incomparable', text: `Measured another way than today: ${facts.incomparable.join('; ')}` });
  const days = facts.lastTested === null ? Infinity : (Date.parse(today) - Date.parse(facts.lastTested)) / DAY_MS;
  if (facts.isControl && days > CONTROL_DAYS)
    reasons.push({ kind: 'control-due', text: `The control unit was last heard ${Math.round(days)} days ago.` });
  return reasons;
}
