import { describe, expect, it } from 'vitest';
import { facingDoubt } from './facing-doubt';
import { alikeUnits, bareName, editDistance } from './name-likeness';

describe('front and back exchanged', () => {
  const take = (name: string, integratedLufs: number | null, gainDb: number | null = 30) => ({
    name,
    integratedLufs,
    gainDb,
  });

  it('is doubted where the back is louder at equal gain, with the figure', () => {
    expect(facingDoubt(take('a.wav', -29), take('b.wav', -23))).toContain('“b.wav”, put to the back, is 6.0 dB louder');
    expect(facingDoubt(take('a.wav', -23, 30), take('b.wav', -21, 36))).toBeNull();
    expect(facingDoubt(take('a.wav', -23, 36), take('b.wav', -23, 30))).toContain('6.0 dB');
  });

  it('is not where it is softer, equally loud, or the levels cannot be compared', () => {
    expect(facingDoubt(take('a.wav', -23), take('b.wav', -29))).toBeNull();
    expect(facingDoubt(take('a.wav', -23), take('b.wav', -21.5))).toBeNull();
    expect(facingDoubt(take('a.wav', null), take('b.wav', -21))).toBeNull();
    expect(facingDoubt(take('a.wav', -29, null), take('b.wav', -21, 30))).toBeNull();
    expect(facingDoubt(null, take('b.wav', -21))).toBeNull();
  });
});

describe('names that are much alike', () => {
  const known = [
    { maker: 'Nortide', model: 'Halyard C40', label: 'A' },
    { maker: 'Nortide', model: 'Halyard C41', label: 'A' },
    { maker: 'Oarlock', model: 'Purser', label: 'A' },
    { maker: 'Oarlock', model: 'Purser', label: 'B' },
  ];
  const names = (maker: string, model: string, label = 'A'): string[] =>
    alikeUnits({ maker, model, label }, known).map((u) => `${u.maker} ${u.model} ${u.label}`);

  it('are found across case, signs, spaces, joints and slips', () => {
    expect(names('nortide', 'halyard c40')).toEqual(['Nortide Halyard C40 A']);
    expect(names('NORTIDE', 'Halyard C-40', 'a')).toEqual(['Nortide Halyard C40 A']);
    expect(names('Nortide Halyard', 'C40')).toEqual(['Nortide Halyard C40 A']);
    expect(names('Nortdie', 'Halyard C40')).toEqual(['Nortide Halyard C40 A']);
    expect(names('Oarlok', 'Purser', 'B')).toEqual(['Oarlock Purser B']);
  });

  it('are nothing to ask about where the name is known, is another, or is not typed yet', () => {
    expect(names('Nortide', 'Halyard C40')).toEqual([]);
    expect(names('Nortide', 'Halyard C42')).toEqual([]);
    expect(names('Oarlock', 'Purser', 'C')).toEqual([]);
    expect(names('Oarlock', '')).toEqual([]);
  });

  it('ask for a label that is written otherwise', () => {
    expect(names('Oarlock', 'Purser', 'b')).toEqual(['Oarlock Purser B']);
  });

  it('count letters as the handbooks do', () => {
    // Textbook pairs: kitten/sitting 3 (Levenshtein); one exchange of neighbours counts once (Damerau).
    expect(editDistance('kitten', 'sitting')).toBe(3);
    expect(editDistance('purser', 'pruser')).toBe(1);
    expect(editDistance('', 'abc')).toBe(3);
    expect(bareName('Éclair C-40')).toBe('eclairc40');
  });
});
