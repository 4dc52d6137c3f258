import { describe, expect, it } from 'vitest';
import type { CompareLane, CompareTable, LaneDifference } from '#contracts/compare';
import { delayLines, differenceModel, LANE_LOOKS, noiseModel, spectrumModel, figureRows } from './compare-charts';

const lane = (takeId: string, figures: CompareLane['figures'], change: Partial<CompareLane> = {}): CompareLane => ({
  takeId,
  specimenId: takeId,
  unit: `Unit ${takeId}`,
  words: '',
  date: '2026-05-01',
  protocol: 'desk-voice',
  protocolVersion: 3,
  rig: null,
  sha256: 'a'.repeat(64),
  durationS: 10,
  sampleRateHz: 48_000,
  takeGainDb: 40,
  loudnessLufs: -24,
  truePeakDbtp: -10,
  appliedDb: 1,
  isLoud: false,
  warning: null,
  spectrum: [{ centreHz: 1000, db: -30 }],
  noise: null,
  figures,
  ...change,
});
const table = (lanes: CompareLane[]): CompareTable => ({
  category: 'microphone',
  step: 'speech',
  stepTitle: 'Passage',
  lanes,
  targetLufs: -23,
  heldBackBy: null,
  gainRefused: null,
  pair: null,
});
describe('charts of a comparison', () => {
  const lanes = [
    lane('1', {}),
    lane(
      '2',
      {},
      {
        noise: [
          { centreHz: 100, db: null },
          { centreHz: 200, db: -80 },
        ],
      },
    ),
  ];
  const name = (i: number): string => `Lane ${i + 1}`;

  it('say which channel of one recording comes later, and nothing of others', () => {
    const found = (takeId: string, delayMs: number | null) => [takeId, { takeId, delayMs } as LaneDifference] as const;
    const three = table([...lanes, lane('3', {})]);
    const lines = (...all: (readonly [string, LaneDifference])[]) => delayLines(three, 1, new Map(all), name);
    expect(lines(found('1', 3.456), found('3', -0.5))).toEqual([
      'Lane 1 comes 3.46 ms later than Lane 2',
      'Lane 3 comes 0.50 ms earlier than Lane 2',
    ]);
    expect(lines(found('1', 0.001), found('3', null))).toEqual(['Lane 1 comes at the same moment as Lane 2']);
    expect(lines(found('2', 5))).toEqual([]);
    expect(lines()).toEqual([]);
  });

  it('name series as lanes are named at the moment, and tell them apart by colour and dash', () => {
    const model = spectrumModel(table(lanes), name);
    expect(model.series.map((s) => s.name)).toEqual(['Lane 1', 'Lane 2']);
    expect(new Set(LANE_LOOKS.map((l) => `${l.colour}/${l.dash}`)).size).toBe(8);
    expect(noiseModel(table(lanes), name).series[1].points).toEqual([
      { x: 100, y: null },
      { x: 200, y: -80 },
    ]);
  });

  it('leave out of a difference what the samples do not support', () => {
    const found: LaneDifference = {
      takeId: '2',
      map: { kind: 'performance', anchors: [[0, 0]] },
      method: 'transfer',
      points: [
        { hz: 100, db: 9, trusted: false },
        { hz: 1000, db: 1, trusted: true },
      ],
      lowCut: { kind: 'none' },
      remark: '',
      delayMs: null,
    };
    const { series } = differenceModel(table(lanes), 0, new Map([['2', found]]), name);
    expect(series[0].name).toBe('Lane 1 (zero line)');
    expect(series[1].points).toEqual([
      { x: 100, y: null },
      { x: 1000, y: 1 },
    ]);
    expect(differenceModel(table(lanes), 0, new Map(), name).series).toHaveLength(1);
  });
});

describe('the small table', () => {
  const figure = (value: number | null, uncertainty: number | null) => ({ value, uncertainty, unit: 'dB' });

  it('marks a difference only where it exceeds its own uncertainty (k = 2)', () => {
    const lanes = [
      lane('1', { noise: figure(-60, 0.3), hum: figure(-80, null) }),
      // 2 √(0.3² + 0.4²) = 1.0: a difference of 0.9 is none, of 1.1 is one.
      lane('2', { noise: figure(-59.1, 0.4), hum: figure(-70, 0.1) }),
      lane('3', { noise: figure(-61.1, 0.4) }),
    ];
    const rows = figureRows(lanes, 0);
    expect(rows[0].cells.map((c) => c.differs)).toEqual([false, false, true]);
    // Without an uncertainty nothing is said to differ; what is not measured is null, not zero.
    expect(rows[1].cells).toEqual([
      { value: -80, uncertainty: null, differs: false },
      { value: -70, uncertainty: 0.1, differs: false },
      { value: null, uncertainty: null, differs: false },
    ]);
    expect(figureRows([lanes[0]], 0)).toEqual([]);
  });
});
