import { amplitudeToDb, powerToDb } from '../units';
import { measured, notMeasured, type Measurement } from './measurement';
import type { ResponsePoint } from './frequency-response';

/** Octaves in which directions are told apart. */
export const POLAR_OCTAVES_HZ = [250, 500, 1000, 2000, 4000, 8000] as const;

/** Level at one angle re 0°. */
export interface PolarLevel {
  readonly angleDeg: number;
  /** Mean of the octaves. */
  readonly broadbandDb: number;
  /** Standard uncertainty of that, by the noise of both recordings. */
  readonly u: number;
  /** In the order of POLAR_OCTAVES_HZ; null where the response does not reach. */
  readonly octavesDb: readonly (number | null)[];
}

/** A first-order pattern |α + (1 − α)·cos θ|. */
export interface FirstOrderPattern {
  readonly alpha: number;
  /** Share of the power of a diffuse field that it takes. */
  readonly randomEnergyEfficiency: number;
  readonly directivityIndexDb: number;
  /** Standard uncertainty of α: noise, and what the pattern leaves unexplained. */
  readonly alphaU: number;
  /** Root mean square of what it leaves of the measured amplitudes (front = 1). */
  readonly residual: number;
}

/**
 * Amplitude of a first-order pattern re 0°, negative behind a figure-of-eight.
 *
 * @example
 *   firstOrderGain(0.5, 180); // ≈ 0.000
 *   firstOrderGain(0, 180); // => -1
 */
export const firstOrderGain = (alpha: number, angleDeg: number): number =>
  alpha + (1 - alpha) * Math.cos((angleDeg * Math.PI) / 180);

/** Random energy efficiency of a first-order pattern: mean of its square over the sphere, α² + (1 − α)²/3. */
export const randomEnergyEfficiency = (alpha: number): number => alpha ** 2 + (1 - alpha) ** 2 / 3;

/**
 * Directivity index in dB: −10·lg of the random energy efficiency.
 *
 * @example
 *   directivityIndexDb(0.5); // ≈ 4.77
 */
export const directivityIndexDb = (alpha: number): number => -powerToDb(randomEnergyEfficiency(alpha));

/**
 * Levels at a set of angles re 0°, by octave and over all of them.
 *
 * @param front - response at 0°
 * @param turned - responses at other angles, same sweep, gain and gate
 */
export function polarLevels(
  front: readonly ResponsePoint[],
  turned: readonly { readonly angleDeg: number; readonly points: readonly ResponsePoint[] }[],
): PolarLevel[] {
  const reference = octaveLevels(front);
  return [{ angleDeg: 0, points: front }, ...turned]
    .map(({ angleDeg, points }) => {
      const octaves = octaveLevels(points).map((level, i) => {
        const at0 = reference[i];
        return level === null || at0 === null ? null : { db: level.db - at0.db, u: Math.hypot(level.u, at0.u) };
      });
      const known = octaves.filter((o) => o !== null);
      return {
        angleDeg,
        broadbandDb: known.reduce((s, o) => s + o.db, 0) / known.length,
        u: angleDeg === 0 ? 0 : Math.sqrt(known.reduce((s, o) => s + o.u ** 2, 0)) / known.length,
        octavesDb: octaves.map((o) => o?.db ?? null),
      };
    })
    .sort((a, b) => a.angleDeg - b.angleDeg);
}

/** Mean power of the points in each octave, with what noise does to it. */
function octaveLevels(points: readonly ResponsePoint[]): ({ db: number; u: number } | null)[] {
  return POLAR_OCTAVES_HZ.map((centre) => {
    const inside = points.filter((p) => p.hz >= centre / Math.SQRT2 && p.hz < centre * Math.SQRT2);
    if (inside.length < 12) return null;
    const powers = inside.map((p) => 10 ** (p.db / 10));
    const total = powers.reduce((s, p) => s + p, 0);
    const u = Math.sqrt(powers.reduce((s, p, i) => s + (p * inside[i].u) ** 2, 0)) / total;
    return { db: powerToDb(total / inside.length), u };
  });
}

/**
 * Nearest first-order pattern: α with the least squared error to the measured amplitudes. Only magnitudes are
 * measured, so the pattern's magnitude is compared.
 *
 * @param levels - at two or more angles, 0° among them or not; dB re 0°
 * @returns null for fewer than two angles other than 0°
 */
