import { stepSchema, type Step } from '#contracts/protocol';
import type { SpecimenRow } from '#contracts/specimen';
import { emptyProtocol } from '../features/protocols/protocol-draft';

/** A step with what matters here. */
export const step = (change: Partial<Step>): Step => stepSchema.parse({ ...emptyProtocol().steps[0], ...change });

/** A unit that is through with everything, as lists show it. */
export const row = (change: Partial<SpecimenRow> = {}): SpecimenRow => ({
  id: '1',
  maker: 'Oarlock',
  model: 'Purser',
  label: 'A',
  category: 'microphone',
  stage: 'scored',
  onDesk: true,
  firstTested: '2026-05-02',
  lastTested: '2026-05-02',
  review: { id: '7', publishedOn: '2026-05-04' },
  takes: 3,
  failedAnalyses: 0,
  waitingAnalyses: 0,
  missingPoints: [],
  price: { amount: 129, currency: 'EUR', kind: 'street', date: '2026-05-01' },
  figures: [],
  place: 1,
  stratum: 1,
  composite: 3,
  hasRules: true,
  heardAnswers: 0,
  classes: {},
  sheet: {},
  family: null,
  ...change,
});
