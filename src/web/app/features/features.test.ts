import { describe, expect, it } from 'vitest';
import { rankUnits } from '#core/rules/rank';
import type { Rubric } from '#core/rules/rubric';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { UnitMeasurement } from '#contracts/measurement';
import type { Run, SpecimenRow, SpecimenSheet, Take } from '#contracts/specimen';
import { countingRun, priceGap } from '#domain/catalogue/counting-run';
import { changeOfTake, settingsOfTake } from './unit/take-change';
import { nextStep, stalePrices } from './bench/next-step';
import { figureColumns, filterRows } from './gear/gear';
import {
  asNamed,
  documentOf,
  emptyDraft,
  fillFromDocument,
  loadDraft,
  matched,
  newFile,
  saveDraft,
  startingProtocol,
  whatIsMissing,
  withGain,
  withStep,
  type Draft,
  type DraftFile,
} from './new-run/draft';
import { rankingLines, standingSentences, unitUnderTest } from './ranking/standing';
import { added, moved, segmentRows, without } from './take/segment-list';
import { distanceChart, responseChart } from './unit/measured-charts';
import { measuredGroups } from './unit/measured-groups';
import { sheetOutline } from './unit/sheet-outline';
import { sharedNotes, takeNotes, takeSetup } from './unit/take-notes';
import { cameWords, classWords, whyNotRanked } from './unit/unit-summary';
import { emptyProtocol } from './protocols/protocol-draft';
import { protocolSchema, stepSchema, type Step } from '#contracts/protocol';
import { curvesSchema } from '#contracts/curves';
import type { Segments } from '#contracts/segments';
import { runDocumentSchema } from '#contracts/run-document';
import { paletteActions } from '../palette-actions';

/** A step with what matters here. */
const step = (change: Partial<Step>): Step => stepSchema.parse({ ...emptyProtocol().steps[0], ...change });
const row = (change: Partial<SpecimenRow> = {}): SpecimenRow => ({
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
  ...change,
});

describe('the outline of a sheet', () => {
  const missing = (
    change: Partial<SpecimenRow>,
    runs: readonly Partial<Run>[] = [],
    sheet: Partial<SpecimenSheet> = {},
  ) =>
    Object.fromEntries(
      sheetOutline({ row: row(change), prices: [], sheet: [], runs, ...sheet } as unknown as SpecimenSheet, null)
        .filter((part) => part.missing !== '')
        .map((part) => [part.id, part.missing]),
    );
  const run = (change: Partial<Run> = {}): Partial<Run> => ({
    purpose: 'unit',
    takes: [],
    tables: [],
    measurements: [],
    curves: curvesSchema.parse({}),
    ...change,
  });

  it('says what is missing of a unit that nothing is known of', () => {
    expect(missing({ place: null, hasRules: false })).toEqual({
      'data-sheet': 'empty',
      prices: 'no price',
      takes: 'no takes',
      measured: 'no figures',
      heard: 'by nobody yet',
      points: 'no rules yet',
      place: 'not ranked',
    });
  });

  it('asks for no take of a unit of tables, and for no figure of a kind that has none', () => {
    const tables = run({ tables: [{ step: 'isolation', cells: [], title: '', unit: '', cell: '' }] });
    expect(missing({ category: 'headphones' }, [tables])).toEqual({ 'data-sheet': 'empty', prices: 'no price', heard: 'by nobody yet' }); // prettier-ignore
    expect(missing({ category: 'accessory' }, [run({ takes: [{ analysis: { status: 'done' }, summary: null } as unknown as Take] })])['measured']).toBeUndefined(); // prettier-ignore
    expect(missing({ category: 'interface' }, [tables])['measured']).toBe('no figures');
  });

  it('counts what failed and what is missing, and a sheet that was emptied as empty', () => {
    const failed = run({ takes: [{ analysis: { status: 'failed' }, summary: null } as unknown as Take] });
    const taken = { field: 'weight', value: null, date: '2026-05-02', reason: '' };
    expect(missing({ missingPoints: ['sound'], heardAnswers: 2 }, [failed], { sheet: [taken] })).toMatchObject({
      takes: '1 failed',
      points: '1 missing',
      'data-sheet': 'empty',
    });
  });
});