export function nearestPattern(
  levels: readonly { readonly angleDeg: number; readonly db: number; readonly u?: number }[],
): FirstOrderPattern | null {
  if (levels.filter((l) => l.angleDeg % 360 !== 0).length < 2) return null;
  const squares = (alpha: number): number =>
    levels.reduce((s, { angleDeg, db }) => s + (Math.abs(firstOrderGain(alpha, angleDeg)) - 10 ** (db / 20)) ** 2, 0);
  let alpha = 0;
  for (let a = 0; a <= 1.0001; a += 0.01) if (squares(a) < squares(alpha)) alpha = a;
  for (let step = 0.005; step > 1e-6; step /= 2) {
    for (const a of [alpha - step, alpha + step]) if (a >= 0 && a <= 1 && squares(a) < squares(alpha)) alpha = a;
  }
  const residual = Math.sqrt(squares(alpha) / levels.length);
  // One parameter was fitted; each amplitude moves α by its slope, 1 − |cos θ| at most.
  const turned = levels.filter((l) => l.angleDeg % 360 !== 0);
  const slopes = turned.map((l) => 1 - Math.cos((l.angleDeg * Math.PI) / 180));
  const misfit = Math.sqrt((residual ** 2 * levels.length) / Math.max(1, turned.length - 1));
  const noise = turned.map(({ db, u = 0 }) => 10 ** (db / 20) * (Math.LN10 / 20) * u);
  const information = slopes.reduce((s, g) => s + g * g, 0);
  const alphaU = Math.sqrt(slopes.reduce((s, g, i) => s + g * g * (misfit ** 2 + noise[i] ** 2), 0)) / information;
  return {
    alpha,
    alphaU,
    randomEnergyEfficiency: randomEnergyEfficiency(alpha),
    directivityIndexDb: directivityIndexDb(alpha),
    residual,
  };
}

/** The nearest pattern to a set of measured levels. */
export const patternOfLevels = (levels: readonly PolarLevel[]): FirstOrderPattern | null =>
  nearestPattern(levels.map((l) => ({ angleDeg: l.angleDeg, db: l.broadbandDb, u: l.u })));

/** Everyday names of first-order patterns and the α each stands for (standard microphone texts). */
const NAMES = [
  ['omnidirectional', 1],
  ['wide cardioid', 0.7],
  ['cardioid', 0.5],
  ['supercardioid', 0.366],
  ['hypercardioid', 0.25],
  ['figure-of-eight', 0],
] as const;

/** The name that lies nearest to an α. */
export function patternName(alpha: number): string {
  return NAMES.reduce((best, entry) => (Math.abs(entry[1] - alpha) < Math.abs(best[1] - alpha) ? entry : best))[0];
}

/** The figures with their conditions. */
export function polarMeasurements(levels: readonly PolarLevel[]): Measurement[] {
  const condition = 'swept sine, gated, mean of the octaves 250 Hz–8 kHz';
  const at = (angle: number): PolarLevel | undefined => levels.find((l) => Math.abs(Math.abs(l.angleDeg) - angle) < 1);
  const rejection = (id: 'rejection90' | 'rejection180', angle: number): Measurement => {
    const level = at(angle);
    return level
      ? measured(id, -level.broadbandDb, condition, { uncertainty: level.u })
      : notMeasured(id, condition, `The run has no sweep at ${angle}°.`);
  };
  const pattern = patternOfLevels(levels);
  const spreadOf = (of: (alpha: number) => number): number =>
    pattern ? Math.abs(of(Math.min(1, pattern.alpha + pattern.alphaU)) - of(Math.max(0, pattern.alpha - pattern.alphaU))) / 2 : 0; // prettier-ignore
  const settings = { angles: levels.map((l) => l.angleDeg).join(', ') };
  const lacking = 'The run has sweeps from fewer than two angles beside 0°.';
  return [
    rejection('rejection90', 90),
    rejection('rejection180', 180),
    pattern
      ? measured('patternAlpha', pattern.alpha, condition, {
          uncertainty: pattern.alphaU,
          settings: { ...settings, nearest: patternName(pattern.alpha), residualDb: amplitudeToDb(pattern.residual) },
        })
      : notMeasured('patternAlpha', condition, lacking),
    pattern
      ? measured('directivityIndex', pattern.directivityIndexDb, `of the nearest first-order pattern, ${condition}`, {
          uncertainty: spreadOf(directivityIndexDb),
          settings,
        })
      : notMeasured('directivityIndex', condition, lacking),
  ];
}
