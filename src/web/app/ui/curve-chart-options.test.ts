import { describe, expect, it } from 'vitest';
import { bandChart, type BandSeries } from './band-chart-options';
import { curveChartOptions, curveCsv, frequencyLabel, levelRange } from './curve-chart-options';

describe('curve chart', () => {
  const series: BandSeries[] = [
    {
      name: 'Speech',
      dash: 0,
      colour: '--ink',
      bands: [
        { centreHz: 100, levelDbfs: -42.5 },
        { centreHz: 1000, levelDbfs: -31 },
        { centreHz: 20_000, levelDbfs: null },
      ],
    },
    { name: 'Silence', dash: 2, colour: '--quiet', bands: [{ centreHz: 100, levelDbfs: -88 }] },
  ];
  const marks = [{ x: 50, text: 'hum 50 Hz', colour: '--ochre' }];
  const model = bandChart(series, 'dBFS', marks);
  const ink = { ink: '#000', quiet: '#555', rule: '#ccc', isDark: false, colour: (name: string) => `<${name}>` };

  it('has log frequency on a plain axis, leaves out what was not measured, and differs by dash', () => {
    const options = curveChartOptions(model, ink, 'Spectra');
    const [speech] = options.series as { name: string; data: { x: number; y: number }[] }[];
    expect(speech.data).toEqual([
      { x: 2, y: -42.5 },
      { x: 3, y: -31 },
    ]);
    expect(options.stroke?.dashArray).toEqual([0, 2]);
    expect(options.colors).toEqual(['<--ink>', '<--quiet>']);
    expect(options.annotations?.xaxis?.map((a) => a.label?.text)).toEqual([
      ...['20', '50', '100', '200', '500', '1k', '2k', '5k', '10k', '20k'],
      'hum 50 Hz',
    ]);
    expect(levelRange(model.series, 10)).toEqual({ min: -90, max: -30 });
    expect(levelRange([], 10)).toEqual({ min: -120, max: 0 });
    expect(levelRange([{ name: '', colour: '', dash: 0, points: [{ x: 1, y: 5 }] }], 5)).toEqual({ min: 0, max: 10 });
    expect(frequencyLabel(12_500)).toBe('12.5k');
  });

  it('has distances in metres, and a band of tolerance', () => {
    const options = curveChartOptions(
      { ...model, axis: 'distance', range: [0.15, 1.2], tolerance: { low: -3, high: 3, text: '±3 dB' }, marks: [] },
      ink,
      'Ladder',
    );
    expect(options.annotations?.xaxis?.map((a) => a.label?.text)).toEqual(['0.2', '0.5', '1']);
    expect(options.annotations?.yaxis?.[0]).toMatchObject({ y: -3, y2: 3 });
  });

  it('gives its data as CSV, units in the header, nothing where nothing was measured', () => {
    expect(curveCsv(model)).toBe(
      'frequency/Hz,"Speech/dBFS","Silence/dBFS"\r\n100,-42.500,-88.000\r\n1000,-31.000,\r\n20000,,\r\n',
    );
  });
});