describe('the first look at a unit', () => {
  const sheet = (change: Partial<SpecimenRow>, purposes: Run['purpose'][] = ['unit']) => ({
    row: row(change),
    runs: purposes.map((purpose) => ({ purpose, source: 'lent' }) as Run),
  });
  it('says what it is by the classes of its kind', () => {
    const classes = { connection: ['USB-C'], loopback: ['no'], pattern: ['omni'] };
    expect(classWords(sheet({ category: 'interface', classes }))).toEqual(['USB-C', 'loopback: no']);
    expect(classWords(sheet({}))).toEqual([]);
  });
  it('says how it came and when it was tested', () => {
    expect(cameWords(sheet({}))).toBe('lent, tested 2026-05-02, on the desk');
    expect(cameWords(sheet({ firstTested: '2025-01-01', onDesk: false }))).toBe('lent, tested 2025-01-01 to 2026-05-02, put away'); // prettier-ignore
    expect(cameWords(sheet({ firstTested: null, lastTested: null }, []))).toBe('not tested, on the desk');
  });
  it('says truly why it has no place', () => {
    expect(whyNotRanked(sheet({ hasRules: false }))).toMatch(/no rules/);
    expect(whyNotRanked(sheet({ lastTested: null }, []))).toBe('not tested yet');
    expect(whyNotRanked(sheet({}, ['opening', 'closing']))).toMatch(/the rig’s/);
    expect(whyNotRanked(sheet({ failedAnalyses: 1, waitingAnalyses: 1 }))).toBe('an analysis failed');
    expect(whyNotRanked(sheet({ waitingAnalyses: 1 }))).toBe('being measured');
    expect(whyNotRanked(sheet({}))).toMatch(/nothing that its rules count/);
  });
});

describe('bench', () => {
  it('names the next step, what is wrong first', () => {
    expect(nextStep(row({ failedAnalyses: 2, waitingAnalyses: 1 }))).toMatchObject({
      text: '2 analyses failed',
      kind: 'attention',
      to: { fragment: 'takes' },
    });
    expect(nextStep(row({ takes: 0, lastTested: null }))).toMatchObject({
      text: 'No takes yet',
      to: { screen: '/new-run' },
    });
    // A unit of which only tables were filled in has been tested.
    expect(nextStep(row({ takes: 0, hasRules: false, place: null, review: null })).text).toBe(
      'Measured, nothing published',
    );
    expect(nextStep(row({ waitingAnalyses: 1, missingPoints: ['sound'] }))).toMatchObject({ kind: 'wait' });
    expect(nextStep(row({ missingPoints: ['sound', 'build'] }))).toMatchObject({
      text: 'Points missing: sound, build',
      to: { fragment: 'points' },
    });
    expect(nextStep(row())).toEqual({ kind: 'done', text: 'Published 2026-05-04', action: 'Look at its place', to: { fragment: 'place' } }); // prettier-ignore
    // Nothing is scored where there are no rules, and nothing done where the unit is not ranked.
    expect(nextStep(row({ hasRules: false, place: null }))).toMatchObject({ kind: 'done', to: { fragment: 'takes' } });
    expect(nextStep(row({ place: null }))).toMatchObject({ kind: 'attention', text: 'Scored, not ranked' });
  });

  it('goes on with a review: one that is not begun, one that is, one that is older than the last test', () => {
    expect(nextStep(row({ review: null }))).toMatchObject({ kind: 'open', text: 'Scored, nothing published', to: { screen: '/reviews' } }); // prettier-ignore
    // A second one is not begun beside the first.
    expect(nextStep(row({ review: { id: '7', publishedOn: null } }))).toMatchObject({ kind: 'work', to: { review: '7' } }); // prettier-ignore
    expect(nextStep(row({ lastTested: '2026-05-05' }))).toMatchObject({ text: 'Tested again since it was published 2026-05-04', to: { review: '7' } }); // prettier-ignore
    // Published on the day of the test: written after it.
    expect(nextStep(row({ lastTested: '2026-05-04' })).kind).toBe('done');
  });

  it('asks for a new price after 90 days, of units on the desk only', () => {
    const rows = [row({ id: '1' }), row({ id: '2', onDesk: false }), row({ id: '3', price: null })];
    expect(stalePrices(rows, '2026-07-30').map((r) => r.id)).toEqual([]);
    expect(stalePrices(rows, '2026-07-31').map((r) => r.id)).toEqual(['1']);
  });
});

describe('correcting a take of the archive', () => {
  const take = {
    id: '9',
    gainDb: 36,
    distanceM: 0.15,
    angleDeg: 0,
    levelDbSpl: null,
    levelDbu: -20,
    windSpeedMs: null,
    settings: { pad: '−10', phantom: true, recorder: 'small one' },
    note: '',
  } as unknown as Take;

  it('starts from what is noted, and keeps what the form has no field for', () => {
    const form = settingsOfTake(take);
    expect(form).toMatchObject({ gainDb: 36, pad: '−10', phantom: true, voice: null, dial: '' });
    expect(changeOfTake(take, form, '')).toEqual({
      kind: 'take',
      take: '9',
      gainDb: 36,
      distanceM: 0.15,
      angleDeg: 0,
      levelDbSpl: null,
      levelDbu: -20,
      windSpeedMs: null,
      settings: { recorder: 'small one', pad: '−10', phantom: true },
      note: '',
    });
  });

  it('tells what was switched off from what nobody noted, and refuses to lose the gain', () => {
    const off = changeOfTake(take, { ...settingsOfTake(take), phantom: false, pad: '' }, ' moved ');
    expect(off?.settings).toEqual({ recorder: 'small one', phantom: false });
    expect(off?.note).toBe('moved');
    const bare = { ...take, settings: {} };
    expect(changeOfTake(bare, { ...settingsOfTake(bare), phantom: false }, '')?.settings).toEqual({});
    expect(changeOfTake(take, { ...settingsOfTake(take), gainDb: null }, '')).toBeNull();
  });
});

