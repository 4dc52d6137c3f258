import { describe, expect, it } from 'vitest';
import { knownAnswers } from './known-answers';
import type { PackEars } from './pack-ears';
import { readComments } from './read-comments';
import { isHeading, readTable } from './read-table';
import { answerWords } from './same-answer';
import { saidOf, trialsOfReturned } from './trials-of-returned';

const PACK: PackEars = {
  tag: '7F3A2C',
  clips: ['Alder', 'Birch', 'Cedar'],
  units: [
    { specimenId: '13', name: 'Thole Quiet' },
    { specimenId: '14', name: 'Wren Lantern' },
    { specimenId: '15', name: 'Oarlock Fathom' },
  ],
};
const table = (text: string) => readTable(text.split('\n').map((line, i) => ({ line: i + 1, cells: line.split(',') })), PACK); // prettier-ignore

describe('pasted comments', () => {
  it('one per line, with and without a name in front', () => {
    const read = readComments('Ines: B > A > C\n@bram\tC > B > A\nA: 7, B: 8, C: 6\n\n', PACK);
    expect(read.map((r) => [r.line, r.listener, r.order.join('')])).toEqual([
      [1, 'Ines', 'BAC'],
      [2, 'bram', 'CBA'],
      [3, null, ''],
    ]);
    expect(read[2].points).toEqual({ A: 7, B: 8, C: 6 });
  });

  it('in paragraphs: the name above, the time left out', () => {
    const read = readComments(
      'Mirre Duin\n2 days ago\nB > C > A, close call though\n\n@Tam\nCedar is best\n\nB > A > C',
      PACK,
    );
    expect(read.map((r) => [r.line, r.listener])).toEqual([
      [1, 'Mirre Duin'],
      [5, 'Tam'],
      [8, null],
    ]);
    expect(read[1].best).toBe('C');
    expect(read[2].order.join('')).toBe('BAC');
  });

  it('takes no words about the answer for a name', () => {
    const read = readComments(
      'My ranking: B, A, C\nworst to best: B A C\nTop 3: C, A, B\nTopsy: C, A, B\nEDIT: C > B',
      PACK,
    );
    expect(read.map((r) => [r.listener, r.order.join('')])).toEqual([
      [null, 'BAC'],
      [null, 'CAB'],
      [null, 'CAB'],
      ['Topsy', 'CAB'],
      [null, 'CB'],
    ]);
  });

  it('keeps what is not understood, with why', () => {
    expect(readComments('great film', PACK)[0]).toMatchObject({ listener: null, text: 'great film', problem: 'It names no clip of this pack.' }); // prettier-ignore
  });
});

describe('tables', () => {
  it('with a line per clip, grouped by listener; a heading that comes again begins anew', () => {
    const read = table(
      'listener,clip,place,points,guess,pack\nInes,Alder,2,7,,7f3a2c\nInes,Birch,1,8.5,,7F3A2C\nInes,Cedar,3,,,\nlistener,clip,place\n,A,1\n,C,2',
    );
    expect(read).toHaveLength(2);
    expect(read[0]).toMatchObject({ listener: 'Ines', order: ['B', 'A', 'C'], points: { A: 7, B: 8.5 }, problem: null, line: 2 }); // prettier-ignore
    expect(read[1]).toMatchObject({ listener: null, order: ['A', 'C'], line: 6 });
  });

  it('with places that are shared, guesses, and what is wrong by its line', () => {
    expect(table('clip,place\nA,1\nB,1\nC,3')[0]).toMatchObject({ points: { A: 2, B: 2, C: 0 }, order: [] });
    expect(table('clip,guess\nA,Thole Quiet\nB,Lantern')[0].names).toEqual({ A: '13', B: '14', C: '15' });
    expect(table('clip,place\nA,1\nQ,2')[0].problem).toMatch(/Line 3: “Q” is no clip/);
    expect(table('clip,place\nA,first\nB,2')[0].problem).toMatch(/“first” is no place/);
    expect(table('clip,points\nA,101\nB,2')[0].problem).toMatch(/0 to 100/);
    expect(table('clip,guess\nA,Nobody\nB,2')[0].problem).toMatch(/none of this pack/);
    expect(table('clip,place\nA,1\nA,2')[0].problem).toMatch(/stands twice/);
    expect(table('clip,place\nA,1')[0].problem).toMatch(/no order/);
    expect(table('clip,place,pack\nA,1,AAAAAA\nB,2,AAAAAA')[0].problem).toMatch(/another pack/);
    expect(table('clip,place\nA,\nB,')[0].problem).toMatch(/says nothing/);
  });

  it('with a column per clip', () => {
    const read = table(
      'Name,A,Birch,C\nInes,7,8,6\nBram,2,1,3\nTam,Thole Quiet,Wren Lantern,Oarlock Fathom\nUlf,7,,\nNo,x,y,z\nBig,700,1,1',
    );
    expect(read[0]).toMatchObject({ listener: 'Ines', points: { A: 7, B: 8, C: 6 }, doubts: [] });
    expect(read[1]).toMatchObject({ order: ['B', 'A', 'C'] });
    expect(read[1].doubts.join()).toMatch(/taken as places/);
    expect(read[2].names).toEqual({ A: '13', B: '14', C: '15' });
    expect(read[3].points).toEqual({ A: 7 });
    expect(read[4].problem).toMatch(/neither a number/);
    expect(read[5].problem).toMatch(/100/);
  });

  it('of votes is one answer, and of comments one each', () => {
    expect(table('clip,votes\nAlder,34\nBirch,51\nCedar,0')[0]).toMatchObject({ votes: { A: 34, B: 51, C: 0 }, doubts: [], listener: null }); // prettier-ignore
    expect(table('clip,votes\nAlder,34\nBirch,51')[0].doubts.join()).toMatch(/no votes are given for C/);
    expect(table('clip,votes\nAlder,3.5')[0].problem).toMatch(/no number of votes/);
    expect(table('clip,votes\nAlder,3\nA,4')[0].problem).toMatch(/votes twice/);
    const read = table('When,Name,Comment\nmonday,Ines,B > A > C\nmonday,Bram,thanks');
    expect(read.map((r) => [r.listener, r.order.join(''), r.problem === null])).toEqual([
      ['Ines', 'BAC', true],
      ['Bram', '', false],
    ]);
  });

  it('is what has a heading that is known', () => {
    expect(isHeading(['listener', 'clip', 'place'], PACK)).toBe(true);
    expect(isHeading(['Alder', 'Birch'], PACK)).toBe(true);
    expect(isHeading(['B', ' C', ' A'], { ...PACK })).toBe(true);
    expect(isHeading(['Ines: B > A'], PACK)).toBe(false);
    expect(isHeading(['well', 'then'], PACK)).toBe(false);
  });
});

