import type { ClipSummary } from '#contracts/clip-summary';
import type { TakePage } from '#contracts/take-page';
import { bandChart } from '../../ui/band-chart-options';
import type { CurveChartModel, CurveMark } from '../../ui/curve-chart-options';

/** Lines that are marked in a noise spectrum at most; the table tells the rest. */
const MOST_MARKS = 12;

/** The take among the takes of its step: the control's, and where most of the catalogue lies. */
export function spectrumChart(spectrum: NonNullable<TakePage['spectrum']>): CurveChartModel {
  const points = (bands: readonly { centreHz: number; db: number | null }[]) =>
    bands.map((b) => ({ x: b.centreHz, y: b.db }));
  const { take, control, catalogue } = spectrum;
  return {
    axis: 'frequency',
    axisTitle: `Hz; ${spectrum.condition}`,
    unit: 'dBFS',
    series: [
      { name: 'This take', points: points(take), colour: '--realgar', dash: 0 },
      ...(control
        ? [
            {
              name: `Control: ${control.unit}, ${control.date}`,
              points: points(control.bands),
              colour: '--azurite',
              dash: 6,
            },
          ]
        : []),
      ...(catalogue
        ? (['p10', 'p50', 'p90'] as const).map((p) => ({
            name: {
              p10: '10 % of the units lie below',
              p50: 'middle of the catalogue',
              p90: '90 % of the units lie below',
            }[p],
            points: catalogue.bands.map((b) => ({ x: b.centreHz, y: b[p] })),
            colour: '--quiet',
            dash: { p10: 2, p50: 10, p90: 2 }[p],
          }))
        : []),
    ],
  };
}

/** Noise of the silent part by third octaves, hum and other lines marked where they stand. */
export function noiseChart({ noise, hum, interference }: ClipSummary): CurveChartModel {
  return bandChart(
    [{ name: 'Longest pause', bands: noise.thirdOctave, colour: '--realgar', dash: 0 }],
    'dBFS',
    lineMarks({ hum, interference }),
  );
}

/** Marks of the strongest lines: hum by its mains, others by what they are. */
export function lineMarks({ hum, interference }: Pick<ClipSummary, 'hum' | 'interference'>): CurveMark[] {
  const whine = interference?.busWhine?.linesHz ?? [];
  const bursts = interference?.radioBursts?.linesHz ?? [];
  const marks = [
    ...(hum?.lines ?? []).map((l) => ({ ...l, word: 'hum', colour: '--ochre' })),
    ...(interference?.lines ?? []).map((l) => ({
      ...l,
      word: whine.includes(l.hz) ? 'bus whine' : bursts.includes(l.hz) ? 'radio bursts' : 'line',
      colour: '--cinnabar',
    })),
  ];
  return marks
    .sort((a, b) => b.levelDbfs - a.levelDbfs)
    .slice(0, MOST_MARKS)
    .map((m) => ({ x: m.hz, text: `${m.word} ${Math.round(m.hz)} Hz`, colour: m.colour }));
}
