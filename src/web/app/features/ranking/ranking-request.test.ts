import { describe, expect, it } from 'vitest';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { PricedUnit } from '#core/rules/price-frontier';
import type { RankedUnit } from '#core/rules/rank';
import type { UpgradeAdvice } from '#core/rules/upgrade-advice';
import type { WhyAbove } from '#core/rules/why-above';
import type { RankingInputs } from '#contracts/ranking';
import type { SpecimenRow } from '#contracts/specimen';
import { classChoices, classesText, readClasses, unitsOfClasses } from '../../data/class-filter';
import { chanceText } from '../../ui/format';
import { boardCsv, boardOf } from './board';
import { frontierChart } from './frontier-geometry';
import { filterInputs, readBasis, readPastDay, readUpTo, readWeights, weightsText, withBasis } from './ranking-request';
import { movedRows } from './moved-view';
import { recordStairs } from './records-geometry';
import { tiesText } from './records-view';
import { neighbourOf } from './standing';
import { turningSentences } from './turning-sentences';
import { upgradeRuleWords, upgradeSentences } from './upgrade-sentences';

const row = (id: string, classes: SpecimenRow['classes'], category = 'microphone') => ({ id, classes, category }) as SpecimenRow; // prettier-ignore
const facts = (id: string, change: Partial<UnitFacts> = {}): UnitFacts => ({
  id,
  figures: {},
  byHand: {},
  prices: [],
  ...change,
});
const price = (amount: number) => ({
  prices: [{ amount, currency: 'EUR', kind: 'street' as const, date: '2026-01-01' }],
});
const RULE = { id: 'value', name: 'Value', meaning: 'm', kind: 'price', currency: 'EUR', basis: ['street'], curve: [[1, 5]], limit: null } as const; // prettier-ignore
const inputs = (...units: UnitFacts[]) => ({ units, names: {}, rubric: { criteria: [RULE], weights: {} } }) as unknown as RankingInputs; // prettier-ignore

