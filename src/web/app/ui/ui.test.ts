import { describe, expect, it } from 'vitest';
import { KeptPress } from './kept-press';
import type { Session } from '#contracts/session';
import { bandChart, type BandSeries } from './band-chart-options';
import { drawnPeaks } from './clip-surfer';
import { curveChartOptions, curveCsv, frequencyLabel, levelRange } from './curve-chart-options';
import { patternPath, polarPath, polarPoint } from './polar-geometry';
import { stripModel } from './strip-model';
import { dayAt, heightOfDay, layOutCoreLog } from './core-log-layout';
import { daysBetween, figureText, formatNumber, formatPrice, formatTime } from './format';
import { matchEntries } from './palette';
import { percentOn, scaleAround, ticksOf } from './whisker';
import { labelCells } from './cell-labels';
import { toldApart } from './told-apart';

describe('a press of play before the clip is there', () => {
  it('is answered once when it comes, and taken back by a second press', () => {
    const early = new KeptPress();
    expect(early.take()).toBe(false);
    early.press();
    expect([early.take(), early.take()]).toEqual([true, false]);
    early.press();
    early.press();
    expect(early.take()).toBe(false);
  });
});

describe('numbers for people', () => {
  it('have a true minus, fixed decimals, and no negative zero', () => {
    expect(formatNumber(-64.84, 1)).toBe('−64.8');
    expect(formatNumber(-0.04, 1)).toBe('0.0');
    expect(formatNumber(-0.4, 0)).toBe('0');
    expect(formatNumber(3, 2)).toBe('3.00');
  });

  it('stand with unit and spread; "not measured" is not zero', () => {
    expect(figureText('noiseReSpeechA', { value: -64.84, uncertainty: 0.61 })).toEqual({
      value: '−64.8',
      spread: '±0.6',
      another: '',
      unit: 'dB(A)',
    });
    expect(figureText('noiseReSpeechA', { value: null })).toEqual({
      value: 'not measured',
      spread: '',
      another: '',
      unit: '',
    });
    expect(figureText('rearRejection', { value: 17.4, uncertainty: null, bound: 'at-least' })).toEqual({
      value: '≥ 17.4',
      spread: '',
      another: '',
      unit: 'dB',
    });
    // A tiny uncertainty is not shown as none.
    expect(figureText('rearRejection', { value: 17.4, uncertainty: 0.01 }).spread).toBe('±0.1');
  });

  it('say times, prices and ages', () => {
    expect([formatTime(8.9), formatTime(75), formatTime(3723)]).toEqual(['0:08', '1:15', '1:02:03']);
    expect([formatPrice(129, 'EUR'), formatPrice(129.5, 'EUR')]).toEqual(['129 EUR', '129.50 EUR']);
    expect(daysBetween('2024-02-28', '2024-03-01')).toBe(2);
  });
});

describe('the core log as a time axis', () => {
  const session = (date: string) => ({ date, takes: 4 }) as never;
  const layers = [
    { session: session('2026-03-01'), top: 0, height: 10 },
    { session: session('2026-01-30'), top: 40, height: 10 },
    { session: session('2026-01-29'), top: 52, height: 10 },
  ];
  it('is the day of a layer inside it, and in proportion between two', () => {
    expect([0, 9, 40, 50, 55, 62].map((y) => dayAt(layers, y))).toEqual([
      '2026-03-01', '2026-03-01', '2026-01-30', '2026-01-30', '2026-01-29', '2026-01-29',
    ]); // prettier-ignore
    // Half of the thirty days between them.
    expect(dayAt(layers, 25)).toBe('2026-02-14');
    // A gap of a day has no day of its own but the older one.
    expect(dayAt(layers, 51)).toBe('2026-01-29');
  });
  it('ends with the newest above and the oldest below, and is nothing without layers', () => {
    expect([dayAt(layers, -20), dayAt(layers, 900)]).toEqual(['2026-03-01', '2026-01-29']);
    expect(dayAt([], 5)).toBeNull();
  });
  it('finds the height of a day again', () => {
    for (const day of ['2026-03-01', '2026-02-14', '2026-01-30', '2026-01-29'])
      expect(dayAt(layers, heightOfDay(layers, day) ?? NaN), day).toBe(day);
    expect(heightOfDay(layers, '2026-12-01')).toBe(0);
    expect(heightOfDay(layers, '2020-01-01')).toBeNull();
  });
});

describe('core log', () => {
  const session = (date: string, takes: number): Session => ({
    id: date,
    date,
    takes,
    category: 'microphone',
    units: [{ id: '1', name: 'x' }],
  });

  it('puts the newest on top, thickness by takes, gaps by time, within the height', () => {
    const { layers, years, height } = layOutCoreLog(
      [session('2025-03-01', 3), session('2025-02-01', 12), session('2023-02-01', 1)],
      400,
    );
    expect(layers.map((l) => l.session.date)).toEqual(['2025-03-01', '2025-02-01', '2023-02-01']);
    expect(layers[1].height).toBe(4 * layers[0].height);
    const gap = (i: number): number => layers[i].top - layers[i - 1].top - layers[i - 1].height;
    expect(gap(2)).toBeGreaterThan(10 * gap(1));
    expect(height).toBeCloseTo(400, 6);
    expect(years.map((y) => y.year)).toEqual(['2025', '2023']);
  });

  it('grows beyond the height rather than lose a layer', () => {
    const many = Array.from({ length: 500 }, (_, i) =>
      session(new Date(Date.UTC(2025, 0, 1) - i * 86_400_000).toISOString().slice(0, 10), 3),
    );
    const { layers, height } = layOutCoreLog(many, 400);
    expect(layers).toHaveLength(500);
    expect(height).toBeGreaterThan(400);
    expect(layers.every((l, i) => i === 0 || l.top > layers[i - 1].top + layers[i - 1].height)).toBe(true);
  });

  it('is empty without sessions', () => {
    expect(layOutCoreLog([], 400)).toEqual({ layers: [], years: [], height: 0 });
  });
});

