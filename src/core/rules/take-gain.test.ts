import { describe, expect, it } from 'vitest';
import {
  asNoted,
  atOneGain,
  gainWords,
  keptGain,
  notedGain,
  readTakeGain,
  takeGain,
  typedGain,
  type TakeGain,
} from './take-gain';

const db = (value: number): TakeGain => ({ kind: 'dB', db: value });
const dial = (position: string): TakeGain => ({ kind: 'dial', position });

describe('readTakeGain', () => {
  it.each<[string, TakeGain]>([
    ['20', db(20)],
    ['20 dB', db(20)],
    ['20dB', db(20)],
    ['−6,5', db(-6.5)],
    ['+12.5 db', db(12.5)],
    ['0', db(0)],
    ['50 %', dial('50 %')],
    ['dial 7', dial('7')],
    ['Dial: 7', dial('7')],
    ['position 3 of 11', dial('3 of 11')],
    ['3 o’clock', dial('3 o’clock')],
    ['7/10', dial('7/10')],
    ['7 of 10', dial('7 of 10')],
    ['noon', dial('noon')],
    ['dial a lot', dial('a lot')],
    ['max', dial('max')],
    ['auto', { kind: 'automatic' }],
    ['AGC', { kind: 'automatic' }],
    ['?', { kind: 'unknown' }],
    ['unknown', { kind: 'unknown' }],
  ])('understands “%s”', (text, gain) => {
    expect(readTakeGain(text)).toEqual({ isUnderstood: true, value: gain });
  });

  it('takes nothing for nothing', () => {
    expect(readTakeGain('  ')).toEqual({ isUnderstood: true, value: null });
  });

  it.each([
    '121',
    '−41',
    '20 dBu',
    'dial',
    '150 %',
    '-5 %',
    'dial ' + 'x'.repeat(41),
    'a lot',
    '36 x',
    '20 of',
    'automatik',
  ])('refuses “%s”', (text) => {
    const read = readTakeGain(text);
    expect(read.isUnderstood).toBe(false);
    if (!read.isUnderstood) expect(read.why).not.toBe('');
  });
});

describe('what is kept of a gain', () => {
  it.each([db(12.5), dial('50 %'), { kind: 'automatic' } as const, { kind: 'unknown' } as const])(
    'comes back as it was: %o',
    (gain) => {
      const { gainDb, dial: place } = keptGain(gain);
      expect(takeGain(gainDb, place)).toEqual(gain);
    },
  );

  it.each([
    db(12.5),
    db(-6),
    dial('7'),
    dial('50 %'),
    dial('dial'),
    { kind: 'automatic' } as const,
    takeGain(null, ''),
  ])('is read as the same again from what a field shows: %o', (gain) => {
    expect(readTakeGain(typedGain(gain))).toEqual({ isUnderstood: true, value: gain });
  });

  it('is nothing where nothing is noted, which is not unknown', () => {
    expect(notedGain({ gainDb: null, dial: ' ' })).toBeNull();
    expect(notedGain({ gainDb: null, dial: 'unknown' })).toEqual({ kind: 'unknown' });
  });

  it('a dial beside decibels stays with other decibels; one in their place goes', () => {
    expect(asNoted(db(30), { gainDb: 20, dial: '7' })).toEqual({ gainDb: 30, dial: '7' });
    expect(asNoted(db(30), { gainDb: null, dial: '7' })).toEqual({ gainDb: 30, dial: '' });
    expect(asNoted(dial('8'), { gainDb: 20, dial: '7' })).toEqual({ gainDb: null, dial: '8' });
    expect(asNoted(null, { gainDb: 20, dial: '7' })).toEqual({ gainDb: null, dial: '' });
  });

  it('a dial that is noted beside decibels does not hide them', () => {
    expect(takeGain(30, '7')).toEqual(db(30));
  });

  it('words say which it is', () => {
    expect([db(-6), dial('7'), takeGain(null, 'auto'), takeGain(null, null)].map(gainWords)).toEqual([
      '−6 dB of gain',
      'dial at 7',
      'automatic gain',
      'gain not known',
    ]);
  });
});

describe('atOneGain', () => {
  it('decibels are what they are', () => {
    expect(atOneGain([db(20), db(35)])).toEqual([20, 35]);
  });

  it('one place of the dial is one gain, however it is written', () => {
    expect(atOneGain([dial('50 %'), dial('50%'), dial(' 50 % ')])).toEqual([0, 0, 0]);
  });

  it.each<[string, TakeGain[], RegExp]>([
    ['two places', [dial('5'), dial('6')], /dial at 5 and dial at 6/],
    ['decibels and a place', [db(20), dial('6')], /20 dB of gain and dial at 6/],
    ['automatic gain', [takeGain(null, 'auto'), takeGain(null, 'auto')], /automatic/],
    ['an unknown one', [db(20), takeGain(null, null)], /not known/],
  ])('refuses %s, with the reason', (_, gains, words) => {
    const found = atOneGain(gains);
    expect('refused' in found && found.refused).toMatch(words);
  });
});