describe('the address of a ranking', () => {
  it('says which units, and comes back as it was; what is no field of the kind is left out', () => {
    const classes = readClasses('transducer:ribbon,pattern:figure of eight,weight:5,nothing,:x,address:', 'microphone');
    expect(classes).toEqual([
      { field: 'transducer', word: 'ribbon' },
      { field: 'pattern', word: 'figure of eight' },
    ]);
    expect(classesText(classes)).toBe('transducer:ribbon,pattern:figure of eight');
    // A person's own word may hold what parts the words.
    const own = [{ field: 'transducer', word: '50 % coal, 50 % luck' }];
    expect(classesText(own)).toBe('transducer:50 %25 coal%2C 50 %25 luck');
    expect(readClasses(classesText(own) ?? '', 'microphone')).toEqual(own);
    expect(classesText([])).toBeNull();
    expect(readClasses(undefined, 'microphone')).toEqual([]);
    expect(['200', '49.5', '0', '-3', 'much', undefined].map(readUpTo)).toEqual([200, 49.5, null, null, null, null]);
  });

  it('says which price counts; anything else is as the rules say, and then nothing is ranked anew', () => {
    expect(['cheapest', 'at-review', 'to-use', 'rules', 'free', undefined].map(readBasis)).toEqual(['cheapest', 'at-review', 'to-use', 'rules', 'rules', 'rules']); // prettier-ignore
    const inputs = { rubric: { criteria: [RULE] }, units: [], names: {} } as unknown as RankingInputs;
    expect(withBasis(inputs, 'rules', 'Desk')).toBe(inputs);
    expect(withBasis(inputs, 'to-use', 'Desk').rubric.criteria[0]).toMatchObject({ parts: { use: 'Desk' } });
  });

  it('takes a day that is over, and no other', () => {
    const days = ['2026-05-09', '2026-05-10', '2027-01-01', '2026-02-30', 'yesterday', undefined];
    expect(days.map((d) => readPastDay(d, '2026-05-10'))).toEqual(['2026-05-09', null, null, null, null, null]);
  });

  it('weights of the address are those that differ from the rules; what is no weight is left out', () => {
    const given = { noise: 2, value: 2, 'points-by-hand': 1 };
    const moved = { ...given, noise: 4.5, 'points-by-hand': 0 };
    expect(weightsText(moved, given)).toBe('noise:4.5,points-by-hand:0');
    expect(readWeights(weightsText(moved, given) ?? '')).toEqual({ noise: 4.5, 'points-by-hand': 0 });
    // Those of another kind, or of rules that have changed, are none here.
    expect([weightsText(given, given), weightsText({ gone: 3 }, given), weightsText({}, given)]).toEqual([null, null, null]); // prettier-ignore
    const read = (text: string | undefined) => readWeights(text);
    expect([read(undefined), read(''), read('noise'), read('noise:-1'), read('noise:many'), read('noise:8.5'), read('NOISE:1')]).toEqual([null, null, null, null, null, null, null]); // prettier-ignore
    expect(read('noise:8,:3,value:0,sound:1e3')).toEqual({ noise: 8, value: 0 });
  });

  it('offers the words that units have, most frequent first', () => {
    const rows = [row('1', { pattern: ['omni', 'cardioid'] }), row('2', { pattern: ['cardioid'] }), row('3', { pattern: ['wide'] }, 'accessory')]; // prettier-ignore
    expect(classChoices('microphone', rows)).toEqual([
      { field: 'pattern', name: 'Pattern', words: [{ word: 'cardioid', units: 2 }, { word: 'omni', units: 1 }] },
    ]); // prettier-ignore
  });

  it('leaves the units that are of every field asked for, by any of its words, and within the price', () => {
    const rows = [
      row('1', { transducer: ['ribbon'], pattern: ['omni'] }),
      row('2', { transducer: ['ribbon'], pattern: ['cardioid'] }),
      row('3', { pattern: ['omni'] }),
    ];
    const all = inputs(facts('1', price(90)), facts('2', price(210)), facts('3'));
    const ribbons = readClasses('transducer:ribbon', 'microphone');
    expect(unitsOfClasses([...rows, row('4', { transducer: ['ribbon'] }, 'booster')], 'microphone', ribbons)).toEqual(['1', '2']); // prettier-ignore
    // None asked for is all of them, and before the list is there nobody knows which.
    expect([unitsOfClasses(rows, 'microphone', []), unitsOfClasses(null, 'microphone', ribbons)]).toEqual([null, null]);
    const left = (is: string, upTo: number | null) => filterInputs(all, rows, { classes: readClasses(is, 'microphone'), upTo }).units.map((u) => u.id); // prettier-ignore
    expect(left('', null)).toEqual(['1', '2', '3']);
    expect(left('transducer:ribbon', null)).toEqual(['1', '2']);
    expect(left('transducer:ribbon,pattern:omni', null)).toEqual(['1']);
    expect(left('pattern:omni,pattern:cardioid', null)).toEqual(['1', '2', '3']);
    // A unit without a price is not known to be within any.
    expect(left('', 210)).toEqual(['1', '2']);
    expect(left('', 209)).toEqual(['1']);
  });
});

it('the neighbour of a unit is the one above it; of the first one, the one below', () => {
  const ranked = ['a', 'b', 'c'].map((id, i) => ({ id, place: i + 1 }) as RankedUnit);
  expect([0, 1, 2].map((i) => neighbourOf(ranked, ranked[i])?.id)).toEqual(['b', 'a', 'b']);
  expect(neighbourOf(ranked.slice(0, 1), ranked[0])).toBeNull();
  expect(neighbourOf(ranked, null)).toBeNull();
});

describe('the board', () => {
  const figure = (value: number | null, uncertainty = 0.1, bound: 'exact' | 'at-least' = 'exact') => ({ value, uncertainty, bound, notMeasured: null }); // prettier-ignore
  const units = [
    facts('a', { figures: { noiseReSpeechA: figure(-60), rearRejection: figure(12) } }),
    facts('b', { figures: { noiseReSpeechA: figure(-65) } }),
    facts('c', { figures: { noiseReSpeechA: figure(-65), rearRejection: figure(20, 1, 'at-least') } }),
    facts('d', { figures: { noiseReSpeechA: figure(-64.8), rearRejection: figure(null) } }),
    facts('e', { figures: { noiseReSpeechA: figure(-50) } }),
  ];
  const [noise, rejection] = boardOf(units);

  it('ranks each column by itself, the better way first; equal figures share a place', () => {
    expect([...noise.cells].map(([id, c]) => [id, c.rank, c.fourth])).toEqual([
      ['a', 4, 3],
      ['b', 1, 1],
      ['c', 1, 1],
      ['d', 3, 2],
      ['e', 5, 4],
    ]);
    // Higher is better here. A limit has no rank, but at least 20 is better than 12; what was not measured has no cell.
    expect([...rejection.cells].map(([id, c]) => [id, c.rank, c.bound, c.tiesBest])).toEqual([
      ['a', 2, 'exact', false],
      ['c', null, 'at-least', false],
    ]);
  });

  it('marks what no other beats beyond the uncertainty of both', () => {
    // 0.2 apart; two standard uncertainties of both are 0.28.
    expect([...noise.cells].map(([id, c]) => [id, c.tiesBest])).toEqual([['a', false], ['b', true], ['c', true], ['d', true], ['e', false]]); // prettier-ignore
  });

  it('goes out with all digits', () => {
    const csv = boardCsv(
      [
        { id: 'a', name: 'Oarlock “A”, "first"' },
        { id: 'c', name: 'C' },
      ],
      [noise, rejection],
    );
    expect(csv.split('\r\n')).toEqual([
      'unit,noiseReSpeechA in dB(A),noiseReSpeechA uncertainty,noiseReSpeechA rank,rearRejection in dB,rearRejection uncertainty,rearRejection rank',
      '"Oarlock “A”, ""first""",-60,0.1,4,12,0.1,2',
      'C,-65,0.1,1,>=20,1,',
      '',
    ]);
  });
});