describe('whiskers', () => {
  it('share a scale opened to half marks that holds every interval', () => {
    expect(
      scaleAround([
        [2.7, 3.2],
        [3.1, 4.01],
      ]),
    ).toEqual({ low: 2.5, high: 4.5 });
    expect(scaleAround([])).toEqual({ low: 0, high: 5 });
    expect(scaleAround([[3, 3]])).toEqual({ low: 3, high: 4 });
    expect(ticksOf({ low: 2.5, high: 4 })).toEqual([2.5, 3, 3.5, 4]);
    expect(ticksOf({ low: 0, high: 5 })).toEqual([0, 1, 2, 3, 4, 5]);
    expect([percentOn({ low: 2, high: 4 }, 3), percentOn({ low: 2, high: 4 }, 9)]).toEqual([50, 100]);
  });
});

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

describe('polar plot', () => {
  it('puts 0° up, 0 dB on the rim, −30 dB into the middle', () => {
    expect(polarPoint(0, 0, 100)).toEqual({ x: 0, y: -100 });
    expect(polarPoint(90, -15, 100).x).toBeCloseTo(50, 9);
    expect(polarPoint(180, -40, 100).y).toBeCloseTo(0, 9);
  });
  it('mirrors what was measured on one side', () => {
    const path = polarPath(
      [
        { angleDeg: 0, db: 0 },
        { angleDeg: 90, db: -6 },
        { angleDeg: 180, db: -30 },
      ],
      100,
    );
    expect(path).toBe('M0.0 -100.0L80.0 -0.0L0.0 0.0L-80.0 -0.0Z');
    expect(patternPath(1, 100).split('L').length).toBeGreaterThan(100);
  });
});

describe('place in the catalogue', () => {
  it('counts from the better end', () => {
    expect(stripModel(12, [10, 14, 20], 'lower')).toMatchObject({ place: '2 / 4', low: 10, high: 20, self: 20 });
    expect(stripModel(12, [10, 14, 20], 'higher').place).toBe('3 / 4');
    expect(stripModel(12, [10, 14, 20], null).words).toMatch(/3 of 4, counted from the highest/);
    expect(stripModel(5, [5, 5], 'lower')).toMatchObject({ place: '1 / 3', self: 50, others: [50, 50] });
  });
});

describe('palette', () => {
  const entry = (label: string) => ({ label, hint: '', run: () => undefined });
  it('finds entries that hold every word, those that begin with it first', () => {
    const entries = ['New run', 'Quillstone Nib · A', 'Nib holder', 'Gear'].map(entry);
    expect(matchEntries(entries, 'nib').map((e) => e.label)).toEqual(['Nib holder', 'Quillstone Nib · A']);
    expect(matchEntries(entries, 'a nib quill').map((e) => e.label)).toEqual(['Quillstone Nib · A']);
    expect(matchEntries(entries, 'zither')).toEqual([]);
    expect(
      matchEntries(
        Array.from({ length: 50 }, (_, i) => entry(`u${i}`)),
        '',
      ),
    ).toHaveLength(12);
  });
});

describe('waveform', () => {
  it('is drawn on a square-root scale that keeps signs', () => {
    const [high, low] = drawnPeaks([-0.25, 0.04, 0, 1]);
    expect([...high].map((x) => Math.round(x * 100) / 100)).toEqual([0.2, 1]);
    expect([...low]).toEqual([-0.5, 0]);
  });
});

describe('cells on a narrow screen', () => {
  it('carry the heading of their column; one that spans several carries none', () => {
    document.body.innerHTML = `<table><thead><tr><th>Unit</th><th> Price
      now </th><th></th></tr></thead>
      <tbody><tr><td>a</td><td>1</td><td>x</td></tr><tr><td colspan="2">none</td><td>y</td></tr></tbody></table>
      <table><tbody><tr><td>plain</td></tr></tbody></table>`;
    labelCells(document.body);
    const labels = [...document.querySelectorAll('td')].map((td) => td.dataset['label']);
    expect(labels).toEqual(['Unit', 'Price now', '', '', '', undefined]);
  });
});

describe('entries of one name and day', () => {
  it('are told apart by their order, and those that are alone need nothing', () => {
    const row = (id: string, name: string, day = '2026-05-02') => ({ id, name, day });
    const rows = [row('12', 'Session'), row('9', 'session '), row('10', 'Session'), row('1', 'Other'), row('2', 'Session', '2026-05-03')]; // prettier-ignore
    const apart = toldApart(rows);
    expect(rows.map((r) => apart.get(r.id))).toEqual(['3rd of 3', '1st of 3', '2nd of 3', '', '']);
    const many = toldApart(Array.from({ length: 12 }, (_, i) => row(String(i + 1), 'S')));
    expect([many.get('11'), many.get('12')]).toEqual(['11th of 12', '12th of 12']);
  });
});
