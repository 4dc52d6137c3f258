import { measured, notMeasured, type Measurement } from '../../measure/measurement';
import type { Difference } from '../../measure/difference';
import { mean } from '../../stats/moments';
import { GAIN_UNCERTAINTY_DB, gained, isRefused } from '../run/gained-take';
import { SPOKEN_ANEW_LEVEL_DB, TRANSFER_U_DB } from './pair-uncertainty';
import { sweepPoints } from './sweep-points';
import type { TakePair } from './take-pair';

/** A third octave around 1 kHz. */
const ONE_KILOHERTZ = [891, 1122] as const;

/** Gain at 1 kHz, by the surest material there is. */
export function gainAdded(
  sweep: TakePair | undefined,
  tone: TakePair | undefined,
  words: TakePair | undefined,
): Measurement[] {
  const pair = sweep ?? tone ?? words;
  if (!pair) return [];
  const how = pair === sweep ? '1 kHz, by sweep' : pair === tone ? '1 kHz, by tone' : wordsText(pair.difference);
  const both = gained(pair.fitted, pair.without);
  if (isRefused(both)) return [notMeasured('gainAdded', how, both.refused)];
  const found = pair === sweep ? sweepLevel(pair) : pair === tone ? toneLevel(pair) : wordsLevel(pair);
  if (!found) return [notMeasured('gainAdded', how, 'One of the two takes holds nothing that it can be read from.')];
  const between = both[0].gainDb - both[1].gainDb;
  return [
    measured('gainAdded', found.db - between, how, {
      uncertainty: Math.hypot(found.u, between === 0 ? 0 : GAIN_UNCERTAINTY_DB),
      settings: { gainBetweenDb: between },
    }),
  ];
}

interface Level {
  readonly db: number;
  readonly u: number;
}

function sweepLevel(pair: TakePair): Level | null {
  const inside = sweepPoints(pair).filter((p) => p.hz >= ONE_KILOHERTZ[0] && p.hz <= ONE_KILOHERTZ[1]);
  if (inside.length === 0) return null;
  return {
    db: mean(inside.map((p) => p.db)),
    u: Math.hypot(TRANSFER_U_DB, Math.sqrt(mean(inside.map((p) => p.u ** 2)))),
  };
}

function toneLevel({ fitted, without }: TakePair): Level | null {
  const db = fitted.loudest.oneKilohertzDbfs - without.loudest.oneKilohertzDbfs;
  return Number.isFinite(db) ? { db, u: TRANSFER_U_DB } : null;
}

function wordsLevel({ fitted, without, difference }: TakePair): Level | null {
  const db = fitted.loudness.integratedLufs - without.loudness.integratedLufs;
  if (!Number.isFinite(db)) return null;
  // The middle of the bands: what a part does to one region is no gain.
  if (difference?.method === 'transfer') return { db: difference.levelDb, u: TRANSFER_U_DB };
  return {
    db,
    u: Math.hypot(SPOKEN_ANEW_LEVEL_DB, fitted.loudness.uncertaintyLu ?? 0, without.loudness.uncertaintyLu ?? 0),
  };
}

const wordsText = (difference: Difference | null): string =>
  difference?.method === 'transfer'
    ? '200 Hz–8 kHz, one performance through both'
    : 'loudness of one text, spoken anew';
