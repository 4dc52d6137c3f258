import { describe, expect, it } from 'vitest';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { SpecimenRow } from '#contracts/specimen';
import { dueUnits, type DueFacts } from './due-units';

const row = (id: string, change: Partial<SpecimenRow> = {}): SpecimenRow => ({
  id,
  maker: 'Oarlock',
  model: 'Purser',
  label: id,
  category: 'microphone',
  stage: 'scored',
  onDesk: false,
  firstTested: '2026-01-01',
  lastTested: '2026-05-02',
  review: null,
  takes: 3,
  failedAnalyses: 0,
  waitingAnalyses: 0,
  missingPoints: [],
  price: null,
  figures: [],
  place: null,
  stratum: null,
  composite: null,
  hasRules: true,
  heardAnswers: 0,
  classes: {},
  family: null,
  sheet: {},
  ...change,
});
const RUBRIC = {
  id: 'r',
  version: 1,
  name: 'R',
  category: 'microphone',
  weights: {},
  stratumProbability: 0.9,
  criteria: [
    {
      id: 'noise',
      name: 'Noise',
      meaning: '',
      kind: 'measured',
      quantity: 'noiseReSpeechA',
      curve: [
        [-80, 5],
        [-40, 0],
      ],
      repeatability: 1,
    },
    { id: 'build', name: 'Build', meaning: '', kind: 'by-hand', repeatability: 0.2 },
  ],
} as const;
const figure = (value: number | null, remark: string | null = null) =>
  ({ value, uncertainty: null, bound: 'exact', notMeasured: null, remark }) as const;
const facts = (change: Partial<DueFacts>): DueFacts => ({
  specimens: [row('A')],
  ranked: [],
  events: [],
  controls: new Set(),
  offDays: new Set(),
  today: '2026-06-01',
  ...change,
});
const due = (change: Partial<DueFacts>) => dueUnits(facts(change)).map((d) => [d.id, ...d.reasons.map((r) => r.kind)]);

describe('what is due for another test', () => {
  it('is nothing that was tested and has changed in nothing', () => {
    expect(due({})).toEqual([]);
  });

  it('is what was repaired, updated, or tested on a day when the rig was off', () => {
    const events = [
      { specimen_id: 'A', kind: 'repair', day: '2026-05-20' },
      { specimen_id: 'A', kind: 'repair', day: '2026-03-01' },
      { specimen_id: 'B', kind: 'firmware', day: '2026-05-03' },
      { specimen_id: 'C', kind: 'firmware', day: '2026-05-01' },
    ] as const;
    const specimens = ['A', 'B', 'C', 'D'].map((id) => row(id, id === 'D' ? { lastTested: '2026-04-01' } : {}));
    expect(due({ specimens, events, offDays: new Set(['2026-04-01']) })).toEqual([
      ['A', 'repair'],
      ['B', 'firmware'],
      ['D', 'drift'],
    ]);
  });

  it('a control unit is not due because it says that the rig was off, but when it was not heard for long', () => {
    const controls = new Set(['A']);
    expect(due({ controls, offDays: new Set(['2026-05-02']) })).toEqual([]);
    expect(due({ controls, today: '2026-08-02' })).toEqual([['A', 'control-due']]);
  });

  it('is what the rules lack a figure for, and what was measured another way, each told as it is', () => {
    const unit = (id: string, figures: UnitFacts['figures']) => ({ id, figures, byHand: {}, prices: [] });
    const ranked = [
      {
        rubric: RUBRIC as never,
        units: [
          unit('A', {}),
          unit('B', { noiseReSpeechA: figure(null, 'version 1') }),
          unit('C', { noiseReSpeechA: figure(-60) }),
          unit('D', { noiseReSpeechA: figure(null) }),
        ],
      },
    ];
    const found = dueUnits(facts({ specimens: ['A', 'B', 'C', 'D'].map((id) => row(id)), ranked }));
    expect(found.map((d) => [d.id, d.reasons[0].text])).toEqual([
      ['A', 'The rubric lacks: Noise.'],
      ['D', 'The rubric lacks: Noise.'],
      ['B', 'Measured another way than today: version 1'],
    ]);
  });

  it('goes by urgency, then by name; a unit on the desk that nobody tested comes in as what it is', () => {
    const specimens = [
      row('Z', { lastTested: null, onDesk: true }),
      row('Y', { lastTested: null, onDesk: true }),
      row('A'),
    ];
    const events = [
      { specimen_id: 'A', kind: 'repair', day: '2026-05-20' },
      { specimen_id: 'Z', kind: 'due-back', day: '2026-07-01' },
    ] as const;
    expect(due({ specimens, events })).toEqual([
      ['A', 'repair'],
      ['Y', 'never'],
      ['Z', 'never'],
    ]);
    expect(dueUnits(facts({ specimens, events })).at(2)?.unit).toEqual({ maker: 'Oarlock', model: 'Purser', label: 'Z', source: 'own', dueBack: '2026-07-01' }); // prettier-ignore
  });
});