describe('what is there already', () => {
  const read = (text: string) => readComments(text, PACK).map(saidOf);
  it('a listener answers once; of those without a name the same words are the same answer, as often as they are there', () => {
    const known = [
      { listener: 'Ines', cameAs: 'B > A > C' },
      { listener: 'unnamed 1', cameAs: 'A > B > C' },
    ];
    const all = knownAnswers(
      read('ines: C > A > B\nA > B > C\nA > B > C\nBram: B > A\nBram: A > B\nBram: B > A'),
      known,
    );
    expect(all.map((a) => a.isThere)).toEqual([true, true, false, false, true, true]);
    expect(all[4].doubts).toEqual(['says something else than the first time']);
    expect(all[5].doubts).toEqual([]);
    expect(all[0].doubts).toEqual([]);
  });

  it('an answer with a problem takes nobody’s place', () => {
    const all = knownAnswers(read('Ines: thanks\nInes: B > A > C'), []);
    expect(all.map((a) => [a.problem === null, a.isThere])).toEqual([
      [false, false],
      [true, false],
    ]);
  });
});

describe('as trials', () => {
  const NOTHING = { order: [], best: null, points: {}, names: {}, votes: null };
  it('an order is heard, points beside it and guesses are not', () => {
    const trials = trialsOfReturned({ ...NOTHING, order: ['B', 'A'], points: { A: 1, B: 2 }, names: { A: '13' } }, [
      '1',
      '2',
      '3',
    ]);
    expect(trials.map((t) => [t.answer.kind, t.isHeard])).toEqual([
      ['order', true],
      ['points', false],
      ['names', false],
    ]);
    expect(trials[0].trial).toEqual({ kind: 'order', items: ['1', '2', '3'], round: 1, isFinal: true });
  });

  it('a guess alone is heard by nobody', () => {
    expect(trialsOfReturned({ ...NOTHING, names: { A: '13' } }, ['1']).map((t) => t.isHeard)).toEqual([false]);
  });

  it('what says nothing that can be kept has a problem', () => {
    const one = { ...NOTHING, order: ['A'], doubts: [], problem: null, line: 1, text: 'A', listener: null };
    expect(saidOf(one).problem).toMatch(/two clips/);
    expect(saidOf({ ...one, order: ['A', 'B'] }).problem).toBeNull();
  });

  it('in words', () => {
    expect(answerWords({ ...NOTHING, order: ['B', 'A'], points: { B: 2, A: 1 }, names: { A: '13' } }, PACK)).toBe('order B > A; points A 1, B 2; guess A = Thole Quiet'); // prettier-ignore
    expect(answerWords({ ...NOTHING, best: 'C' }, PACK)).toBe('C is the best');
    expect(answerWords({ ...NOTHING, votes: { A: 3 } }, PACK)).toBe('votes A 3');
  });
});