describe('what counts of a unit', () => {
  const figure = (quantity: 'noiseReSpeechA' | 'rearRejection', value: number | null): UnitMeasurement => ({
    quantity,
    value,
    uncertainty: 0.2,
    bound: 'exact',
    condition: '',
    notMeasured: value === null ? 'no such take' : null,
    settings: {},
    spread: null,
    anotherReading: null,
  });
  const run = (date: string, purpose: Run['purpose'], measurements: UnitMeasurement[]): Run => ({
    id: date,
    date,
    protocol: 'desk-voice',
    protocolVersion: 3,
    source: 'own',
    purpose,
    rig: null,
    takes: [],
    undecided: [],
    tables: [],
    corrections: [],
    measurements,
    curves: curvesSchema.parse({}),
  });

  it('is the newest of every figure, with the day of those that the newest run does not have', () => {
    const runs = [
      run('2026-05-01', 'unit', [figure('noiseReSpeechA', -62), figure('rearRejection', null)]),
      run('2026-04-01', 'unit', [figure('noiseReSpeechA', -60), figure('rearRejection', 12)]),
    ];
    const counting = countingRun(runs);
    expect(counting?.run.measurements.map((m) => m.value)).toEqual([-62, 12]);
    expect([...(counting?.older ?? [])]).toEqual([['rearRejection', '2026-04-01']]);
    expect(counting?.isControlOnly).toBe(false);
  });

  it('is never a run that closes a session, unless there is no other; then that is said', () => {
    const control = run('2026-06-01', 'closing', [figure('noiseReSpeechA', -50)]);
    const own = run('2026-04-01', 'unit', [figure('noiseReSpeechA', -60)]);
    expect(countingRun([control, own])?.run.measurements[0].value).toBe(-60);
    expect(countingRun([control])).toMatchObject({ isControlOnly: true, run: { date: '2026-06-01' } });
    expect(countingRun([])).toBeNull();
  });

  it('knows a price in a currency that the rules do not count', () => {
    const price = { amount: 75, currency: 'GBP', kind: 'street', date: '2026-05-01' } as const;
    const rules: Rubric = {
      id: 't',
      version: 1,
      name: 'T',
      category: 'microphone',
      stratumProbability: 0.9,
      weights: {},
      criteria: [
        { id: 'v', name: 'Value', meaning: '', kind: 'price', currency: 'EUR', basis: ['street'], curve: [[0, 5]], limit: null }, // prettier-ignore
      ],
    };
    expect(priceGap([], rules)).toBe('no price');
    expect(priceGap([price], rules)).toBe('none in EUR');
    expect(priceGap([price], null)).toBe('');
  });
});

describe('gear', () => {
  it('finds rows that hold every word, of the kind that is chosen', () => {
    const rows = [
      { name: 'Oarlock Purser · A', category: 'microphone' },
      { name: 'Oarlock Winch · B', category: 'booster' },
    ] as const;
    expect(filterRows(rows, 'oar purs', null)).toEqual([rows[0]]);
    expect(filterRows(rows, 'oarlock', 'booster')).toEqual([rows[1]]);
    expect(filterRows(rows, '', null)).toHaveLength(2);
  });

  const columns = (...kinds: SpecimenRow['category'][]) => figureColumns(kinds.map((category) => ({ category })));
  const names = (...kinds: SpecimenRow['category'][]) => columns(...kinds).map((c) => c.name);

  it('has a column for each key figure of the kind that is listed, and of microphones where none is', () => {
    expect(names('microphone', 'field-microphone')).toEqual(['Noise re speech', 'Rear rejection']);
    expect(names('interface')).toEqual(['Input noise', 'Noise figure']);
    expect(columns('interface')[0].field).toBe('byQuantity.einA.value');
    expect(names()).toEqual(names('microphone'));
  });

  it('of several kinds shows each row by its own figures, which no order compares', () => {
    const [first, second] = columns('interface', 'microphone');
    expect([first.name, first.field, second.name, second.field]).toEqual(['First figure', null, 'Second figure', null]);
    expect([first.of('microphone'), first.of('interface')]).toEqual(['noiseReSpeechA', 'einA']);
    expect([second.of('microphone'), second.of('interface')]).toEqual(['rearRejection', 'noiseFigure']);
  });
});

