import { describe, expect, it } from 'vitest';
import { isBetterBeyondDoubt } from '#core/rules/figures-apart';
import type { House, Proposal, ProposalRule } from '#contracts/review';
import { changedLines, offered, propose, proposalKey } from './propose';
import { meets } from './proposals/for-use';
import { emptyReview, SHIPPED_HOUSE } from './shipped-house';
import { fact, reviewFacts, RUBRIC, unit } from './testing/review-facts';

const house: House = { ...SHIPPED_HOUSE, uses: [] };
const said = (facts: Parameters<typeof propose>[0], rule: ProposalRule, by: House = house): Proposal[] =>
  propose(facts, by).filter((p) => p.restsOn.rule === rule);
const noise = (values: readonly number[], price?: readonly number[]) =>
  values.map((v, i) => unit(String(i + 1), { noiseReSpeechA: fact(v) }, price?.[i] ?? null));

describe('a figure that is better beyond doubt', () => {
  it('is better by more than twice what both leave open, and not by just so much', () => {
    const sigma = Math.hypot(0.5, 0.5);
    expect(isBetterBeyondDoubt(fact(-70), fact(-70 + 2.01 * sigma), 'lower')).toBe(true);
    expect(isBetterBeyondDoubt(fact(-70), fact(-70 + 1.99 * sigma), 'lower')).toBe(false);
    expect(isBetterBeyondDoubt(fact(-70), fact(-60), 'higher')).toBe(false);
    expect(isBetterBeyondDoubt(fact(-60), fact(-70), 'higher')).toBe(true);
    // What another reading differs by counts with it.
    expect(isBetterBeyondDoubt(fact(-70, { between: 10 }), fact(-60), 'lower')).toBe(false);
  });

  it('is not told of figures that nobody knows the doubt of, nor of limits on the wrong side', () => {
    const bare = { uncertainty: null };
    expect(isBetterBeyondDoubt(fact(-90, bare), fact(-60, bare), 'lower')).toBe(false);
    expect(isBetterBeyondDoubt(fact(-70, { bound: 'at-most' }), fact(-60), 'lower')).toBe(true);
    expect(isBetterBeyondDoubt(fact(-70, { bound: 'at-least' }), fact(-60), 'lower')).toBe(false);
    expect(isBetterBeyondDoubt(fact(-70), fact(-60, { bound: 'at-most' }), 'lower')).toBe(false);
    expect(isBetterBeyondDoubt(fact(-70), fact(-60, { bound: 'at-least' }), 'lower')).toBe(true);
    expect(isBetterBeyondDoubt(fact(null), fact(-60), 'lower')).toBe(false);
  });
});

describe('what stands out', () => {
  it('beats the share of its kind that the house asks for, and says the share that it beats', () => {
    // Four of five others are told apart.
    const facts = reviewFacts(noise([-70, -60, -60, -60, -60, -69.5]));
    expect(said(facts, 'stands-out')).toMatchObject([
      { part: 'pros', text: 'Quieter than 80 % of the others of its kind: −70.0 ±0.5 dB(A)', at: 'measured' },
    ]);
    expect(said(facts, 'stands-out', { ...house, standsOutPercent: 81 })).toEqual([]);
    expect(said(facts, 'stands-out', { ...house, leastUnits: 7 })).toEqual([]);
    const worse = reviewFacts(noise([-50, -60, -60, -60, -60, -60]));
    expect(said(worse, 'stands-out')[0]).toMatchObject({ part: 'cons', text: 'Noisier than 100 % of the others of its kind: −50.0 ±0.5 dB(A)' }); // prettier-ignore
  });

  it('gives way to a record, where the record is beyond doubt', () => {
    const facts = reviewFacts(noise([-70, -60, -60, -60, -60]));
    const all = propose(facts, house);
    expect(all.map((p) => p.restsOn.rule)).toEqual(expect.arrayContaining(['stands-out', 'record']));
    expect(offered(all, house).filter((p) => p.restsOn.subject === 'noiseReSpeechA').map((p) => p.restsOn.rule)).toEqual(['record']); // prettier-ignore
    // With records off, what they stood in front of is offered.
    const off = { ...house, rulesOff: ['record'] as ProposalRule[] };
    expect(offered(all, off).map((p) => p.restsOn.rule)).toContain('stands-out');
    expect(said(reviewFacts(noise([-70, -69.5, -60, -60, -60])), 'record')).toEqual([]);
    const bare = noise([-70, -60, -60, -60, -60]).map((u) => ({ ...u, figures: { noiseReSpeechA: { ...u.figures['noiseReSpeechA'], uncertainty: null } } })); // prettier-ignore
    expect(said(reviewFacts(bare), 'record')).toEqual([]);
  });
});

