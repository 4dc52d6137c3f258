import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { answerCode } from '#core/rules/listening/answer-code';
import type { PackEars } from './pack-ears';
import { readComment } from './read-comment';

const PACK: PackEars = {
  tag: '7F3A2C',
  clips: ['Alder', 'Birch', 'Cedar', 'Dogwood'],
  units: [
    { specimenId: '11', name: 'Oarlock Fathom' },
    { specimenId: '12', name: 'Oarlock Fathom Two' },
    { specimenId: '13', name: 'Thole Quiet' },
    { specimenId: '14', name: 'Wren Lantern' },
  ],
};
const read = (text: string) => readComment(text, PACK);
const order = (text: string) => read(text).order.join('');

describe('an order', () => {
  it.each([
    ['B > C > A > D', 'BCAD'],
    ['b>c>a>d', 'BCAD'],
    ['B, C, A, D', 'BCAD'],
    ['BCAD', 'BCAD'],
    ['bcad', 'BCAD'],
    ['B then C then A then D', 'BCAD'],
    ['Birch, Cedar, Alder, Dogwood', 'BCAD'],
    ['birch > CEDAR > alder > dogwood!', 'BCAD'],
    ['D < A < C < B', 'BCAD'],
    ['1. Birch 2. Cedar 3. Alder 4. Dogwood', 'BCAD'],
    ['1. B\n2. C\n3. A\n4. D', 'BCAD'],
    ['2. C 1. B 4. D 3. A', 'BCAD'],
    ['1st B, 2nd C, 3rd A, 4th D', 'BCAD'],
    ['#1 B #2 C', 'BC'],
    ['B → C → A → D', 'BCAD'],
    ['B/C/A/D', 'BCAD'],
    ['(B) (C) (A) (D)', 'BCAD'],
    ['Mic B > Mic C > mic A', 'BCA'],
    ['Clip B then clip C', 'BC'],
    ['best to worst: B, C, A, D', 'BCAD'],
    ['worst to best: D A C B', 'BCAD'],
    ['from worst to best D, A, C, B', 'BCAD'],
    ['worst to best DACB', 'BCAD'],
  ])('%s', (text, expected) => {
    expect(order(text)).toBe(expected);
    expect(read(text).problem).toBeNull();
  });

  it('that goes up and down, or names a clip twice, or leaves out a place, is refused', () => {
    expect(read('A > B < C').problem).toMatch(/up and down/);
    expect(read('A > B > A').problem).toMatch(/A stands twice/);
    expect(read('1. A 3. B').problem).toMatch(/one is missing/);
    expect(read('1. A 1. B').problem).toMatch(/stands twice/);
  });

  it('is refused or doubted where it names letters that are no clips', () => {
    expect(read('A > B > C > D > E').problem).toMatch(/names E, which/);
    expect(read('my order is A > B, and X').doubts.join()).toMatch(/“X” is no clip/);
    expect(read('I say A > B').doubts).toEqual([]);
  });

  it('with some alike becomes points', () => {
    expect(read('B > A = C > D')).toMatchObject({ points: { B: 2, A: 1, C: 1, D: 0 }, order: [] });
    expect(read('D < A = C < B')).toMatchObject({ points: { D: 0, A: 1, C: 1, B: 2 } });
  });

  it('that begins with the worst and has some alike is doubted', () => {
    expect(read('worst to best: A = C > B').doubts.join()).toMatch(/begins with the worst/);
  });

  it('in which clips are named together is doubted', () => {
    expect(read('B and C').doubts.join()).toMatch(/named together/);
    expect(read('B > C').doubts).toEqual([]);
  });
});

describe('points', () => {
  it.each([
    ['A 7, B 8.5, C 6', { A: 7, B: 8.5, C: 6 }],
    ['A: 7/10 B: 8,5/10', { A: 7, B: 8.5 }],
    ['Alder = 7\nBirch = 9', { A: 7, B: 9 }],
    ['A gets 70, B gets 80', { A: 70, B: 80 }],
    ['A - 7, B - 0', { A: 7, B: 0 }],
  ])('%s', (text, expected) => {
    expect(read(text).points).toEqual(expected);
    expect(read(text).problem).toBeNull();
    expect(read(text).doubts).toEqual([]);
  });

  it('that look like places, or are out of different numbers, are doubted; above 100 or twice they are refused', () => {
    expect(read('A 1, B 2, C 3').doubts.join()).toMatch(/places/);
    expect(read('A 7/10, B 8/20').doubts.join()).toMatch(/different numbers/);
    expect(read('A 700, B 8').problem).toMatch(/100/);
    expect(read('A 7, A 8').problem).toMatch(/twice/);
    expect(read('A 11/10').problem).toMatch(/more points than there are/);
    expect(read('A 5 5')).toMatchObject({ points: {}, doubts: ['one clip alone is named: it is taken as the best'] });
  });
});