describe('new run', () => {
  const clip = {
    sha256: 'a'.repeat(64),
    bytes: 1,
    name: 'x',
    format: { container: 'wav', encoding: 'pcm24', sampleRateHz: 48_000, channels: 1, durationS: 3 },
    salvaged: null,
    origin: null,
    channelOf: null,
  } as const;
  const file = (name: string, step: string | null): DraftFile => ({
    name,
    clip,
    step,
    reason: '',
    stepBy: 'match',
    gainDb: 40,
    dial: '',
    gainFrom: null,
    isGainTouched: true,
    distanceM: null,
    angleDeg: null,
  });
  const steps = [
    step({ id: 'speech', title: 'Passage', fileHints: ['speech'], distanceM: 0.15, angleDeg: 0 }),
    step({ id: 'rear', title: 'From behind', fileHints: ['rear', 'back'], distanceM: 0.15, angleDeg: 180 }),
    step({ id: 'silence', title: 'Silence', fileHints: ['silence'] }),
  ];
  const full = (): Draft => ({
    ...emptyDraft(),
    maker: 'Oarlock',
    model: 'Purser',
    label: 'A',
    amount: 129,
    protocol: 'desk-voice',
    protocolVersion: 3,
    points: { sound: 4, build: null },
    files: [file('a.wav', 'speech'), file('b.wav', null)],
  });

  it('says what is still needed', () => {
    const nothing = ['maker', 'model', 'label', 'the protocol', 'at least one file with its step'];
    expect(whatIsMissing(emptyDraft(), [])).toEqual(nothing);
    expect(whatIsMissing(full(), steps)).toEqual([]);
    expect(
      whatIsMissing(
        { ...full(), files: [{ ...file('a.wav', 'speech'), clip: null, gainDb: null }, file('b.wav', 'speech')] },
        steps,
      ),
    ).toEqual(['uploads to finish', 'the gain of every take']);
    // A match of another protocol is no match.
    expect(whatIsMissing({ ...full(), files: [file('a.wav', 'walk')] }, steps)).toEqual([
      'a step of this protocol for a.wav',
    ]);
    const alike = [{ maker: 'Oarlock', model: 'Purser', label: 'a' }];
    expect(whatIsMissing(full(), steps, alike)).toEqual(['whether it is one of the units written alike']);
    expect(whatIsMissing({ ...full(), isAnother: 'Oarlock/Purser/A' }, steps, alike)).toEqual([]);
  });

  it('takes what stands at a dial instead of decibels, and gives it back with the settings', () => {
    const dial = { kind: 'dial', position: '50 %' } as const;
    const files = withGain([{ ...file('a.wav', 'speech'), settings: { pad: 'off' } }, newFile('b.wav')], 'a.wav', dial);
    expect(files.map((f) => [f.gainDb, f.dial, f.gainFrom])).toEqual([
      [null, '50 %', null],
      [null, '50 %', 'a.wav'],
    ]);
    expect(whatIsMissing({ ...full(), files }, steps)).toEqual([]);
    expect(documentOf({ ...full(), files }).takes[0]).toMatchObject({ gainDb: null, settings: { pad: 'off', dial: '50 %' } }); // prettier-ignore
  });

  it('copies a gain once it is typed whole, and only into rows that nobody has touched', () => {
    const fresh = ['a', 'b', 'c'].map((name) => newFile(`${name}.wav`));
    const typed = withGain(fresh, 'a.wav', { kind: 'dB', db: 30 });
    expect(typed.map((f) => [f.gainDb, f.gainFrom])).toEqual([
      [30, null],
      [30, 'a.wav'],
      [30, 'a.wav'],
    ]);
    const own = withGain(typed, 'b.wav', { kind: 'dB', db: 36 });
    expect(own.map((f) => f.gainDb)).toEqual([30, 36, 36]);
    // Emptied by hand stays empty; what was typed elsewhere is not copied over it.
    const emptied = withGain(own, 'c.wav', null);
    expect(withGain(emptied, 'a.wav', { kind: 'dB', db: 28 }).map((f) => f.gainDb)).toEqual([28, 36, null]);
  });

  it('copies a gain only as far as the protocol says that it is one', () => {
    const peaks = { rule: 'peaks', lowDbfs: -12, highDbfs: -9 } as const;
    const as = (step: string, byDb = 0) => ({ rule: 'as-step', step, byDb }) as const;
    const gains = [['without', peaks], ['silence-without', as('without')], ['close', as('silence-without', -12)], ['with', peaks], ['silence-with', as('with')]] as const; // prettier-ignore
    const rules = gains.map(([id, gain]) => ({ id, gain }));
    const files = gains.map(([id]) => ({ ...newFile(`${id}.wav`), step: id }));
    const first = withGain(files, 'silence-without.wav', { kind: 'dB', db: 50 }, rules);
    expect(first.map((f) => f.gainDb)).toEqual([50, 50, 38, null, null]);
    expect(withGain(first, 'with.wav', { kind: 'dB', db: 30 }, rules).map((f) => f.gainDb)).toEqual([50, 50, 38, 30, 30]); // prettier-ignore
    // Typed where the gain is turned down, the others lie above; of a dial it is not known how far.
    expect(withGain(files, 'close.wav', { kind: 'dB', db: 30 }, rules)[0].gainDb).toBe(42);
    expect(withGain(files, 'without.wav', { kind: 'dial', position: '7' }, rules).map((f) => f.dial)).toEqual(['7', '7', '', '', '']); // prettier-ignore
    expect(withGain(files, 'without.wav', { kind: 'dB', db: 5 }, rules)[2].gainDb).toBe(0);
  });

  it('matches anew for another protocol, and keeps what a person has said as long as there is such a step', () => {
    const files = ['speech.wav', 'back.wav', 'x.wav'].map(newFile);
    const first = matched(files, steps);
    expect(first.map((f) => f.step)).toEqual(['speech', 'rear', 'silence']);
    expect(first[1]).toMatchObject({ angleDeg: 180, stepBy: 'match' });
    const byHand = withStep(first, 'x.wav', 'silence', steps);
    const others = [step({ id: 'talk', title: 'Talk', fileHints: ['speech'], distanceM: 0.3 }), steps[2]];
    const again = matched(byHand, others);
    expect(again.map((f) => [f.step, f.distanceM])).toEqual([
      ['talk', 0.3],
      [null, null],
      ['silence', null],
    ]);
    expect(matched(byHand, [others[0]]).map((f) => f.step)).toEqual(['talk', null, null]);
  });

  it('starts with the protocol used last: here, else by anybody, in its newest version', () => {
    const version = (id: string, n: number, lastUsed: string | null) => ({
      protocol: protocolSchema.parse({ ...emptyProtocol(), id, version: n }),
      runs: 1,
      isFrozen: true,
      firstUsed: lastUsed,
      lastUsed,
    });
    const versions = [version('a', 1, '2026-03-01'), version('b', 1, '2026-04-01'), version('b', 2, null)];
    expect(startingProtocol(versions, 'microphone', null)).toEqual({ protocol: 'b', protocolVersion: 2 });
    const last = { category: 'microphone', protocol: 'a', rig: null, source: 'own', currency: 'EUR' } as const;
    expect(startingProtocol(versions, 'microphone', last)).toEqual({ protocol: 'a', protocolVersion: 1 });
    expect(startingProtocol(versions, 'booster', last)).toBeNull();
  });

  it('amounts to a sound run document; what is empty is missing, not zero', () => {
    const document = runDocumentSchema.parse(documentOf(full()));
    expect(document.takes).toEqual([{ step: 'speech', file: 'a.wav', gainDb: 40 }]);
    expect(document.points).toEqual([{ criterion: 'sound', value: 4 }]);
    expect(document.prices).toMatchObject([{ amount: 129, kind: 'street' }]);
    expect(documentOf({ ...full(), amount: null }).prices).toEqual([]);
  });

  it('is filled in from a run.json, and gives the same document back', () => {
    const document = runDocumentSchema.parse({
      ...documentOf(full()),
      date: '2026-05-02',
      prices: [
        { amount: 99, currency: 'EUR', kind: 'sale', date: '2026-04-01' },
        { amount: 129, currency: 'EUR', kind: 'street', date: '2026-05-01' },
      ],
      takes: [
        {
          step: 'rear',
          file: 'a.wav',
          gainDb: 38,
          distanceM: 0.2,
          angleDeg: 180,
          levelDbSpl: 94,
          windSpeedMs: 3,
          note: 'window open',
          settings: { pad: '−10', phantom: true },
          overruled: [{ check: 'level', what: 'soft', reason: 'whispered' }],
        },
      ],
      claims: [{ quantity: 'selfNoise', value: 14, unit: 'dB SPL(A)', condition: 'A-weighted' }],
      inputFullScaleDbu: 12,
      rig: 'Desk',
      purpose: 'opening',
      tables: [{ step: 'latency', cells: [{ row: '48', column: '64', value: 5.4, source: 'typed' }] }],
      points: [{ criterion: 'build', value: 3, reason: 'solid' }],
    });
    const { draft, notes } = fillFromDocument(
      { ...emptyDraft(), files: [file('a.wav', null), file('extra.wav', 'speech')] },
      document,
    );
    expect(notes).toEqual(['Filled in from run.json.']);
    expect(documentOf(draft)).toEqual(document);
    expect(draft.files[1].step).toBeNull();
    const early = fillFromDocument(emptyDraft(), document);
    expect(early.notes[1]).toMatch(/not here yet: a\.wav/);
    // The files may come after their run.json.
    expect(asNamed([newFile('a.wav')], early.draft.named)[0]).toMatchObject({
      step: 'rear',
      gainDb: 38,
      angleDeg: 180,
    });
    expect(fillFromDocument(full(), { format: 'x' })).toEqual({
      draft: full(),
      notes: [expect.stringMatching(/run\.json was not used/)],
    });
  });

  it('keeps of a run.json what can be read, and names the rest', () => {
    const raw = {
      ...documentOf(full()),
      claims: [
        { quantity: 'selfNoise', value: 14, unit: 'dB SPL(A)', condition: 'A-weighted' },
        { quantity: 'sensitvity', value: -40, unit: 'dBV/Pa' },
      ],
      source: 'found',
      colour: 'red',
    };
    const { draft, notes } = fillFromDocument({ ...emptyDraft(), files: [file('a.wav', null)] }, raw);
    expect(draft.claims.map((c) => c.quantity)).toEqual(['selfNoise']);
    expect([draft.maker, draft.source, draft.files[0].step]).toEqual(['Oarlock', 'bought', 'speech']);
    expect(notes.join('\n')).toMatch(/entry 2 of “claims” \(sensitvity\) was left out: quantity/);
    expect(notes.join('\n')).toMatch(/“source” was left out/);
    expect(notes.join('\n')).toMatch(/“colour” was left out: a run has no such field/);
  });

  it('survives a reload, and a draft of another version does no harm', () => {
    const kept = new Map<string, string>();
    const storage = {
      getItem: (k: string) => kept.get(k) ?? null,
      setItem: (k: string, v: string) => void kept.set(k, v),
    };
    expect(loadDraft(storage)).toEqual(emptyDraft());
    saveDraft(storage, full());
    expect(loadDraft(storage)).toEqual(full());
    for (const key of kept.keys()) kept.set(key, '{"maker":1}');
    expect(loadDraft(storage)).toEqual(emptyDraft());
  });
});

