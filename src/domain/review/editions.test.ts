import { describe, expect, it } from 'vitest';
import type { Edition, FrozenFigure, FrozenRow } from '#contracts/edition';
import { editionSchema } from '#contracts/edition';
import type { Run, SpecimenSheet } from '#contracts/specimen';
import { plainPrice } from '../catalogue/unit-facts';
import { editionChanges, factChanges } from './edition-changes';
import { chapters, freeze, frozenFacts, frozenFigures, settingsText, shownRows } from './freeze';
import { isWhatWasPublished, publishProblems } from './publish-problems';
import { emptyReview, SHIPPED_HOUSE } from './shipped-house';
import { sinceEdition } from './since-edition';
import { fact, reviewFacts, unit } from './testing/review-facts';

const measurement = (change: object) => ({ quantity: 'noiseReSpeechA', value: -66.2, uncertainty: 0.4, anotherReading: null, bound: 'exact', condition: 'gated', notMeasured: null, spread: null, settings: {}, ...change }); // prettier-ignore
const run = (date: string, measurements: object[], change: object = {}): Run =>
  ({ id: date, date, protocol: 'desk', protocolVersion: 2, source: 'own', purpose: 'unit', rig: null, takes: [], undecided: [], tables: [], corrections: [], measurements, curves: { pairs: [], response: null, conditions: null }, ...change }) as unknown as Run; // prettier-ignore

const written = { ...emptyReview(), headline: 'Quiet', summary: 'It is quiet.' };
function edition(change: Partial<Edition> = {}): Edition {
  const facts = reviewFacts(
    [unit('1', { noiseReSpeechA: fact(-66.2) }, 120), unit('2', { noiseReSpeechA: fact(-60) }, 90)],
    {
      sheet: {
        runs: [run('2025-05-01', [measurement({})])],
        prices: [{ id: '9', amount: 120, currency: 'EUR', kind: 'street', date: '2025-01-01' }],
      } as unknown as Partial<SpecimenSheet>,
    },
  );
  const made = freeze({ review: '7', document: written, house: { ...SHIPPED_HOUSE, desk: 'Tidewrack Audio Desk' }, facts, decks: [], day: '2025-05-24', software: '0.1.0', before: null }); // prettier-ignore
  return { ...made, ...change };
}

