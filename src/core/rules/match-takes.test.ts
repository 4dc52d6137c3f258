import { describe, expect, it } from 'vitest';
import type { BandLevel } from '../measure/third-octave-spectrum';
import { shuffled } from '../stats/shuffle';
import { contentOf } from './file-content';
import { matchTakes, type MatchableStep, type MatchableTake } from './match-takes';

const CENTRES = [
  80, 100, 125, 160, 200, 250, 315, 400, 500, 630, 800, 1000, 1250, 1600, 2000, 2500, 3150, 4000, 5000, 6300, 8000,
  10_000,
];
const spectrum = (shape: (hz: number) => number): BandLevel[] =>
  CENTRES.map((centreHz) => ({ centreHz, levelDbfs: shape(centreHz) }));
/** Speech falls by some 9 dB per octave above 500 Hz; a sweep has equal energy in every octave. */
const SPEECH = spectrum((hz) => -35 - (hz > 500 ? 9 * Math.log2(hz / 500) : 0));
const SWEEP = spectrum((hz) => -30 + (hz === 6300 ? 2 : 0));
const TONE = spectrum((hz) => (hz === 1000 ? -20 : -80));
const ROOM = spectrum((hz) => -80 - 3 * Math.log2(hz / 80));

const take = (
  name: string,
  kind: 'passage' | 'line' | 'silence' | 'sweep' | 'tone',
  level = -24,
  further: Partial<MatchableTake> = {},
): MatchableTake => ({
  name,
  durationS: { passage: 16, line: 6, silence: 8, sweep: 4.4, tone: 4 }[kind],
  speechS: { passage: 13, line: 4.5, silence: 0, sweep: 0, tone: 0 }[kind],
  integratedLufs: kind === 'silence' ? -75 : level,
  plosives: 0,
  sweepLikeness: null,
  thirdOctave: { passage: SPEECH, line: SPEECH, silence: ROOM, sweep: SWEEP, tone: TONE }[kind],
  gainDb: null,
  ...further,
});
const step = (id: string, playKind: string, change: Partial<MatchableStep> = {}): MatchableStep => ({
  id,
  title: id,
  fileHints: [id],
  playKind,
  role: 'other',
  distanceM: null,
  angleDeg: null,
  lengthS: null,
  repeats: 1,
  usualS: null,
  ...change,
});
const STEPS: MatchableStep[] = [
  step('speech', 'text', { role: 'speech', usualS: 16 }),
  step('silence', 'silence', { role: 'silence' }),
  step('calibration', 'tone', { role: 'calibration' }),
  ...[0, 90, 180].map((angleDeg) => step(`sweep-${angleDeg}`, 'sweep', { role: 'sweep', angleDeg })),
  ...[0.15, 0.6].map((distanceM) => step(`distance-${100 * distanceM}`, 'phrase', { role: 'distance', distanceM })),
  step('plosive', 'phrase', { role: 'plosive' }),
];
const TAKES: [string, MatchableTake][] = [
  ['speech', take('001.wav', 'passage')],
  ['silence', take('002.wav', 'silence')],
  ['calibration', take('003.wav', 'tone')],
  ['sweep-0', take('004.wav', 'sweep', -18)],
  ['sweep-90', take('005.wav', 'sweep', -24)],
  ['sweep-180', take('006.wav', 'sweep', -36)],
  ['distance-15', take('007.wav', 'line', -24)],
  ['distance-60', take('008.wav', 'line', -34)],
  ['plosive', take('009.wav', 'line', -24, { plosives: 5 })],
];
const found = (takes: readonly MatchableTake[], steps = STEPS): Record<string, string | null> =>
  Object.fromEntries(matchTakes(takes, steps).map((m) => [m.name, m.step]));

describe('what a recording holds', () => {
  it.each(['passage', 'line', 'silence', 'sweep', 'tone'] as const)('%s', (kind) =>
    expect(contentOf(take('x.wav', kind))).toBe(kind),
  );
});