describe('ranking', () => {
  const rubric: Rubric = {
    id: 't',
    version: 1,
    name: 'T',
    category: 'microphone',
    stratumProbability: 0.9,
    weights: { sound: 1, build: 1 },
    criteria: [
      { id: 'sound', name: 'Sound', meaning: '…', kind: 'by-hand', repeatability: 0.2 },
      { id: 'build', name: 'Build', meaning: '…', kind: 'by-hand', repeatability: 0.2 },
    ],
  };
  const unit = (id: string, sound: number | null, build: number): UnitFacts => ({
    id,
    figures: {},
    prices: [],
    byHand: {
      build: { value: build, reason: null },
      ...(sound === null ? {} : { sound: { value: sound, reason: null } }),
    },
  });
  const ranked = rankUnits([unit('a', 5, 4.9), unit('b', 2, 2), unit('c', 2, 1.9), unit('d', null, 2)], rubric);
  const names = Object.fromEntries(
    ['a', 'b', 'c', 'd'].map((id, i) => [
      id,
      {
        maker: 'M',
        model: id.toUpperCase(),
        label: 'x',
        onDesk: i > 0,
        isControl: false,
        lastTested: `2026-01-0${i + 1}`,
      },
    ]),
  );

  it('has a head per stratum, in words that its figures give', () => {
    const lines = rankingLines(ranked);
    expect(lines[0]).toMatchObject({ kind: 'stratum', stratum: 1 });
    const share = Math.min(99, Math.floor(100 * (ranked[0].beatsNext ?? 0)));
    expect(lines[0].kind === 'stratum' && lines[0].words).toBe(`One unit; it beats the next one down with ${share} %`);
    expect(lines.filter((l) => l.kind === 'unit')).toHaveLength(4);
    expect(lines.filter((l) => l.kind === 'stratum').length).toBe(ranked[3].stratum);
  });

  it('asks about the unit on the desk that was tested last', () => {
    expect(unitUnderTest(ranked, names)?.id).toBe('d');
    // A control unit is heard in every session, and asked about only where nothing else is in hand.
    const control = { ...names, d: { ...names['d'], isControl: true } };
    expect(unitUnderTest(ranked, control)?.id).toBe('c');
    const alone = Object.entries(control).map(([id, n]) => [id, { ...n, onDesk: id === 'd' }] as const);
    expect(unitUnderTest(ranked, Object.fromEntries(alone))?.id).toBe('d');
    expect(
      unitUnderTest(ranked, Object.fromEntries(Object.entries(names).map(([id, n]) => [id, { ...n, onDesk: false }]))),
    ).toBeNull();
  });

  it('tells a newcomer where a unit settles, with whom, how surely, and what is missing', () => {
    const criteria = new Map([
      ['sound', 'Sound'],
      ['build', 'Build'],
    ]);
    const top = standingSentences(ranked[0], ranked, names, criteria);
    expect(top[0]).toBe(
      'Place 1 of 4; with 90 % probability between 1 and 1.'.replace('and 1.', `and ${ranked[0].rank90[1]}.`),
    );
    expect(top[1]).toContain('to itself');
    expect(top[2]).toMatch(/beats the next one down, M .* with a probability of \d+ %/);
    const gap = ranked.find((u) => u.id === 'd');
    expect(gap && standingSentences(gap, ranked, names, criteria).join(' ')).toContain('Missing: Sound.');
  });
});

