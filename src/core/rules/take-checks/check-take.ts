import { channels, placement, side, unit } from './identity-checks';
import { passage } from './reader-checks';
import { clipping, digitalSilence, dropOuts, length, level, sampleRate } from './recording-checks';
import { event, hum, interference, pauses, silence } from './room-checks';
import type { CheckedTake, Finding } from './take-check';

const CHECKS: readonly ((take: CheckedTake) => Finding | null)[] = [
  digitalSilence,
  clipping,
  level,
  sampleRate,
  length,
  dropOuts,
  silence,
  event,
  hum,
  interference,
  pauses,
  passage,
  unit,
  side,
  placement,
  channels,
];

/** A take that was looked at. */
export interface TakeVerdict {
  /** "keep": nothing was found; "look": somebody has to say; "redo": of no use as it is. */
  readonly verdict: 'keep' | 'look' | 'redo';
  /** What is wrong, worst first. */
  readonly findings: readonly Finding[];
}

/**
 * Everything that can be told of a take while its set-up still stands. A clip of digital silence is asked nothing
 * further.
 */
export function checkTake(take: CheckedTake): TakeVerdict {
  const findings: Finding[] = [];
  for (const check of CHECKS) {
    const found = check(take);
    if (found) findings.push(found);
    if (found?.check === 'digital-silence' && found.weight === 'redo') break;
  }
  findings.sort((a, b) => Number(b.weight === 'redo') - Number(a.weight === 'redo'));
  const worst = findings.at(0)?.weight;
  return { verdict: worst ?? 'keep', findings };
}
