import { dictionary } from 'cmu-pronouncing-dictionary';
import { describe, expect, it } from 'vitest';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { protocolSchema } from '#contracts/protocol';
import { phonemeBalance } from './phoneme-balance';
import { PHONEME_FREQUENCIES, VOWELS } from './phoneme-frequencies';
import { southernSounds } from './southern-english';

const lookUp = (word: string): string | null => (Object.hasOwn(dictionary, word) ? dictionary[word] : null);
const seeds = join(import.meta.dirname, '../../server/seed');

describe('the frequency table', () => {
  // Published totals of Fry's count as Gimson gives them (from memory): vowels 39.21 %, consonants 60.78 %.
  it('adds up to the published totals', () => {
    const sum = (names: readonly string[]): number => names.reduce((s, n) => s + PHONEME_FREQUENCIES[n], 0);
    expect(sum(VOWELS)).toBeCloseTo(39.21, 2);
    expect(sum(Object.keys(PHONEME_FREQUENCIES).filter((n) => !VOWELS.includes(n)))).toBeCloseTo(60.78, 2);
  });
});

describe('sounds of words', () => {
  // Dictionary transcriptions of Southern English (ferry /feri/, water /wɔːtə/, near /nɪə/, there /ðeə/, bird /bɜːd/).
  it.each([
    ['ferry', 'F EH R IH'],
    ['water', 'W AO T ə'],
    ['near', 'N IHR'],
    ['there', 'DH EHR'],
    ['bird', 'B ER D'],
    ['butter', 'B AH T ə'],
    ['arm', 'AA M'],
  ])('%s', (word, sounds) => {
    expect(southernSounds(lookUp(word) ?? '').join(' ')).toBe(sounds);
  });
});

describe('the counter', () => {
  it('finds running English near the table, and a line of p far from it', () => {
    const passages = readdirSync(seeds)
      .filter((f) => f.startsWith('protocol-'))
      .map((f) => protocolSchema.parse(JSON.parse(readFileSync(join(seeds, f), 'utf8'))));
    const field = phonemeBalance(passages.find((p) => p.id === 'field-voice')?.text ?? '', lookUp);
    expect(field).toMatchObject({ verdict: 'balanced', unknown: [] });
    const plosive = 'Peter Pollock put a pint of paint by the pump, and poured a bucket of black pitch on top. '.repeat(
      4,
    );
    expect(phonemeBalance(plosive, lookUp).verdict).toBe('uneven');
    expect(phonemeBalance(plosive, lookUp).distance).toBeGreaterThan(2 * field.distance);
  });

  it('knows every word of every text that ships, and says how short the short ones are', () => {
    for (const file of readdirSync(seeds).filter((f) => f.startsWith('protocol-'))) {
      const protocol = protocolSchema.parse(JSON.parse(readFileSync(join(seeds, file), 'utf8')));
      const texts = [protocol.text, ...protocol.steps.map((s) => s.play?.text ?? null)].filter((t) => t !== null);
      for (const text of texts) expect(phonemeBalance(text, lookUp).unknown, file).toEqual([]);
    }
    expect(phonemeBalance('The tide turned.', lookUp)).toMatchObject({ words: 3, verdict: 'too-short' });
  });

  it('counts by hand: "The tide" has five sounds', () => {
    const { phonemes, shares } = phonemeBalance('The tide', lookUp);
    expect(phonemes).toBe(5);
    expect(shares.filter((s) => s.count > 0).map((s) => [s.phoneme, s.count])).toEqual([
      ['ə', 1],
      ['AY', 1],
      ['T', 1],
      ['D', 1],
      ['DH', 1],
    ]);
  });

  it('survives nothing, numbers and unknown words', () => {
    expect(phonemeBalance('', lookUp)).toMatchObject({ words: 0, phonemes: 0, distance: 50, verdict: 'too-short' });
    expect(phonemeBalance('42 constructor qwzx', lookUp).unknown).toEqual(['qwzx']);
  });
});