describe('matching takes to steps', () => {
  it('needs no names: numbers in order and what they hold are enough', () => {
    expect(found(TAKES.map(([, t]) => t))).toEqual(Object.fromEntries(TAKES.map(([s, t]) => [t.name, s])));
  });

  it('is not led astray by wrong names: what a take holds weighs more', () => {
    // Every file has the name of another step.
    const names = [...STEPS.slice(1), STEPS[0]].map((s) => `${s.id}.wav`);
    const misnamed = TAKES.map(([s, t], i) => [s, { ...t, name: names[i] }] as const);
    const result = matchTakes(
      misnamed.map(([, t]) => t),
      STEPS,
    );
    const wrong = misnamed.filter(([s], i) => result[i].step !== s).map(([s]) => s);
    // Two lines whose names exchange distance and plosive cannot be told apart by everything; kinds never mix.
    expect(
      wrong.every((s) => s.startsWith('distance') || s.startsWith('sweep') || s === 'plosive'),
      wrong.join(),
    ).toBe(true);
    expect(result[0]).toMatchObject({ step: 'speech', content: 'passage' });
    expect(result[1].step).toBe('silence');
  });

  it('follows right names when the order is lost', () => {
    const named = shuffled(
      TAKES.map(([s, t]) => ({ ...t, name: `${s}.wav` })),
      'any order',
    );
    for (const [name, s] of Object.entries(found(named))) expect(name).toBe(`${s}.wav`);
  });

  it('puts a ladder of distances into order by level alone', () => {
    const lines = TAKES.filter(([s]) => s.startsWith('distance')).map(([, t]) => t);
    const swapped = [
      { ...lines[1], name: 'b.wav' },
      { ...lines[0], name: 'c.wav' },
    ];
    expect(
      found(
        swapped,
        STEPS.filter((s) => s.role === 'distance'),
      ),
    ).toEqual({
      'b.wav': 'distance-60',
      'c.wav': 'distance-15',
    });
  });

  it('puts the louder of two readings to the front, whatever their order; clear names say more', () => {
    const facing = [
      step('speech', 'text', { role: 'speech', fileHints: ['front'] }),
      step('rear', 'text', { role: 'rear', fileHints: ['back'] }),
    ];
    const backFirst = [take('b1.wav', 'passage', -30), take('b2.wav', 'passage', -24)];
    expect(found(backFirst, facing)).toEqual({ 'b1.wav': 'rear', 'b2.wav': 'speech' });
    const loudBack = [take('front.wav', 'passage', -30), take('back.wav', 'passage', -24)];
    expect(found(loudBack, facing)).toEqual({ 'front.wav': 'speech', 'back.wav': 'rear' });
  });

  it('says of an odd length what it is held against, and of an allowed one nothing of being long for the step', () => {
    const doubts = (durationS: number, change: Partial<MatchableStep>): string[] => [
      ...matchTakes([take('a.wav', 'passage', -24, { durationS })], [step('a', 'text', change)])[0].doubts,
    ];
    expect(doubts(50, { lengthS: { least: 5, most: 40 } })).toEqual(['it lasts 50.0 s; the step allows 40 s']);
    expect(doubts(3, { lengthS: { least: 5, most: 40 } })).toEqual(['it lasts 3.0 s; the step asks for at least 5 s']);
    expect(doubts(12, { lengthS: { least: 5, most: 40 } })).toEqual([]);
    expect(doubts(12, { lengthS: { least: 5, most: 40 }, usualS: 25 })).toEqual([
      'it lasts 12.0 s; 25.0 s are usual here',
    ]);
  });

  it('gives no step where none fits, says why, and gives each step once', () => {
    const many = [take('a.wav', 'silence'), take('b.wav', 'silence'), take('c.wav', 'tone')];
    const result = matchTakes(many, [STEPS[0], STEPS[1]]);
    expect(result.filter((m) => m.step === 'silence')).toHaveLength(1);
    expect(result.find((m) => m.name === 'c.wav')).toMatchObject({ step: null, content: 'tone' });
    expect(matchTakes([], STEPS)).toEqual([]);
  });

  it('says what speaks for a match, and what against', () => {
    const [match] = matchTakes([take('speech.wav', 'passage')], STEPS);
    expect(match.reasons).toEqual(
      expect.arrayContaining(['the name says "speech"', 'it holds a long reading', 'its 16.0 s are usual here']),
    );
    const [odd] = matchTakes([take('speech.wav', 'line')], [STEPS[0]]);
    expect(odd.doubts.join()).toMatch(/short line/);
  });

  /** What is said of one take and one step, in full. */
  const said = (one: MatchableTake, change: Partial<MatchableStep> = {}, playKind = 'text') => {
    const [{ reasons, doubts, certainty }] = matchTakes([one], [step('a', playKind, { fileHints: [], ...change })]);
    return { reasons, doubts, certainty };
  };

  it('says all that speaks for a match and nothing else', () => {
    expect(said(take('x.wav', 'passage'))).toEqual({
      reasons: ['it holds a long reading', 'it is number 1 in order'],
      doubts: [],
      certainty: 1,
    });
    expect(said(take('x.wav', 'passage'), {}, 'unknown').reasons).toEqual(['it is number 1 in order']);
    expect(said(take('x.wav', 'passage'), {}, 'unknown').doubts).toEqual([]);
    expect(said(take('x.wav', 'passage'), { usualS: 16 }).reasons[1]).toBe('its 16.0 s are usual here');
    // A length half as long again is neither usual nor odd enough: 1 − 3·ln 1.3 is 0.21.
    expect(said(take('x.wav', 'passage'), { usualS: 16 * 1.3 }).doubts).toEqual([]);
    expect(said(take('x.wav', 'passage'), { usualS: 16 * 1.3 }).reasons).toHaveLength(2);
  });

  it('names a place only where there are as many takes as steps, and it is the same', () => {
    const places = (takes: readonly MatchableTake[], steps: readonly MatchableStep[]) =>
      matchTakes(takes, steps).map((m) => m.reasons.filter((r) => r.startsWith('it is number')));
    const two = [step('a', 'text', { fileHints: [] }), step('b', 'silence', { fileHints: [] })];
    expect(places([take('1.wav', 'passage'), take('2.wav', 'silence')], two)).toEqual([['it is number 1 in order'], ['it is number 2 in order']]); // prettier-ignore
    // By the names, not by the order in which they were brought in.
    expect(places([take('2.wav', 'silence'), take('1.wav', 'passage')], two)).toEqual([['it is number 2 in order'], ['it is number 1 in order']]); // prettier-ignore
    expect(places([take('1.wav', 'silence'), take('2.wav', 'passage')], two)).toEqual([[], []]);
    expect(places([take('1.wav', 'passage')], two)).toEqual([[]]);
  });

  it('is as certain as the next best step is far', () => {
    const like = [step('a', 'text', { fileHints: [] }), step('b', 'text', { fileHints: [] })];
    const [first] = matchTakes([take('x.wav', 'passage')], like);
    // One take in the middle of two steps that ask for the same: nothing tells them apart.
    expect(first.certainty).toBe(0);
    const [named] = matchTakes([take('reading.wav', 'passage')], [{ ...like[0], fileHints: ['reading'] }, like[1]]);
    expect(named.certainty).toBeGreaterThan(0.2);
    expect(named.certainty).toBeLessThanOrEqual(1);
    const [nowhere] = matchTakes([take('x.wav', 'tone')], [step('a', 'silence', { fileHints: [] })]);
    expect(nowhere).toMatchObject({ step: null, certainty: 0, doubts: [] });
    expect(nowhere.reasons).toEqual(['no step fits, or all that fit are taken']);
  });

  it('weighs a long hint more than a short one that may be there by chance', () => {
    const both = [step('a', 'text', { fileHints: ['rea'] }), step('b', 'text', { fileHints: ['reading desk'] })];
    expect(found([take('reading desk.wav', 'passage')], both)).toEqual({ 'reading desk.wav': 'b' });
    expect(found([take('reading desk.wav', 'passage')], [both[1], both[0]])).toEqual({ 'reading desk.wav': 'b' });
  });

  it('holds a length against what is asked, ends included', () => {
    const asked = { lengthS: { least: 5, most: 40 } };
    for (const durationS of [5, 40]) expect(said(take('x.wav', 'passage', -24, { durationS }), asked).doubts).toEqual([]); // prettier-ignore
    const preferred = (durationS: number) =>
      matchTakes([take('x.wav', 'passage', -24, { durationS })], [step('short', 'text', { fileHints: [], lengthS: { least: 5, most: 20 } }), step('long', 'text', { fileHints: [], lengthS: { least: 20, most: 60 } })])[0].step; // prettier-ignore
    expect([preferred(12), preferred(50)]).toEqual(['short', 'long']);
  });

  it('tells a step with puffs by three of them, and says so', () => {
    const puffs = (plosives: number) =>
      said(take('x.wav', 'line', -24, { plosives }), { role: 'plosive' }, 'phrase').reasons;
    expect(puffs(3)).toContain('3 puffs were found');
    expect(puffs(2).join()).not.toContain('puffs');
    expect(said(take('x.wav', 'line', -24, { plosives: 5 }), {}, 'phrase').reasons.join()).not.toContain('puffs');
    expect(said(take('x.wav', 'passage', -24, { plosives: 5 }), { role: 'plosive' }).reasons.join()).not.toContain('puffs'); // prettier-ignore
    const steps = [step('plain', 'phrase', { fileHints: [] }), step('puffs', 'phrase', { fileHints: [], role: 'plosive' })]; // prettier-ignore
    expect(matchTakes([take('x.wav', 'line', -24, { plosives: 3 })], steps)[0].step).toBe('puffs');
    expect(matchTakes([take('x.wav', 'line', -24, { plosives: 2 })], steps)[0].step).toBe('plain');
  });

  it('says where a level suits its distance and where it does not, with the gain taken out', () => {
    const ladder = [0.15, 0.6].map((distanceM) => step(`at-${100 * distanceM}`, 'phrase', { role: 'distance', distanceM, fileHints: [`at-${100 * distanceM}`] })); // prettier-ignore
    const levels = (near: number, far: number, gainDb: number | null = null) =>
      matchTakes([take('at-15.wav', 'line', near, { gainDb: null }), take('at-60.wav', 'line', far, { gainDb })], ladder) // prettier-ignore
        .map((m) => [...m.reasons, ...m.doubts].filter((r) => r.includes('level')));
    const suits = 'its level suits that distance or angle';
    // Four times the distance: 12 dB less, of which a room leaves some 10.
    expect(levels(-24, -34)).toEqual([[suits], [suits]]);
    // 10 dB of gain more: as loud, and still 10 dB less.
    expect(levels(-24, -24, 10)).toEqual([[suits], [suits]]);
    expect(levels(-24, -27)[1]).not.toContain(suits);
    // One line alone has nothing to be held against.
    expect(said(take('at-15.wav', 'line'), { role: 'distance', distanceM: 0.15 }, 'phrase').reasons.join()).not.toContain('level'); // prettier-ignore
  });
});

