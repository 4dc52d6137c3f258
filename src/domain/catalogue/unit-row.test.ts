import { expect, it } from 'vitest';
import { rubricSchema } from '#contracts/rubric';
import document from '../../server/seed/rubric-microphone-1.json' with { type: 'json' };
import type { RankedFact } from './comparable-facts';
import type { SpecimenBase } from './specimen-base';
import { isTested, readingAgain, scattersOf, unitFacts, withScatter } from './unit-facts';
import { namesOf, specimenRow, stageOf } from './unit-row';

const NO_SCATTERS = new Map();
const { criteria } = rubricSchema.parse(document);
const BASE: SpecimenBase = {
  id: '1',
  maker: 'Oarlock',
  model: 'Purser',
  label: 'A',
  category: 'microphone',
  on_desk: true,
  ...{ variant_of: null, configuration: '', varies: null, variants: 0, counts: true },
  first_tested: '2026-01-01',
  last_tested: '2026-02-01',
  review_id: null,
  published_on: null,
  takes: 3,
  failed: 0,
  waiting: 0,
};
const fact = (quantity: string, value: number | null, bound: RankedFact['bound'] = 'exact'): RankedFact => ({
  specimen_id: '1',
  quantity,
  value,
  uncertainty: value === null ? null : 0.4,
  bound,
  not_measured: value === null ? 'no rear take' : null,
  protocol: 'desk-voice',
  protocol_version: 1,
  day: '2026-02-01',
  high_hz: null,
  remark: null,
});
const price = (amount: number, kind: 'street' | 'list' | 'sale', date: string) => ({
  amount,
  currency: 'EUR',
  kind,
  date,
});
const HAND = criteria.filter((c) => c.kind === 'by-hand' || c.kind === 'heard').map((c) => c.id);
const points = (ids: readonly string[]) =>
  ids.map((criterion) => ({ specimen_id: '1', criterion, value: 4, reason: null, date: '2026-02-01' }));

it('a unit goes from received over takes to measured, scored and published', () => {
  expect(stageOf({ ...BASE, takes: 0, first_tested: null, last_tested: null }, [])).toBe('received');
  // A unit of tables alone has been tested.
  expect(stageOf({ ...BASE, takes: 0 }, [])).toBe('scored');
  expect(stageOf({ ...BASE, waiting: 1 }, [])).toBe('takes');
  expect(stageOf({ ...BASE, failed: 1 }, [])).toBe('takes');
  expect(stageOf(BASE, ['sound'])).toBe('measured');
  expect(stageOf(BASE, [])).toBe('scored');
  // Without rules there is nothing to be scored by.
  expect(stageOf(BASE, null)).toBe('measured');
  const published = (published_on: string) => ({ ...BASE, review_id: '1', published_on });
  expect(stageOf(published('2026-02-01'), [])).toBe('published');
  expect(stageOf(published('2026-02-01'), null)).toBe('published');
  // Tested again since; points that are missing; an analysis that failed.
  expect(stageOf(published('2026-01-31'), [])).toBe('scored');
  expect(stageOf(published('2026-02-01'), ['sound'])).toBe('measured');
  expect(stageOf({ ...published('2026-02-01'), failed: 1 }, [])).toBe('takes');
});

it('enters the ranking with its first figure, not with a take alone', () => {
  const measured = unitFacts('1', [fact('noiseReSpeechA', -60)], [], []);
  expect(isTested(BASE, measured, criteria)).toBe(true);
  expect(isTested({ ...BASE, takes: 0, last_tested: null }, measured, criteria)).toBe(false);
  expect(isTested(BASE, unitFacts('1', [], [], []), criteria)).toBe(false);
  expect(isTested(BASE, undefined, criteria)).toBe(false);
  // Points by hand and a price are no test of a kind that is measured.
  expect(isTested(BASE, unitFacts('1', [], points(HAND), [price(90, 'street', '2026-01-01')]), criteria)).toBe(false);
});

it('of a kind that is not measured enters with a table that counts, or with anything but a price after a run', () => {
  const cell = { protocol: 'input-stage', step: 'latency', row: '48 kHz', column: '64' };
  const table = [{ id: 'wait', name: 'Wait', meaning: 'm', kind: 'table', ...cell, curve: [[5, 5]], repeatability: 0 }] as const; // prettier-ignore
  const ofTables = { ...BASE, takes: 0 };
  const withCell = { ...unitFacts('1', [], [], []), cells: { 'input-stage/latency/48 kHz/64': 7 } };
  expect(isTested(ofTables, withCell, table)).toBe(true);
  expect(isTested(ofTables, { ...withCell, cells: {} }, table)).toBe(false);
  const byHand = criteria.filter((c) => c.kind === 'by-hand' || c.kind === 'price');
  expect(isTested(ofTables, unitFacts('1', [], points(HAND), []), byHand)).toBe(true);
  expect(isTested(ofTables, unitFacts('1', [], [], [price(90, 'street', '2026-01-01')]), byHand)).toBe(false);
  expect(isTested({ ...ofTables, last_tested: null }, unitFacts('1', [], points(HAND), []), byHand)).toBe(false);
});