describe('lines from other facts', () => {
  it('a hidden low-cut is told with its corner; a limit is none', () => {
    const booster = (f: ReturnType<typeof fact>) => reviewFacts([unit('1', { hiddenLowCut: f })], { rubric: null, kind: 'booster' }); // prettier-ignore
    expect(said(booster(fact(118)), 'hidden-low-cut')[0].text).toMatch(/^Hidden low-cut at 118/);
    expect(said(booster(fact(118, { bound: 'at-most' })), 'hidden-low-cut')).toEqual([]);
    expect(said(booster(fact(null)), 'hidden-low-cut')).toEqual([]);
  });

  it('a claim that falls short by more than the doubt, and one that nothing can keep', () => {
    const claimed = (value: number, measured: number) =>
      said(
        reviewFacts([unit('1', { einA: fact(measured) })], {
          rubric: null,
          kind: 'interface',
          sheet: { claims: [{ quantity: 'einA', value, unit: 'dBu', condition: 'A-weighted, 150 Ω' }] },
        }),
        'claim',
      ).map((p) => p.text);
    expect(claimed(-128, -125)[0]).toMatch(
      /−128 dBu, A-weighted, 150 Ω is claimed, −125\.0 ±0\.5 dBu\(A\) was measured$/,
    );
    expect(claimed(-128, -127.1)).toEqual([]);
    expect(claimed(-125, -128)).toEqual([]);
    // 150 Ω make −131 dBu themselves in 20 kHz, −133 A-weighted (Johnson and Nyquist).
    expect(claimed(-140, -128)[0]).toMatch(/−140 dBu.* is claimed, which is impossible/);
  });

  it('parts without which it cannot be used; what needs it is not one', () => {
    const relation = { id: '1', kind: 'needs' as const, isOwn: true, other: null, name: '12 V supply', uses: ['Desk'], price: null, since: '2025-01-01' }; // prettier-ignore
    const facts = (change: object) => reviewFacts([unit('1', {})], { sheet: { relations: [{ ...relation, ...change }] } }); // prettier-ignore
    expect(said(facts({}), 'needs')[0].text).toBe('Needs 12 V supply for Desk, which is not in the price');
    expect(said(facts({ isOwn: false }), 'needs')).toEqual([]);
    expect(said(facts({ kind: 'replaces' }), 'needs')).toEqual([]);
  });

  it('answers of Sums that were kept, the newest first, none cut in its middle', () => {
    const event = (note: string, day: string, kind = 'sum') => ({ kind, day, note, sum: null });
    const facts = (...events: object[]) => reviewFacts([unit('1', {})], { sheet: { events: events as never } });
    const found = said(facts(event('Gain: 3 dB left', '2025-01-01'), event('firmware 2', '2025-01-02', 'firmware'), event('Loudness: 104 dB', '2025-02-01')), 'sum'); // prettier-ignore
    expect(found.map((p) => [p.part, p.text])).toEqual([
      ['sums', 'Loudness: 104 dB'],
      ['sums', 'Gain: 3 dB left'],
    ]);
    expect(found[1].restsOn.fact).toBe('Gain: 3 dB left (2025-01-01)');
    // Where it stands on the page of the unit.
    expect(found[1].at).toBe('events');
    // Kept twice it is one line; that it was kept again does not change what it says.
    const [twice, ...more] = said(facts(event('a: 1', '2025-01-01'), event('a: 1', '2025-03-01')), 'sum');
    expect([twice.restsOn.gist, more]).toEqual(['sums: a: 1', []]);
    const long = `Title ${Array.from({ length: 20 }, (_, i) => `part ${i}: ${'x'.repeat(20)}`).join('; ')}`;
    const [line] = said(facts(event(long, '2025-01-01')), 'sum');
    expect(line.text.length).toBeLessThanOrEqual(400);
    expect(line.text).toMatch(/x{20}$/);
    expect(line.restsOn.fact).toContain('part 19');
  });

  it('what blind answers say, from nine in ten on', () => {
    const heardAs = (logWorth: number, se: number) =>
      said(reviewFacts([{ ...unit('1', {}), heard: { logWorth, se, answers: 12 } }]), 'heard').map((p) => p.part);
    expect([heardAs(1.3, 1), heardAs(1.25, 1), heardAs(-1.3, 1), heardAs(0, 1)]).toEqual([['pros'], [], ['cons'], []]);
  });

  it('what its kind is tested for and it was not, with the reason', () => {
    const found = said(reviewFacts([unit('1', { noiseReSpeechA: fact(null, { notMeasured: 'A gate hides it.' }) })]), 'not-measured'); // prettier-ignore
    expect(found.map((p) => [p.part, p.restsOn.subject])).toEqual([['notTested', 'noiseReSpeechA'], ['notTested', 'rearRejection']]); // prettier-ignore
    expect(found[0].restsOn.fact).toContain('A gate hides it.');
  });
});