describe('steps that are repeated', () => {
  const SIDES = [
    step('sweep-left', 'sweep', { role: 'sweep', fileHints: ['left'], repeats: 3 }),
    step('sweep-right', 'sweep', { role: 'sweep-right', fileHints: ['right'], repeats: 3 }),
    step('noise', 'noise'),
  ];
  const given = (steps: readonly MatchableStep[], ...names: string[]) => matchTakes(names.map((n) => take(n, 'sweep')), steps).map((m) => m.step); // prettier-ignore

  it('are given to every take that speaks for them, also beyond what was asked for', () => {
    expect(given(SIDES, 'left-1.wav', 'left-2.wav', 'left-3.wav', 'left-4.wav', 'right-1.wav', 'right-2.wav')).toEqual([
      ...['sweep-left', 'sweep-left', 'sweep-left', 'sweep-left'],
      ...['sweep-right', 'sweep-right'],
    ]);
  });

  it('take nothing away from a step that has none yet', () => {
    // Nothing says which side: each side gets one before either gets two.
    expect(new Set(given(SIDES.slice(0, 2), 'a.wav', 'b.wav'))).toEqual(new Set(['sweep-left', 'sweep-right']));
  });

  it('once only, where the protocol does them once', () => {
    const once = SIDES.map((s) => ({ ...s, repeats: 1 }));
    expect(given(once, 'left-1.wav', 'left-2.wav', 'left-3.wav').filter((s) => s === 'sweep-left')).toHaveLength(1);
  });
});