describe('guesses', () => {
  it('by whole names or a word that no other unit has, the longest name first', () => {
    const given = read('A is the Lantern, B = Oarlock Fathom Two, C = Thole Quiet, D: Oarlock Fathom');
    expect(given).toMatchObject({ problem: null, names: { A: '14', B: '12', C: '13', D: '11' } });
    expect(given.doubts.join()).toMatch(/part of its name/);
  });

  it('with the unit in front of the clip belong to the clip behind it', () => {
    const names = { A: '13', B: '14', C: '12', D: '11' };
    expect(read('Thole Quiet is A, Lantern is B, Oarlock Fathom Two is C, Oarlock Fathom is D').names).toEqual(names);
    expect(read('the Quiet = A / Lantern = B / Two = C / Oarlock Fathom = D').names).toEqual(names);
    expect(read('Thole Quiet is A, B is the Lantern').problem).toMatch(/not clear/);
  });

  it('that leave one name for one clip are filled up, others are not', () => {
    expect(read('A = Thole Quiet, B = Wren Lantern, C = Oarlock Fathom').names).toEqual({ A: '13', B: '14', C: '11', D: '12' }); // prettier-ignore
    expect(read('A = Thole Quiet, B = Wren Lantern').problem).toMatch(/C, D have none/);
    expect(read('A = Thole Quiet, B = Thole Quiet, C = Wren Lantern, D = Oarlock Fathom').problem).toMatch(/two clips/);
    expect(read('A = Thole Quiet or Wren Lantern').problem).toMatch(/More than one unit/);
    expect(read('A = Thole Quiet, A = Wren Lantern').problem).toMatch(/Two units/);
  });
});

describe('a favourite, and what people write beside it', () => {
  it.each(['B', 'B!', 'Birch is the best', 'My vote goes to B', 'I love Birch', 'B all the way, my favourite'])(
    '%s',
    (text) => {
      expect(read(text)).toMatchObject({ best: 'B', problem: null, doubts: [] });
    },
  );

  it('is doubted where words may turn it, or say nothing of liking', () => {
    expect(read('Birch is not the best').doubts.join()).toMatch(/“not”/);
    expect(read("I don't like B").doubts.join()).toMatch(/n't/);
    expect(read('B?').doubts.join()).toMatch(/\?/);
    expect(read('B sounds boxy').doubts.join()).toMatch(/taken as the best/);
    expect(read('b is the best').doubts.join()).toMatch(/small letter/);
  });

  it('takes "a" and "I" in a sentence for words', () => {
    expect(read('I think a nice one is Birch').best).toBe('B');
    expect(read('I prefer C').best).toBe('C');
    expect(read('What a film').problem).toMatch(/names no clip/);
    expect(read('great video, thanks').problem).toMatch(/names no clip/);
  });

  it('with two clips in a sentence is not understood', () => {
    expect(read('Birch sounds nice but I like Cedar for singing').problem).toMatch(/not understood/);
  });
});

describe('a code', () => {
  const code = answerCode('7F3A2C', {
    order: ['B', 'A', 'C', 'D'],
    points: { A: 7.5 },
    names: { A: 4, B: 2, C: 3, D: 1 },
  });
  it('is read whatever stands around it', () => {
    expect(read(`here you go: ${code}. cheers`)).toMatchObject({ order: ['B', 'A', 'C', 'D'], points: { A: 7.5 }, names: { A: '14', B: '12', C: '13', D: '11' }, problem: null, doubts: [] }); // prettier-ignore
    expect(read(code.toLowerCase()).order).toEqual(['B', 'A', 'C', 'D']);
  });

  it('of another pack, damaged, or with clips and units that are not there, is refused', () => {
    expect(read(answerCode('AAAAAA', { order: ['A', 'B'], points: {}, names: {} })).problem).toMatch(/another pack/);
    expect(read(code.replace('OBA', 'OAB')).problem).toMatch(/lost or changed/);
    expect(read(answerCode('7F3A2C', { order: ['A', 'E'], points: {}, names: {} })).problem).toMatch(/clip E/);
    expect(read(answerCode('7F3A2C', { order: [], points: {}, names: { A: 9 } })).problem).toMatch(/unit that this pack has not/); // prettier-ignore
    expect(read(`${code} ${answerCode('7F3A2C', { order: ['A', 'B'], points: {}, names: {} })}`).problem).toMatch(/several codes/); // prettier-ignore
  });
});

it('never throws, and never gives an order with a clip twice or a clip that is not there', () => {
  const word = fc.constantFrom('A', 'b', 'Cedar', 'dogwood', '>', '<', '=', '1.', '2', '7/10', 'I', 'a', 'not', 'best', 'Thole', 'SD1-7F3A2C-OAB-00', ',', '\n', 'ä', '::'); // prettier-ignore
  fc.assert(
    fc.property(fc.array(fc.oneof(word, fc.string({ maxLength: 8 })), { maxLength: 14 }), (words) => {
      const given = read(words.join(' '));
      expect(new Set(given.order).size).toBe(given.order.length);
      for (const l of [
        ...given.order,
        ...Object.keys(given.points),
        ...Object.keys(given.names),
        ...(given.best === null ? [] : [given.best]),
      ])
        expect('ABCD').toContain(l);
    }),
    { numRuns: 2000 },
  );
});
