import { describe, expect, it } from 'vitest';
import { addressOf, exportAddress, pairsOf, requestOf, withoutTake, withTake } from './compare-request';

const address = (takes?: string, zero?: string, match?: string, loop?: string) => ({ takes, zero, match, loop });

describe('the address of a comparison', () => {
  it('says what is compared; what makes no sense in it is left', () => {
    expect(requestOf(address('3,4,7', '4', 'gain', '1.50-4.25'))).toEqual({
      takes: ['3', '4', '7'],
      zero: '4',
      match: 'gain',
      loop: { fromS: 1.5, toS: 4.25 },
    });
    expect(requestOf(address('3,x,12x,x12,40,', '9', 'loud', '4-1'))).toEqual({
      takes: ['3', '40'],
      zero: '3',
      match: 'loudness',
      loop: null,
    });
    expect(requestOf(address('1,2', undefined, undefined, '2-2.3'))?.loop).toBeNull();
    expect(requestOf(address('1,2', undefined, undefined, '2-2.4'))?.loop).toEqual({ fromS: 2, toS: 2.4 });
    expect(requestOf(address('1,2,3,4,5,6,7,8,9'))?.takes).toHaveLength(8);
    for (const none of [undefined, '', 'x']) expect(requestOf(address(none))).toBeNull();
  });

  it('comes back as it was, and leaves out what is usual', () => {
    const whole = { takes: ['3', '4'], zero: '4', match: 'none' as const, loop: { fromS: 0.25, toS: 3 } };
    const { takes, zero, match, loop } = addressOf(whole);
    expect(requestOf(address(takes, zero, match, loop))).toEqual(whole);
    expect(addressOf({ takes: ['3', '4'], zero: '3', match: 'loudness', loop: null })).toEqual({ takes: '3,4' });
  });

  it('gains and loses takes; the zero line goes over to the first that stays', () => {
    const two = withTake(withTake(null, '3'), '4');
    expect(two).toEqual({ takes: ['3', '4'], zero: '3', match: 'loudness', loop: null });
    expect(withoutTake({ ...two, match: 'gain' }, '3')).toMatchObject({ takes: ['4'], zero: '4', match: 'gain' });
    expect(withoutTake(two, '4')).toMatchObject({ takes: ['3'], zero: '3' });
    expect(withoutTake({ ...two, takes: ['3'] }, '3')).toBeNull();
  });

  it('asks for the difference of every lane but the zero line', () => {
    expect(pairsOf(requestOf(address('3,4,7', '4')))).toEqual({ zero: '4', others: ['3', '7'] });
    expect(pairsOf(null)).toEqual({ zero: '', others: [] });
  });

  it('exports what is heard, loop and name included', () => {
    const request = { takes: ['3', '4'], zero: '4', match: 'gain' as const, loop: { fromS: 1, toS: 2.5 } };
    const url = new URL(exportAddress(request, 'A & B'), 'http://desk');
    expect(Object.fromEntries(url.searchParams)).toEqual({
      takes: '3,4',
      zero: '4',
      match: 'gain',
      name: 'A & B',
      from: '1',
      to: '2.5',
    });
    expect(exportAddress({ ...request, loop: null }, 'x')).not.toContain('from');
  });
});