describe('where it stands', () => {
  const spread = (own: number) => reviewFacts(noise([own, -70, -65, -60, -55, -50]));
  it('is told of the top and of the lowest stratum, and of none between', () => {
    const standings = [-79, -62, -41].map((own) => said(spread(own), 'standing').map((p) => [p.part, p.text.slice(0, 22)])); // prettier-ignore
    expect(standings).toEqual([[['pros', 'In the top stratum of ']], [], [['cons', 'In the lowest stratum ']]]);
    expect(said(spread(-79), 'standing', { ...house, leastUnits: 7 })).toEqual([]);
  });

  it('a gate that hides the noise is a finding; a figure with a gate in its words is none', () => {
    const of = (m: object) =>
      said(reviewFacts([unit('1', {})], { sheet: { runs: [{ purpose: 'unit', date: '2025-01-01', takes: [], measurements: [m], curves: { pairs: [] } }] as never } }), 'finding'); // prettier-ignore
    const refused = { quantity: 'noiseReSpeechA', value: null, notMeasured: 'A gate or an expander hides it.' };
    expect(of(refused).map((p) => p.part)).toEqual(['cons']);
    expect(of({ ...refused, value: -60 })).toEqual([]);
    expect(of({ ...refused, notMeasured: 'It was clipped.' })).toEqual([]);
  });

  it('what its rules ask listeners, and nobody has heard, is not tested', () => {
    const asked = { ...RUBRIC, criteria: [...RUBRIC.criteria, { kind: 'heard', id: 'h', name: 'Heard', meaning: '', curve: [[0, 0]], leastAnswers: 1, repeatability: 1 } as never] }; // prettier-ignore
    const subjects = (heard: object | null) =>
      said(reviewFacts([{ ...unit('1', {}), heard: heard as never }], { rubric: asked }), 'not-measured').map((p) => p.restsOn.subject); // prettier-ignore
    expect(subjects(null)).toContain('heard');
    expect(subjects({ logWorth: 0, se: 1, answers: 3 })).not.toContain('heard');
  });
});

describe('price', () => {
  // Seven units; the first is dear and no better than the second.
  const kind = (own: number, price: number) => reviewFacts(noise([own, -70, -60, -55, -50, -48], [price, 50, 60, 70, 80, 90])); // prettier-ignore

  it('a better buy costs no more and is better beyond the interval, and the price that turns it is that one’s', () => {
    const facts = kind(-60, 199);
    expect(said(facts, 'better-buy')).toMatchObject([{ part: 'alternatives', unit: { id: '2', name: 'Thole M2 · A' }, text: 'Better by the rules for 149 EUR less' }]); // prettier-ignore
    expect(said(facts, 'frontier')[0].part).toBe('cons');
    expect(said(facts, 'turning-price')).toMatchObject([{ price: { amount: 50, currency: 'EUR' }, text: expect.stringMatching(/^Below 50 EUR/) as string }]); // prettier-ignore
  });

  it('what is best for its price says so, and turns where the next better one begins', () => {
    const facts = reviewFacts(noise([-70, -78, -55, -50, -48, -46], [50, 300, 60, 70, 80, 90]));
    expect(said(facts, 'frontier')[0]).toMatchObject({ part: 'pros', text: 'Nothing tested is as good for 50 EUR or less' }); // prettier-ignore
    expect(said(facts, 'better-buy')).toEqual([]);
    expect(said(facts, 'turning-price')).toMatchObject([{ price: { amount: 300 }, text: expect.stringMatching(/^From 300 EUR on/) as string }]); // prettier-ignore
  });

  it('a unit at the very same price is a better buy as well; one that is only a little behind the frontier is left alone', () => {
    const same = reviewFacts(noise([-60, -70, -58, -55, -50, -48], [50, 50, 60, 70, 80, 90]));
    expect(said(same, 'better-buy')).toMatchObject([{ text: 'Better by the rules for the same price' }]);
    const close = reviewFacts(noise([-69.9, -70, -58, -55, -50, -48], [60, 50, 70, 70, 80, 90]));
    expect(said(close, 'frontier')).toEqual([]);
    expect(said(close, 'better-buy')).toEqual([]);
  });

  it('without a price rule, and without a price, nothing is said', () => {
    const free = { ...RUBRIC, criteria: RUBRIC.criteria.slice(0, 1) };
    for (const facts of [reviewFacts(noise([-70, -60]), { rubric: free }), reviewFacts(noise([-70, -60]))])
      for (const rule of ['frontier', 'better-buy', 'turning-price'] as const) expect(said(facts, rule)).toEqual([]);
  });
});