describe('notes on a take', () => {
  const summary = (change: Record<string, unknown> = {}) => ({
    format: { container: 'wav', encoding: 'pcm24', sampleRateHz: 48_000, channels: 1, durationS: 3 },
    level: { peakDbfs: -10, rmsDbfs: -25, crestDb: 18, dcOffset: 0, clippedRuns: 0 },
    loudness: { integratedLufs: -25, truePeakDbtp: -9.5 },
    noise: {
      speech: [{ startS: 0, endS: 1 }],
      silence: [],
      silenceRmsDbfs: { z: -65, a: -70 },
      reSpeechDb: { z: null, a: null },
      thirdOctave: [],
    },
    thirdOctave: [],
    hum: null,
    interference: null,
    dropOuts: { count: 0, listed: [] },
    ...change,
  });
  const take = (step: string, change: Record<string, unknown> = {}, salvaged: unknown = null): Take =>
    ({ step, clip: { salvaged }, overruled: [], settings: {}, summary: summary(change) }) as unknown as Take;
  const texts = (t: Take): string =>
    takeNotes(t)
      .map((n) => n.text)
      .join(' ');

  it('repeats what was overruled, with its reason', () => {
    const overruled = [{ check: 'clipped', what: 'Clipped twice.', reason: 'the limiter is tested' }];
    expect(texts({ ...take('speech'), overruled })).toContain('Clipped twice. Because: the limiter is tested');
  });

  it('says nothing of a good take', () => {
    expect(takeNotes(take('speech'))).toEqual([]);
  });

  it('names clipping, hot and quiet takes, sound in the silence, silence in the speech, and parts', () => {
    const level = summary().level;
    expect(texts(take('speech', { level: { ...level, clippedRuns: 3 } }))).toContain('Clipped in 3 places');
    expect(texts(take('speech', { loudness: { integratedLufs: -12, truePeakDbtp: -0.4 } }))).toContain('Loud');
    expect(texts(take('speech', { level: { ...level, peakDbfs: -40 } }))).toContain('Very quiet');
    expect(texts(take('silence'))).toContain('Something is heard');
    expect(texts(take('rear', { noise: { ...summary().noise, speech: [] } }))).toContain('No speech');
    expect(texts(take('speech', { level: { ...level, peakDbfs: null } }))).toContain('Digital silence');
    expect(texts(take('speech', {}, { claimedS: 12 }))).toContain('of 12.0 s');
    const hole = { kind: 'gap', startS: 1.25, lengthS: 0.02 };
    expect(texts(take('speech', { dropOuts: { count: 3, listed: [hole] } }))).toContain(
      '3 drop-outs, the first a gap at 1.25 s',
    );
    expect(texts(take('silence', { hum: { mainsHz: 50, totalDbfs: -71.2, lines: [] } }))).toContain(
      'Hum of 50 Hz mains at −71.2 dBFS',
    );
    const family = { spacingHz: 1000, totalDbfs: -80, linesHz: [1000] };
    expect(texts(take('silence', { interference: { lines: [], busWhine: family, radioBursts: family } }))).toMatch(
      /Bus whine.*Radio bursts of a phone/,
    );
    // A sweep has no speech, and needs none.
    expect(takeNotes(take('sweep-0', { noise: { ...summary().noise, speech: [] } }), 'sweep')).toEqual([]);
  });

  it('that most takes of a run share are said once, whatever their levels', () => {
    const humming = (dbfs: number) => take('silence', { hum: { mainsHz: 50, totalDbfs: dbfs, lines: [] } });
    const clipped = take('speech', { level: { ...summary().level, clippedRuns: 1 } });
    const hum = 'Hum of 50 Hz mains: look for a ground loop or a supply nearby.';
    expect(sharedNotes([humming(-71), humming(-72), humming(-73), clipped]).find((n) => n.about === hum)?.takes).toBe(
      3,
    );
    // Two are no run, and three of seven no rule.
    expect(sharedNotes([humming(-71), humming(-72)])).toEqual([]);
    expect(sharedNotes([...[-71, -72, -73].map(humming), ...Array.from({ length: 4 }, () => clipped)]).map((n) => n.about)).toEqual(['Clipped in 1 place: turn the gain down and take it again.']); // prettier-ignore
  });

  it('say how it was made in one line', () => {
    const format = { container: 'wav', encoding: 'pcm24', sampleRateHz: 44_100, channels: 2, durationS: 3 } as const;
    const levels = { levelDbSpl: null, levelDbu: null, windSpeedMs: null };
    const made = { gainDb: 38, distanceM: 0.15, angleDeg: 180, ...levels, clip: { format }, settings: {} } as unknown as Take; // prettier-ignore
    expect(takeSetup(made)).toBe('38 dB gain, 15 cm, 180°, 44.1 kHz pcm24, 2 channels');
    expect(takeSetup({ ...made, gainDb: 37.5, distanceM: null, angleDeg: null })).toBe(
      '37.5 dB gain, 44.1 kHz pcm24, 2 channels',
    );
    expect(takeSetup({ ...made, distanceM: 0.025 })).toContain(', 2.5 cm,');
    expect(takeSetup({ ...made, gainDb: null, settings: { dial: '50 %' }, windSpeedMs: 6.7 })).toBe('dial at 50 %, 15 cm, 180°, wind of 6.7 m/s, 44.1 kHz pcm24, 2 channels'); // prettier-ignore
    expect(takeSetup({ ...made, settings: { pad: '−10 dB', phantom: true, lowCut: 'off' } })).toMatch(
      /pad −10 dB, phantom power on, low-cut off$/,
    );
  });
});