it('the chart of prices: twice the price is the same way, stairs go up at squares only', () => {
  const unit = (id: string, amount: number, composite: number, isOnFrontier: boolean): PricedUnit => ({ id, price: amount, composite, composite90: [composite - 0.2, composite + 0.2], isOnFrontier, probability: 1 }); // prettier-ignore
  const chart = frontierChart([unit('a', 50, 2, true), unit('b', 100, 1.5, false), unit('c', 200, 4, true)], 600, 300);
  const [a, b, c] = chart.dots;
  expect(b.x - a.x).toBeCloseTo(c.x - b.x, 9);
  expect(a.y).toBeGreaterThan(c.y);
  expect(chart.stairs).toBe(`M${a.x.toFixed(1)} ${a.y.toFixed(1)}H${c.x.toFixed(1)}V${c.y.toFixed(1)}H600`);
  expect(chart.priceTicks.map((t) => t.label)).toEqual(['50', '100', '200']);
  expect(chart.pointTicks.map((t) => t.label)[0]).toBe('1.0');
});

describe('what would turn an order, in words', () => {
  const why = (change: Partial<WhyAbove>): WhyAbove => ({ shares: [], difference: 0.3, sd: 0.1, probability: 0.9, weight: null, points: null, ...change }); // prettier-ignore
  const say = (change: Partial<WhyAbove>) => turningSentences(why(change), (id) => id, 'A', 'B');
  it('says the least weight and the least points, rounded to where the order has turned', () => {
    const sentences = say({
      weight: { criterion: 'Sound', from: 2, to: 1.56 },
      points: { criterion: 'Build', unit: 'second', gains: true, by: 0.41 },
    });
    expect(sentences).toEqual([
      'The order turns where Sound counts below 1.5 instead of 2.0.',
      'Or where B had 0.5 points more in Build.',
    ]);
    expect(say({ weight: { criterion: 'Sound', from: 2, to: 3.21 }, points: { criterion: 'Build', unit: 'first', gains: false, by: 0.4 } })).toEqual([
      'The order turns where Sound counts above 3.3 instead of 2.0.',
      'Or where A had 0.4 points fewer in Build.',
    ]); // prettier-ignore
  });
  it('says that nothing does, and that there is no order', () => {
    expect(say({})).toEqual(['No weight alone turns the order.', 'No criterion alone makes up for the difference.']);
    expect(say({ difference: 0 })).toEqual(['They stand equal.']);
  });
});

it('what moved: who came, went, rose and fell, and what of their own changed', () => {
  const by = (points: Readonly<Record<string, number>>) => ({ byHand: Object.fromEntries(Object.entries(points).map(([id, value]) => [id, { value, reason: 'heard again' }])) }); // prettier-ignore
  const side = (...units: [id: string, sound: number, place: number][]) => ({
    inputs: {
      units: units.map(([id, sound]) => facts(id, by({ sound }))),
      names: Object.fromEntries(units.map(([id]) => [id, { maker: 'Oarlock', model: id, label: 'A' }])),
      rubric: { criteria: [{ id: 'sound', name: 'Sound', meaning: 'm', kind: 'by-hand', repeatability: 0.2 }], weights: { sound: 1 } },
    } as unknown as RankingInputs,
    ranked: units.map(([id, , place]) => ({ id, place, rank90: [place, place] }) as unknown as RankedUnit),
  }); // prettier-ignore
  const rows = movedRows(
    side(['a', 3, 2], ['b', 4, 1], ['gone', 1, 3]),
    side(['a', 4.5, 1], ['b', 4, 2], ['new', 2, 3]),
  );
  expect(rows.map((r) => [r.name, r.what, r.because])).toEqual([
    ['Oarlock a · A', 'rose by 1, beyond doubt', ['Sound 3.0 → 4.5: heard again']],
    ['Oarlock b · A', 'fell by 1, beyond doubt', ['nothing of its own: others moved']],
    ['Oarlock new · A', 'entered', []],
    ['Oarlock gone · A', 'is not ranked any more', []],
  ]);
});

