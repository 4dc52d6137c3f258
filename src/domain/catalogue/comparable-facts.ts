import { plusMinus } from '#core/measure/figure-text';
import { isQuantity } from '#core/measure/registry';
import { unlikeBandwidth, usualBandwidth } from '#core/rules/like-bandwidth';
import { newestFigure } from '#core/rules/newest-figure';
import { comparableFigure, type Comparability } from '#core/rules/comparability';
import { pairedOffset, type PairedOffset } from '#core/stats/paired-offset';
import type { Protocol, Step } from '#contracts/protocol';
import { groupBy } from '../group-by';
import type { FactRow } from './fact';
import { bridgePairs } from './bridge-pairs';
import { feedsFigure } from './feeding-steps';

/** A figure as ranking takes it, with what was done to make it comparable. */
export type RankedFact = FactRow & { readonly remark: string | null };

/** Fewer units do not carry a bridge: what they show may be the unit's, not the version's. */
const LEAST_BRIDGING_UNITS = 2;

/**
 * Makes the figures of one category comparable: those measured under a version of the protocol whose steps were done
 * otherwise are moved by the offset that bridging units show, with its uncertainty, or left out where nothing bridges.
 * Figures that were read over another band than most are left out. Of what remains, the newest of each unit counts.
 *
 * @param facts - of the units of one category, any number per unit and quantity
 * @param bridging - exact figures of units measured under several versions, newest first
 * @param protocols - all versions of all protocols
 */
export function comparableFacts(
  facts: readonly FactRow[],
  bridging: readonly FactRow[],
  protocols: readonly Protocol[],
): RankedFact[] {
  return countingFacts(alikeInProtocol(alikeInBand(facts), bridging, protocols));
}

/** Of each unit and quantity the newest comparable figure; one that a newer run does not have says so. */
export function countingFacts(facts: readonly RankedFact[]): RankedFact[] {
  const readings = groupBy(facts, (fact) => `${fact.specimen_id}/${fact.quantity}`);
  return [...readings.values()].flatMap((own) => {
    const counting = newestFigure([...own].sort((a, b) => (a.day < b.day ? 1 : a.day > b.day ? -1 : 0)));
    if (!counting) return [];
    const { reading, missingSince } = counting;
    if (missingSince === null) return [reading];
    const since = `measured on ${reading.day}; the run of ${missingSince} does not have it`;
    return [{ ...reading, remark: [reading.remark, since].filter((r) => r !== null).join('; ') }];
  });
}

/** Leaves out the figures that were read over another band than most. */
function alikeInBand(facts: readonly FactRow[]): RankedFact[] {
  const usual = new Map<string, number | null>();
  return facts.map((fact) => {
    if (!usual.has(fact.quantity)) {
      const limits = facts.flatMap((f) => (f.quantity === fact.quantity && f.value !== null ? (f.high_hz ?? []) : []));
      usual.set(fact.quantity, usualBandwidth(limits));
    }
    const reason = fact.value === null ? null : unlikeBandwidth(fact.high_hz, usual.get(fact.quantity) ?? null);
    return reason === null
      ? { ...fact, remark: null }
      : { ...fact, value: null, uncertainty: null, not_measured: `Not comparable: ${reason}`, remark: reason };
  });
}

function alikeInProtocol(
  facts: readonly RankedFact[],
  bridging: readonly FactRow[],
  protocols: readonly Protocol[],
): RankedFact[] {
  const newest = facts.reduce<FactRow | null>((a, b) => (a && a.day > b.day ? a : later(a, b)), null);
  const current = newest && find(protocols, newest);
  if (!current) return [...facts];
  const verdicts = new Map<string, Comparability>();
  const bridges = new Map<string, PairedOffset | null>();
  return facts.map((fact) => {
    if (fact.protocol === current.id && fact.protocol_version === current.version) return fact;
    const key = `${fact.protocol}/${fact.protocol_version}/${fact.quantity}`;
    const verdict = verdicts.get(key) ?? verdictOf(fact, current, protocols);
    verdicts.set(key, verdict);
    if (verdict.comparable || fact.value === null) return fact;
    let bridge = bridges.get(key);
    if (bridge === undefined) {
      bridge = fact.protocol === current.id ? bridgeOf(fact, current, bridging) : null;
      bridges.set(key, bridge);
    }
    return bridge ? bridged(fact, bridge) : leftOut(fact, current, verdict.reason);
  });
}

const later = (a: FactRow | null, b: FactRow): FactRow =>
  a && a.day === b.day && a.protocol_version > b.protocol_version ? a : b;

const find = (protocols: readonly Protocol[], f: FactRow): Protocol | undefined =>
  protocols.find((p) => p.id === f.protocol && p.version === f.protocol_version);

function verdictOf(fact: FactRow, current: Protocol, protocols: readonly Protocol[]): Comparability {
  const measured = find(protocols, fact);
  const { quantity: id } = fact;
  if (!measured || !isQuantity(id)) return { comparable: true, reason: '' };
  return comparableFigure(protocols, measured, current, (s) => feedsFigure(id, s as Step, measured.steps));
}

function bridgeOf(fact: FactRow, current: Protocol, bridging: readonly FactRow[]): PairedOffset | null {
  const own = bridging.filter((b) => b.protocol === current.id);
  const pairs = bridgePairs(own, fact.quantity, fact.protocol_version, current.version);
  return pairs.length < LEAST_BRIDGING_UNITS ? null : pairedOffset(pairs.map((p) => p.pair));
}

function bridged(fact: FactRow, { offset, uncertainty, count }: PairedOffset): RankedFact {
  const signed = `${offset < 0 ? '−' : '+'}${Math.abs(offset).toFixed(2)} ${plusMinus(uncertainty, 2)}`;
  return {
    ...fact,
    value: (fact.value ?? 0) + offset,
    uncertainty: Math.hypot(fact.uncertainty ?? 0, uncertainty),
    remark: `measured under version ${fact.protocol_version}, moved by ${signed} as ${count} units measured under both show`,
  };
}

function leftOut(fact: FactRow, current: Protocol, reason: string): RankedFact {
  const remark = `measured under version ${fact.protocol_version} of "${fact.protocol}", not comparable with version ${current.version}: ${reason}`;
  return { ...fact, value: null, uncertainty: null, not_measured: `Not comparable: ${remark}`, remark };
}
