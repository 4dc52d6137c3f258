import { ladderDb } from '#core/measure/distance-ladder';
import { TRANSPARENT_DB } from '#core/measure/tonal-change';
import type { Curves, PairGroupJson } from '#contracts/curves';
import type { CurveChartModel } from '../../ui/curve-chart-options';

/** Deviation that needs no remark in a response (common practice, no source). */
const TOLERANCE_DB = 3;
/** Points of the fitted curve. */
const FIT_POINTS = 60;

/**
 * The response re its mean of 500 Hz–2 kHz, with the band in which it needs no remark; of headphones both sides beside
 * it, re the same level, so that a louder side is seen.
 */
export function responseChart(
  { points, lowestValidHz }: NonNullable<Curves['response']>,
  where: string,
  sides: Curves['sides'] = null,
): CurveChartModel {
  const middle = points.filter((p) => p.hz >= 500 && p.hz <= 2000);
  const reference = middle.reduce((s, p) => s + p.db, 0) / Math.max(1, middle.length);
  const curve = (name: string, colour: string, dash: number, of: typeof points): CurveChartModel['series'][number] => ({
    name,
    colour,
    dash,
    points: of.map((p) => ({ x: p.hz, y: p.hz < lowestValidHz ? null : p.db - reference })),
  });
  return {
    axis: 'frequency',
    axisTitle: `Hz; swept sine, ${where}, 1/24 octave, re the mean of 500 Hz–2 kHz, valid from ${Math.round(lowestValidHz)} Hz`,
    unit: 'dB',
    grid: 5,
    // What is flat on an ear is not what is neutral: no band says so there.
    ...(sides ? {} : { tolerance: { low: -TOLERANCE_DB, high: TOLERANCE_DB, text: `±${TOLERANCE_DB} dB` } }),
    series: [
      curve(sides ? 'Both sides' : 'Response', '--realgar', 0, points),
      ...(sides ? [curve('Left', '--azurite', 6, sides.left), curve('Right', '--quiet', 2, sides.right)] : []),
    ],
  };
}

/** What a part changes of the sound, and what it takes away of noise from outside, by third octaves. */
export function pairChart({ tonal, outside }: Pick<PairGroupJson, 'tonal' | 'outside'>): CurveChartModel | null {
  if (!tonal && !outside) return null;
  return {
    axis: 'frequency',
    axisTitle: ['Hz, third octaves', ...(tonal ? [`change, ${tonal.from}, the mean of 500 Hz–2 kHz at zero`] : []), ...(outside ? ['taken away at equal gain'] : [])].join('; '), // prettier-ignore
    unit: 'dB',
    grid: 5,
    ...(tonal ? { tolerance: { low: -TRANSPARENT_DB, high: TRANSPARENT_DB, text: `±${TRANSPARENT_DB} dB` } } : {}),
    series: [
      ...(tonal
        ? [
            {
              name: 'Sound, with it re without it',
              colour: '--realgar',
              dash: 0,
              points: tonal.bands.map((b) => ({ x: b.hz, y: b.db })),
            },
          ]
        : []),
      ...(outside
        ? [
            {
              name: 'Noise from outside, taken away',
              colour: '--azurite',
              dash: 6,
              points: outside.map((b) => ({ x: b.centreHz, y: b.removedDb })),
            },
          ]
        : []),
    ],
  };
}

/** Levels by distance, the fitted curve and its two parts. */
export function distanceChart({ rungs, fit }: NonNullable<Curves['distance']>): CurveChartModel {
  const distances = rungs.map((r) => r.distanceM);
  const [low, high] = [0.8 * Math.min(...distances), 1.25 * Math.max(...distances)];
  const xs = Array.from({ length: FIT_POINTS }, (_, i) => low * (high / low) ** (i / (FIT_POINTS - 1)));
  const reverberantDb = fit.reverberantDb ?? -Infinity;
  const curve = (y: (x: number) => number): { x: number; y: number | null }[] =>
    xs.map((x) => ({ x, y: Number.isFinite(y(x)) ? y(x) : null }));
  return {
    axis: 'distance',
    axisTitle: 'm from the mouth; speech, K-weighted, noise taken off, at 0 dB of gain',
    unit: 'dB',
    range: [low, high],
    marks: fit.criticalM === null ? [] : [{ x: fit.criticalM, text: 'critical distance', colour: '--ochre' }],
    series: [
      {
        name: 'Measured',
        colour: '--realgar',
        dash: 0,
        isScatter: true,
        points: rungs.map((r) => ({ x: r.distanceM, y: r.db })),
      },
      {
        name: 'Direct and reverberant',
        colour: '--ink',
        dash: 0,
        points: curve((x) => ladderDb({ directDb: fit.directDb, reverberantDb }, x)),
      },
      {
        name: 'Direct alone, −6 dB per doubling',
        colour: '--azurite',
        dash: 6,
        points: curve((x) => fit.directDb - 20 * Math.log10(x)),
      },
      ...(Number.isFinite(reverberantDb)
        ? [{ name: 'Reverberant alone', colour: '--quiet', dash: 2, points: curve(() => reverberantDb) }]
        : []),
    ],
  };
}