describe('segments of a take', () => {
  const segments: Segments = {
    speech: [{ startS: 1, endS: 2 }],
    silence: [{ startS: 3, endS: 5 }],
    events: [{ startS: 0.2, endS: 0.4 }],
  };
  it('are listed in the order of time', () => {
    expect(segmentRows(segments).map((r) => r.kind)).toEqual(['events', 'speech', 'silence']);
  });
  it('move within the clip, and never turn over', () => {
    const row = segmentRows(segments)[2];
    expect(moved(segments, row, 3.5, 9, 6).silence).toEqual([{ startS: 3.5, endS: 6 }]);
    expect(moved(segments, row, 4, 2, 6).silence).toEqual([{ startS: 4, endS: 4.05 }]);
    expect(moved(segments, row, -1, 2, 6)).toMatchObject({
      silence: [{ startS: 0, endS: 2 }],
      speech: segments.speech,
    });
  });
  it('are added where the cursor stands, and taken away', () => {
    expect(added(segments, 'speech', 0.1, 6).speech).toEqual([
      { startS: 0.1, endS: 1.1 },
      { startS: 1, endS: 2 },
    ]);
    expect(added(segments, 'events', 5.9, 6).events[1]).toEqual({ startS: 5.9, endS: 6 });
    expect(without(segments, segmentRows(segments)[0]).events).toEqual([]);
  });
});

