import { THIRD_OCTAVE_BANDS } from '../dsp/third-octave-bands';
import { mean } from '../stats/moments';
import { formatNumber } from './figure-text';

/** A change of level at a frequency. */
export interface ChangePoint {
  readonly hz: number;
  readonly db: number;
  /** Standard uncertainty, dB. */
  readonly u: number;
}

/** What a part does to the sound, by third octaves. */
export interface TonalChange {
  /** Mean of 500 Hz–2 kHz at zero; only bands that hold enough that can be trusted. */
  readonly bands: readonly ChangePoint[];
  /** Level that was taken off: that of 500 Hz–2 kHz. */
  readonly levelDb: number;
  /** Band that changes most at 63 Hz–12.5 kHz. */
  readonly largest: ChangePoint;
}

/** Bands that the level of the curve is taken from. */
const REFERENCE_HZ = [500, 2000] as const;
/** Bands of which the largest change is told. */
const BODY_HZ = [63, 12_500] as const;
/** A part that changes no third octave by more is called transparent (common practice, no source). */
export const TRANSPARENT_DB = 1;
/** Coverage of what is said in words: about 95 %. */
const COVERAGE = 2;
/** Regions that are spoken of: the rest is what they are held against. */
const REGIONS = [
  ['the lowest end', 50, 100],
  ['the lows', 125, 315],
  ['the presence', 2500, 5000],
  ['the top', 6300, 12_500],
] as const;
/** What a region changes less is not worth a word (common practice, no source). */
const LEAST_WORD_DB = 0.5;

/**
 * Change by third octaves from points that lie closer: their mean in decibels, the mean of 500 Hz–2 kHz at zero.
 *
 * @param points - trusted points only, any order, at least three to a third octave where it is told
 * @returns null where the middle, or everything else, is not covered
 */
export function tonalChange(points: readonly ChangePoint[]): TonalChange | null {
  const raw = THIRD_OCTAVE_BANDS.flatMap(({ nominalHz, lowHz, highHz }) => {
    const inside = points.filter((p) => p.hz >= lowHz && p.hz < highHz);
    if (inside.length < LEAST_POINTS) return [];
    const u = Math.sqrt(mean(inside.map((p) => p.u ** 2)));
    return [{ hz: nominalHz, db: mean(inside.map((p) => p.db)), u }];
  });
  const middle = raw.filter((b) => b.hz >= REFERENCE_HZ[0] && b.hz <= REFERENCE_HZ[1]);
  if (middle.length < LEAST_MIDDLE_BANDS) return null;
  const levelDb = mean(middle.map((b) => b.db));
  const bands = raw.map((b) => ({ ...b, db: b.db - levelDb }));
  const body = bands.filter((b) => b.hz >= BODY_HZ[0] && b.hz <= BODY_HZ[1]);
  const largest = body.reduce((most, b) => (Math.abs(b.db) > Math.abs(most.db) ? b : most));
  return { bands, levelDb, largest };
}

/** A third octave holds four points of 1/12 octave, or eight of 1/24: fewer say little of it. */
const LEAST_POINTS = 3;
/** Of the seven bands of the middle so many must be there. */
const LEAST_MIDDLE_BANDS = 4;

/** What a part is called by its largest change: in between neither word is true beyond doubt. */
export function tonalClass({ largest }: Pick<TonalChange, 'largest'>): 'transparent' | 'coloured' | 'undecided' {
  const most = Math.abs(largest.db);
  if (most + COVERAGE * largest.u <= TRANSPARENT_DB) return 'transparent';
  return most - COVERAGE * largest.u > TRANSPARENT_DB ? 'coloured' : 'undecided';
}

/** What changes, by regions, in words; those that change by less than half a decibel, or than can be told, are left out. */
export function tonalWords({ bands }: Pick<TonalChange, 'bands'>): string {
  const told = REGIONS.flatMap(([name, lowHz, highHz]) => {
    const inside = bands.filter((b) => b.hz >= lowHz && b.hz <= highHz);
    if (inside.length === 0) return [];
    const change = mean(inside.map((b) => b.db));
    // Neighbouring bands are unsure together: their mean is no surer than one of them.
    const u = Math.max(...inside.map((b) => b.u));
    return Math.abs(change) < Math.max(LEAST_WORD_DB, COVERAGE * u)
      ? []
      : [`${name} ${formatNumber(Math.abs(change), 1)} dB ${change > 0 ? 'more' : 'less'}`];
  });
  return told.length === 0 ? 'no region changes by more than can be told' : told.join(', ');
}