it('shows its figures with their ±, missing ones as missing, and what has to be given by hand', () => {
  const unit = unitFacts('1', [fact('noiseReSpeechA', -60), fact('rearRejection', null)], points(HAND.slice(0, 1)), []);
  const row = specimenRow(BASE, unit, undefined, criteria, NO_SCATTERS, {});
  expect(row).toMatchObject({
    stage: 'measured',
    // What was not measured is no figure of a list.
    figures: [{ quantity: 'noiseReSpeechA', value: -60, uncertainty: 0.4, bound: 'exact' }],
    place: null,
    hasRules: true,
    missingPoints: HAND.slice(1),
  });
  const scored = specimenRow(BASE, unitFacts('1', [], points(HAND), []), undefined, criteria, NO_SCATTERS, {});
  expect([scored.stage, scored.missingPoints]).toEqual(['scored', []]);
});

it('lists each kind by its own figures', () => {
  const unit = unitFacts(
    '1',
    [fact('noiseReSpeechA', -60), fact('einA', -128), fact('noiseFigure', 3), fact('gainAdded', 25)],
    [],
    [],
  );
  const shown = (category: SpecimenBase['category']) =>
    specimenRow({ ...BASE, category }, unit, undefined, null, NO_SCATTERS, {}).figures.map((f) => f.quantity);
  expect(shown('interface')).toEqual(['einA', 'noiseFigure']);
  expect(shown('booster')).toEqual(['gainAdded']);
});

it('shows the price that counts: by the rules, or the newest where there are none', () => {
  const prices = [price(90, 'sale', '2026-02-01'), price(129, 'street', '2026-01-01')];
  const unit = unitFacts('1', [], [], prices);
  expect(specimenRow(BASE, unit, undefined, criteria, NO_SCATTERS, {}).price).toMatchObject({
    amount: 129,
    kind: 'street',
  });
  expect(specimenRow(BASE, unit, undefined, null, NO_SCATTERS, {})).toMatchObject({
    price: { amount: 90 },
    hasRules: false,
  });
  expect(specimenRow(BASE, unitFacts('1', [], [], []), undefined, criteria, NO_SCATTERS, {}).price).toBeNull();
});

it('names say what is on the desk and what watches over the rig', () => {
  expect(namesOf([BASE, { ...BASE, id: '2' }], new Set(['2']))).toMatchObject({
    1: { maker: 'Oarlock', onDesk: true, isControl: false, lastTested: '2026-02-01' },
    2: { isControl: true },
  });
});

it('another reading differs by what repeats of its kind show, by more than this take says', () => {
  const readings = [0, 1.5, -1.5, 0.8].map((off, i) => ({
    quantity: 'noiseReSpeechA',
    group: `unit ${i >> 1}`,
    value: -60 + off,
    uncertainty: 0.1,
  }));
  const ofMicrophones = scattersOf([...readings, { ...readings[0], quantity: 'no figure of ours' }]);
  expect([...ofMicrophones.keys()]).toEqual(['noiseReSpeechA']);
  const figure = { quantity: 'noiseReSpeechA', value: -60, uncertainty: 0.1, bound: 'exact' } as const;
  const wild = readingAgain(figure, ofMicrophones) ?? 0;
  expect(wild).toBeGreaterThan(0.3);
  const steady = scattersOf(readings.map((r) => ({ ...r, value: -60 })));
  expect(readingAgain(figure, steady) ?? 9).toBeLessThan(wild);
  // A limit has no other reading, and what was not measured has none.
  expect(readingAgain({ ...figure, bound: 'at-most' }, ofMicrophones)).toBeNull();
  expect(readingAgain({ ...figure, value: null }, ofMicrophones)).toBeNull();

  const unit = withScatter(
    unitFacts('1', [fact('noiseReSpeechA', -60), fact('rearRejection', null)], [], []),
    criteria,
    ofMicrophones,
  );
  expect(unit.figures['noiseReSpeechA'].between).toBeGreaterThan(0.3);
  expect(unit.figures['rearRejection'].between).toBeUndefined();
});