describe('measured part of a unit', () => {
  const figure = (quantity: 'sensitivity' | 'selfNoise' | 'hum', value: number | null, bound = 'exact') =>
    ({
      quantity,
      value,
      bound,
      condition: '',
      spread: null,
      uncertainty: null,
      notMeasured: null,
      settings: {},
    }) as never;
  const claim = (quantity: 'sensitivity' | 'selfNoise', value: number, unit: string, condition = '') => ({
    quantity,
    value,
    unit,
    condition,
  });
  const units = [
    {
      id: '1',
      figures: { sensitivity: { value: 20, uncertainty: null, bound: 'exact', notMeasured: null } },
      byHand: {},
      prices: [],
    },
    {
      id: '2',
      figures: { sensitivity: { value: 12, uncertainty: null, bound: 'exact', notMeasured: null } },
      byHand: {},
      prices: [],
    },
  ] as const;

  it('is grouped as a reviewer thinks, with claims where they can be compared and the reason where not', () => {
    const groups = measuredGroups(
      [figure('hum', -80), figure('sensitivity', 20), figure('selfNoise', 26, 'at-most')],
      [claim('sensitivity', -34, 'dBV/Pa'), claim('selfNoise', 15, 'dB SPL')],
      units,
      '1',
    );
    expect(groups.map((g) => g.title)).toEqual(['How loud it must be driven', 'How noisy it is']);
    const [sensitivity] = groups[0].rows;
    expect(sensitivity.others).toEqual([12]);
    expect(sensitivity.claim).toMatchObject({ text: 'claimed −34 dBV/Pa', isComparable: true });
    expect(sensitivity.claim?.remark).toBe('measured 20.00 mV/Pa; difference +0.05 mV/Pa');
    expect(groups[1].rows.map((r) => [r.id, r.claim?.remark ?? null])).toEqual([
      ['hum', null],
      ['selfNoise', 'claimed unweighted or without a weighting, measured A-weighted'],
    ]);
  });

  it('draws the response re 500 Hz–2 kHz and leaves out what the gate hides', () => {
    const points = [50, 500, 1000, 2000, 8000].map((hz) => ({ hz, db: hz === 8000 ? -17 : -20, u: 0 }));
    const chart = responseChart({ points, lowestValidHz: 100, gateMs: 10 });
    expect(chart.series[0].points.map((p) => p.y)).toEqual([null, 0, 0, 0, 3]);
  });

  it('draws a ladder with its two parts; a free field has no reverberant one', () => {
    const rungs = [0.15, 0.3, 0.6].map((distanceM) => ({ distanceM, db: -20 * Math.log10(distanceM) }));
    const fit = { directDb: 0, reverberantDb: 0, criticalM: 1, critical95: null, residualDb: 0 };
    expect(distanceChart({ rungs, fit }).series).toHaveLength(4);
    expect(distanceChart({ rungs, fit }).marks?.[0].text).toBe('critical distance');
    const free = distanceChart({ rungs, fit: { ...fit, reverberantDb: null, criticalM: null } });
    expect(free.series).toHaveLength(3);
    expect(free.series[1].points[0].y).toBeCloseTo(-20 * Math.log10(0.12), 6);
  });
});

describe('what can be done from anywhere', () => {
  it('has a place for each thing a reviewer does, and none for what the unit cannot', () => {
    const labels = paletteActions([row({ id: '4' }), row({ id: '5', model: 'Winch', takes: 0, hasRules: false })]).map(
      (a) => a.label,
    );
    for (const words of [
      'New run',
      'price: Oarlock Purser',
      'Place by ear: Oarlock Purser',
      'Export Oarlock Purser',
      'Back up',
    ])
      expect(labels.filter((l) => l.includes(words)).length, words).toBeGreaterThan(0);
    expect(labels).not.toContain('Export Oarlock Winch · A');
    expect(labels).not.toContain('Give points: Oarlock Winch · A');
    expect(new Set(labels).size).toBe(labels.length);
  });
});