describe('for whom', () => {
  const want = { figure: 'noiseReSpeechA', atLeast: null, atMost: -65 };

  it('a limit is met or missed by more than the doubt, or it is left open', () => {
    expect([-66.1, -65.9, -64.1, -63.9].map((v) => meets(want, fact(v)))).toEqual(['met', 'open', 'open', 'missed']);
    expect(meets(want, fact(-70, { bound: 'at-most' }))).toBe('met');
    expect(meets(want, fact(-60, { bound: 'at-most' }))).toBe('open');
    expect(meets(want, fact(-60, { bound: 'at-least' }))).toBe('missed');
    expect(meets(want, fact(null))).toBe('open');
    expect(meets(want, undefined)).toBe('open');
    const least = { figure: 'rearRejection', atLeast: 10, atMost: null };
    expect([11.1, 10.9, 8.9].map((v) => meets(least, fact(v)))).toEqual(['met', 'open', 'missed']);
  });

  it('all that a use asks for has to be met; one thing that is missed is enough against it', () => {
    const uses = [{ name: 'Desk', kinds: ['microphone'], wants: [want, { figure: 'rearRejection', atLeast: 10, atMost: null }] }]; // prettier-ignore
    const of = (n: number, r: number, kind = 'microphone') =>
      said(reviewFacts([unit('1', { noiseReSpeechA: fact(n), rearRejection: fact(r) })], { kind }), 'for-use', { ...house, uses }).map((p) => [p.suits, p.text]); // prettier-ignore
    expect(of(-70, 15)).toEqual([['for', 'Noise re speech, A-weighted −70.0 ±0.5 dB(A), rear rejection of speech 15.0 ±0.5 dB']]); // prettier-ignore
    expect(of(-70, 5)).toEqual([['not for', 'Rear rejection of speech 5.0 ±0.5 dB']]);
    expect(of(-70, 10)).toEqual([]);
    expect(of(-70, 15, 'field-microphone')).toEqual([]);
  });
});

describe('lines whose facts have changed', () => {
  const before = propose(reviewFacts(noise([-70, -60, -60, -60, -60, -60])), house);
  const line = (p: Proposal) => ({ text: 'in my own words', restsOn: p.restsOn });
  const taken = { ...emptyReview(), pros: [line(before.find((p) => p.restsOn.rule === 'stands-out')!)] };

  it('are not marked while what they say stays, whatever comes in beside them', () => {
    expect(changedLines(taken, before)).toEqual([]);
    const more = propose(reviewFacts(noise([-70, -60, -60, -60, -60, -60, -61])), house);
    expect(changedLines(taken, more)).toEqual([]);
  });

  it('are marked where the figure is another one, where it is no longer so, and where the other side holds it', () => {
    const remeasured = propose(reviewFacts(noise([-69, -60, -60, -60, -60, -60])), house);
    expect(changedLines(taken, remeasured)).toMatchObject([{ now: expect.stringContaining('−69.0') as string }]);
    const beaten = propose(reviewFacts(noise([-70, -71, -71, -71, -60, -60])), house);
    expect(changedLines(taken, beaten)).toMatchObject([{ now: null }]);
    const worse = propose(reviewFacts(noise([-70, -80, -80, -80, -80, -80])), house);
    expect(changedLines(taken, worse)).toHaveLength(1);
  });

  it('are told by rule and subject', () => {
    expect(proposalKey(taken.pros[0].restsOn)).toBe('stands-out noiseReSpeechA');
  });
});