describe('an edition', () => {
  it('holds text, figures with condition and day, ranking and price as they are, and follows its schema', () => {
    const made = edition();
    expect(editionSchema.parse(JSON.parse(JSON.stringify(made)))).toEqual(made);
    expect(made).toMatchObject({
      number: 1,
      publishedOn: '2025-05-24',
      figures: [{ quantity: 'noiseReSpeechA', text: '−66.2 ±0.4 dB(A)', day: '2025-05-01', protocol: 'desk 2' }],
      price: { amount: 120, currency: 'EUR' },
      ranking: { own: '1', of: 2, rulesVersion: 3, criteria: [{ id: 'noise', share: 0.5, why: '−66.2 ±0.5 dB(A), by the curve' }, { id: 'price' }] }, // prettier-ignore
      frontier: { currency: 'EUR' },
    });
  });

  it('counts of each figure the newest that has a value, and runs of the rig not at all', () => {
    const of = (runs: Run[]) => frozenFigures({ runs }).map((f) => [f.value, f.day]);
    const newer = run('2025-06-01', [measurement({ value: null, notMeasured: 'clipped' })]);
    expect(of([newer, run('2025-05-01', [measurement({})])])).toEqual([[-66.2, '2025-05-01']]);
    const opening = run('2025-07-01', [measurement({ value: -50 })], { purpose: 'opening' });
    expect(of([opening, run('2025-05-01', [measurement({})])])).toEqual([[-66.2, '2025-05-01']]);
    expect(of([opening])).toEqual([[-50, '2025-07-01']]);
  });

  it('names the price that its rules count, not the newest of another kind; without rules the newest', () => {
    const prices = [
      { id: '2', amount: 60, currency: 'EUR', kind: 'used', date: '2025-04-01' },
      { id: '1', amount: 120, currency: 'EUR', kind: 'street', date: '2025-01-01' },
    ] as SpecimenSheet['prices'];
    const priced = { ...unit('1', { noiseReSpeechA: fact(-66) }), prices: prices.map(plainPrice) };
    const priceOf = (rubric?: null) => frozenFacts(reviewFacts([priced, unit('2', {}, 90)], { sheet: { prices }, ...(rubric === null ? { rubric } : {}) }), 's').price?.amount; // prettier-ignore
    expect([priceOf(), priceOf(null)]).toEqual([120, 60]);
  });

  it('holds claims beside what was measured, and says why two cannot be compared', () => {
    const claims = [{ quantity: 'einA' as const, value: -128, unit: 'dBu', condition: 'A-weighted' }, { quantity: 'einA' as const, value: -128, unit: 'dBV', condition: '' }]; // prettier-ignore
    const facts = reviewFacts([unit('1', { einA: fact(-125) })], { rubric: null, kind: 'interface', sheet: { claims } }); // prettier-ignore
    const frozen = freeze({ review: '7', document: written, house: SHIPPED_HOUSE, facts, decks: [], day: '2025-05-24', software: 's', before: null }); // prettier-ignore
    expect(frozen.claims).toMatchObject([
      { claimed: '−128 dBu A-weighted', measured: '−125.0 ±0.5 dBu(A)', remark: '' },
      { remark: expect.stringMatching(/^not comparable: /) as string },
    ]);
  });

  it('publishes a long ranking by its head and what stands around the unit', () => {
    const rows = Array.from({ length: 100 }, (_, i) => ({ place: i + 1 }) as FrozenRow);
    const places = shownRows(rows, 50).map((r) => r.place);
    expect(places).toEqual([...Array.from({ length: 20 }, (_, i) => i + 1), ...Array.from({ length: 21 }, (_, i) => i + 40)]); // prettier-ignore
    expect(shownRows(rows.slice(0, 60), 50)).toHaveLength(60);
  });

  it('has chapters of ten seconds at least: a shorter clip goes with the one before it', () => {
    const lane = (name: string, durationS: number) => ({ name, words: '', durationS }) as never;
    const found = chapters([{ step: 's', title: 'Words', targetLufs: -23, lanes: [lane('A', 12), lane('B', 4), lane('C', 9)] }]); // prettier-ignore
    expect(found).toEqual([
      { atS: 0, title: 'Words: A' },
      { atS: 12, title: 'Words: B; Words: C' },
    ]);
  });

  it('says of a take what was noted, and nothing of what was not', () => {
    const take = { gainDb: null, distanceM: 0.3, angleDeg: 0, windSpeedMs: null, settings: { dial: 'noon', voice: 'high' }, clip: { origin: null, format: { sampleRateHz: 44_100 } } } as never; // prettier-ignore
    expect(settingsText(take)).toBe('dial at noon, 30 cm, 0°, 44.1 kHz, voice high');
  });
});