it('whether to go over is said from what was computed, and nothing else', () => {
  const advice: UpgradeAdvice = {
    probability: 0.93,
    verdict: 'clearly better',
    figures: [
      { quantity: 'einA', old: -125, new: -128, isBetter: true },
      { quantity: 'rearRejection', old: 10, new: 8, isBetter: false },
    ],
    heard: 0.84,
    gained: ['loopback', 'USB-C'],
    lost: [],
    costsMore: 120,
    rule: { clearly: 0.9, probably: 0.75, mostMore: null },
    isTooDear: false,
  };
  expect(upgradeSentences(advice, 'EUR')).toEqual([
    'Clearly better (93 %; clearly from 90 %, probably from 75 %, the price left out), for 120 EUR more.',
    'Measured better: input noise −125.0 → −128.0 dBu(A).',
    'Measured worse: rear rejection 10.0 → 8.0 dB.',
    'Gained: loopback, USB-C.',
    'Preferred by ear with a probability of 84 %.',
  ]);
  const bare = { ...advice, verdict: 'not told apart' as const, figures: [], gained: [], heard: null };
  expect(upgradeSentences({ ...bare, costsMore: -30 }, 'EUR').slice(1)).toEqual([
    'No figure of both differs by more than its uncertainty.',
    'They have not both been heard blind.',
  ]);
  expect(upgradeSentences({ ...bare, costsMore: -30 }, 'EUR')[0]).toMatch(/for 30 EUR less\.$/);
  expect(upgradeSentences({ ...bare, costsMore: 0 }, 'EUR')[0]).toMatch(/at the same price\.$/);
  const strict = { clearly: 0.95, probably: 0.805, mostMore: 100 };
  expect(upgradeSentences({ ...advice, rule: strict, isTooDear: true }, 'EUR')[0]).toBe(
    'Clearly better (93 %; clearly from 95 %, probably from 80.5 %, the price left out), for 120 EUR more, which is beyond the 100 EUR that the rules allow.',
  );
  expect(upgradeRuleWords(strict, 'EUR')).toBe('another unit is clearly better from 95 %, probably from 80.5 %, and may cost 100 EUR more'); // prettier-ignore
  expect(upgradeRuleWords({ ...strict, mostMore: null }, 'EUR')).toMatch(/80\.5 %$/);
  expect(upgradeSentences({ ...bare, costsMore: null }, 'EUR')[0]).toMatch(/what it costs more is not known\.$/);
});

it('records are stairs: level until the next one, from the first year to today', () => {
  const step = (unit: string, day: string, value: number) => ({ unit, day, value, spread: 0.5, isBeyondDoubt: true });
  const stairs = recordStairs([step('a', '2020-07-01', -60), step('b', '2022-01-01', -65)], '2024-01-01', 400, 100);
  expect(stairs.years.map((y) => [y.label, Math.round(y.at)])).toEqual([['2020', 0], ['2021', 100], ['2022', 200], ['2023', 300], ['2024', 400]]); // prettier-ignore
  const [a, b] = stairs.dots;
  expect(stairs.path).toBe(`M${a.x.toFixed(1)} ${a.y.toFixed(1)}H${b.x.toFixed(1)}V${b.y.toFixed(1)}H400`);
  // A lower figure stands lower.
  expect(b.y).toBeGreaterThan(a.y);
  expect(recordStairs([step('a', '2020-01-01', 3)], '2020-01-01', 400, 100).dots[0]).toMatchObject({ x: 0, y: 50 });
  expect([tiesText([]), tiesText(['a', 'b']), tiesText(['a', 'b', 'c', 'd', 'e'])]).toEqual([
    '',
    'a, b',
    'a, b, c, 2 more',
  ]);
});

it('a chance from draws is never said to be certain', () => {
  expect([1, 0.996, 0.995, 0.5, 0.005, 0.004, 0].map(chanceText)).toEqual(['over 99 %', 'over 99 %', 'over 99 %', '50 %', '1 %', 'under 1 %', 'under 1 %']); // prettier-ignore
});
