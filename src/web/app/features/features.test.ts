import { describe, expect, it } from 'vitest';
import { rankUnits } from '#core/rules/rank';
import type { Rubric } from '#core/rules/rubric';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { SpecimenRow, Take } from '#contracts/specimen';
import { nextStep, stalePrices } from './bench/next-step';
import { filterRows } from './gear/gear';
import {
  documentOf,
  emptyDraft,
  fillFromDocument,
  loadDraft,
  saveDraft,
  whatIsMissing,
  type Draft,
  type DraftFile,
} from './new-run/draft';
import { rankingLines, standingSentences, unitUnderTest } from './ranking/standing';
import { takeNotes, takeSetup } from './unit/take-notes';
import { runDocumentSchema } from '#contracts/run-document';

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
  takes: 3,
  failedAnalyses: 0,
  waitingAnalyses: 0,
  missingPoints: [],
  price: { amount: 129, currency: 'EUR', kind: 'street', date: '2026-05-01' },
  noiseA: null,
  rejection: null,
  place: 1,
  stratum: 1,
  composite: 3,
  ...change,
});

describe('bench', () => {
  it('names the next step, what is wrong first', () => {
    expect(nextStep(row({ failedAnalyses: 2, waitingAnalyses: 1 }))).toMatchObject({
      text: '2 analyses failed',
      kind: 'attention',
      fragment: 'takes',
    });
    expect(nextStep(row({ takes: 0 }))).toMatchObject({ text: 'No takes yet', fragment: null });
    expect(nextStep(row({ waitingAnalyses: 1, missingPoints: ['sound'] }))).toMatchObject({ kind: 'wait' });
    expect(nextStep(row({ missingPoints: ['sound', 'build'] }))).toMatchObject({
      text: 'Points missing: sound, build',
      fragment: 'points',
    });
    expect(nextStep(row())).toMatchObject({ kind: 'done' });
  });

  it('asks for a new price after 90 days, of units on the desk only', () => {
    const rows = [row({ id: '1' }), row({ id: '2', onDesk: false }), row({ id: '3', price: null })];
    expect(stalePrices(rows, '2026-07-30').map((r) => r.id)).toEqual([]);
    expect(stalePrices(rows, '2026-07-31').map((r) => r.id)).toEqual(['1']);
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
});

describe('new run', () => {
  const clip = {
    sha256: 'a'.repeat(64),
    bytes: 1,
    name: 'x',
    format: { container: 'wav', encoding: 'pcm24', sampleRateHz: 48_000, channels: 1, durationS: 3 },
    salvaged: null,
  } as const;
  const file = (name: string, step: string | null): DraftFile => ({
    name,
    clip,
    step,
    reason: '',
    gainDb: 40,
    distanceM: null,
    angleDeg: null,
  });
  const full = (): Draft => ({
    ...emptyDraft(),
    maker: 'Oarlock',
    model: 'Purser',
    label: 'A',
    amount: 129,
    points: { sound: 4, build: null },
    files: [file('a.wav', 'speech'), file('b.wav', null)],
  });

  it('says what is still needed', () => {
    expect(whatIsMissing(emptyDraft())).toEqual(['maker', 'model', 'label', 'at least one file with its step']);
    expect(whatIsMissing(full())).toEqual([]);
    expect(
      whatIsMissing({
        ...full(),
        files: [{ ...file('a.wav', 'speech'), clip: null, gainDb: null }, file('b.wav', 'speech')],
      }),
    ).toEqual(['uploads to finish', 'the gain of every take', 'one file per step only']);
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
      takes: [{ step: 'rear', file: 'a.wav', gainDb: 38, distanceM: 0.2, angleDeg: 180 }],
      points: [{ criterion: 'build', value: 3, reason: 'solid' }],
    });
    const { draft, problem } = fillFromDocument(
      { ...emptyDraft(), files: [file('a.wav', null), file('extra.wav', 'speech')] },
      document,
    );
    expect(problem).toBeNull();
    expect(documentOf(draft)).toEqual(document);
    expect(draft.files[1].step).toBeNull();
    expect(fillFromDocument(emptyDraft(), document).problem).toMatch(/not dropped: a\.wav/);
    expect(fillFromDocument(full(), { format: 'x' })).toMatchObject({
      draft: full(),
      problem: expect.stringMatching(/run\.json was not used/) as string,
    });
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
      { maker: 'M', model: id.toUpperCase(), label: 'x', onDesk: i > 0, lastTested: `2026-01-0${i + 1}` },
    ]),
  );

  it('has a head per stratum, which counts its units and names the first', () => {
    const lines = rankingLines(ranked, names);
    expect(lines[0]).toEqual({ kind: 'stratum', stratum: 1, count: 1, first: 'M A · x' });
    expect(lines.filter((l) => l.kind === 'unit')).toHaveLength(4);
    expect(lines.filter((l) => l.kind === 'stratum').length).toBe(ranked[3].stratum);
  });

  it('asks about the unit on the desk that was tested last', () => {
    expect(unitUnderTest(ranked, names)?.id).toBe('d');
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
      silenceRmsDbfs: { z: null, a: null },
      reSpeechDb: { z: null, a: null },
      thirdOctave: [],
    },
    thirdOctave: [],
    ...change,
  });
  const take = (step: string, change: Record<string, unknown> = {}, salvaged: unknown = null): Take =>
    ({ step, clip: { salvaged }, summary: summary(change) }) as unknown as Take;
  const texts = (t: Take): string =>
    takeNotes(t)
      .map((n) => n.text)
      .join(' ');

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
  });

  it('say how it was made in one line', () => {
    const format = { container: 'wav', encoding: 'pcm24', sampleRateHz: 44_100, channels: 2, durationS: 3 } as const;
    const made = { gainDb: 38, distanceM: 0.15, angleDeg: 180, clip: { format } } as Take;
    expect(takeSetup(made)).toBe('38 dB gain, 15 cm, 180°, 44.1 kHz pcm24, 2 channels');
    expect(takeSetup({ ...made, gainDb: 37.5, distanceM: null, angleDeg: null })).toBe(
      '37.5 dB gain, 44.1 kHz pcm24, 2 channels',
    );
    expect(takeSetup({ ...made, distanceM: 0.025 })).toContain(', 2.5 cm,');
  });
});