describe('what changed between two editions', () => {
  const figure = (change: Partial<FrozenFigure>): FrozenFigure => ({ ...edition().figures[0], ...change });
  const changed = (part: Partial<Edition>) => editionChanges(edition(), edition(part)).map((c) => c.text);

  it('nothing is nothing', () => expect(changed({})).toEqual([]));

  it('says of a figure what it was, what it is, and whether both leave that open', () => {
    expect(changed({ figures: [figure({ value: -65.8, text: '−65.8 ±0.4 dB(A)' })] })).toEqual(['Noise re speech, A-weighted: −66.2 ±0.4 dB(A) → −65.8 ±0.4 dB(A) (+0.4 dB(A), within what both leave open)']); // prettier-ignore
    expect(changed({ figures: [figure({ value: -60, text: '−60.0 ±0.4 dB(A)' })] })[0]).toMatch(/\+6\.2 dB\(A\), more than both leave open/); // prettier-ignore
    expect(changed({ figures: [figure({ condition: 'at 30 cm' })] })[0]).toMatch(/under another condition: at 30 cm$/);
    expect(changed({ figures: [] })[0]).toMatch(/does not count any more$/);
    expect(changed({ figures: [edition().figures[0], figure({ quantity: 'rearRejection', name: 'Rear', text: '12 dB' })] })).toEqual(['Rear: 12 dB (new)']); // prettier-ignore
    expect(changed({ figures: [figure({ value: null, text: 'not measured' })] })).toEqual(['Noise re speech, A-weighted: −66.2 ±0.4 dB(A) → not measured']); // prettier-ignore
  });

  it('says a price in per cent of one currency, and without in two', () => {
    const price = edition().price!;
    expect(changed({ price: { ...price, amount: 98.4 } })).toEqual(['Price: 120 EUR (street, 2025-01-01) → 98.4 EUR (street, 2025-01-01), −18 %']); // prettier-ignore
    expect(changed({ price: { ...price, amount: 98.4, currency: 'GBP' } })[0]).not.toContain('%');
    expect(changed({ price: null })).toEqual(['Its price does not count any more']);
    // Noted again for the same: nothing has changed.
    expect(changed({ price: { ...price, date: '2025-06-01' } })).toEqual([]);
  });

  it('says a place, and who is told apart above it that was not', () => {
    const ranking = edition().ranking!;
    const [first, second] = ranking.rows;
    expect([first.unit, first.stratum]).toEqual(['1', 1]);
    const rival = { ...second, unit: '3', name: 'Thole M3 · A', place: 1, stratum: 1 };
    const beaten = { ...ranking, of: 3, rows: [rival, { ...first, place: 2, stratum: 2 }, { ...second, place: 3, stratum: 3 }] }; // prettier-ignore
    expect(changed({ ranking: beaten })).toEqual(['Place 1 of 2 → 2 of 3', 'Now told apart above it: Thole M3 · A']);
    const beside = { ...ranking, of: 3, rows: [rival, { ...first, place: 2 }, { ...second, place: 3 }] };
    expect(changed({ ranking: beside })).toEqual(['Place 1 of 2 → 2 of 3']);
    expect(changed({ ranking: { ...ranking, rulesVersion: 4 } })).toEqual(['Rules of the ranking: version 3 → 4']);
    expect(changed({ ranking: null })).toEqual(['It is not ranked any more']);
  });

  it('says each line that came or went, and what was written anew', () => {
    const text = edition().text;
    const line = (t: string) => ({ text: t, restsOn: null });
    const before = edition({ text: { ...text, pros: [line('quiet'), line('light')] } });
    const after = edition({ text: { ...text, pros: [line('quiet'), line('cheap')], summary: 'Other.', obtained: 'lent' } }); // prettier-ignore
    expect(editionChanges(before, after).map((c) => c.text)).toEqual(['Pros, added: cheap', 'Pros, taken out: light', 'Summary written anew', 'How it came: not said → lent']); // prettier-ignore
  });

  it('since an edition, later firmware and repairs count; earlier ones and notes do not', () => {
    const events = [
      { kind: 'firmware', day: '2025-05-25', note: '2.1' },
      { kind: 'repair', day: '2025-05-24', note: 'knob' },
      { kind: 'note', day: '2025-06-01', note: 'dusty' },
    ] as const;
    expect(sinceEdition(edition(), edition(), events)).toEqual([
      { what: 'event', text: 'Firmware of 2025-05-25: 2.1' },
    ]);
    expect(factChanges(edition(), edition({ made: { ...edition().made, algorithm: 99 } }))).toHaveLength(1);
  });
});

describe('publishing', () => {
  it('asks for a headline and something that is said, and for a change after the first', () => {
    const first = edition();
    expect(publishProblems(first, null)).toEqual([]);
    expect(publishProblems(edition({ text: { ...first.text, headline: ' ' } }), null).map((p) => p.field)).toEqual(['headline']); // prettier-ignore
    expect(publishProblems(edition({ text: { ...first.text, summary: '' } }), null).map((p) => p.field)).toEqual(['summary']); // prettier-ignore
    expect(publishProblems(edition({ changes: [] }), first)[0].message).toBe('nothing has changed since edition 1');
    expect(publishProblems(edition({ changes: [{ what: 'text', text: 'x' }] }), first)).toEqual([]);
  });

  it('knows whether what is written is what was published', () => {
    expect(isWhatWasPublished(written, edition())).toBe(true);
    expect(isWhatWasPublished({ ...written, headline: 'Loud' }, edition())).toBe(false);
    expect(isWhatWasPublished(written, undefined)).toBe(false);
    expect(isWhatWasPublished({ ...written, decks: [{ step: 's', takes: ['1'] }] }, edition())).toBe(false);
  });
});
