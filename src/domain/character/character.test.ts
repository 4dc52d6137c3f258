import { describe, expect, it } from 'vitest';
import type { House } from '#contracts/review';
import { fact, reviewFacts, unit } from '../review/testing/review-facts';
import { SHIPPED_HOUSE } from '../review/shipped-house';
import { characterWords, contradictions, makersWords, measuredWords } from './character-words';
import { publishedWords } from './published-words';
import { useStandings } from './use-standing';

const HOUSE: House = {
  ...SHIPPED_HOUSE,
  leastUnits: 4,
  standsOutPercent: 80,
  uses: [
    { name: 'Desk', kinds: ['microphone'], wants: [{ figure: 'rearRejection', atLeast: 10, atMost: null }, { figure: 'noiseReSpeechA', atLeast: null, atMost: -50 }] }, // prettier-ignore
    { name: 'Singing', kinds: ['microphone'], wants: [] },
    { name: 'Out', kinds: ['field-microphone'], wants: [{ figure: 'windUsable', atLeast: 5, atMost: null }] },
  ],
};
const desk = (id: string, rear: number | null, noise: number | null) => unit(id, { rearRejection: fact(rear), noiseReSpeechA: fact(noise) }); // prettier-ignore

describe('how many are better for a use', () => {
  const standing = (...units: ReturnType<typeof desk>[]) => useStandings(reviewFacts(units), HOUSE);

  it('says nothing of uses that ask for nothing, or of another kind', () => {
    expect(standing(desk('1', 15, -60)).map((u) => u.use)).toEqual(['Desk']);
  });

  it('of one that meets it: those that surpass it in what is asked, and are worse in nothing', () => {
    const [use] = standing(
      desk('1', 15, -60),
      desk('2', 20, -60), // more rejection, as quiet: better
      desk('3', 20, -52), // more rejection, noisier: neither
      desk('4', 15.5, -60.5), // not told apart
      desk('5', 5, -70), // misses the rejection
      desk('6', null, -70), // open
    );
    expect(use).toMatchObject({ how: 'met', tested: 5, meeting: 3, unknown: 1, better: 1 });
    expect(use.bestNames.map((b) => b.id)).toEqual(['2']);
    expect(use.asked[0]).toBe('rear rejection of speech: 15.0 ±0.5 dB (asked: at least 10.0 dB)');
  });

  it('of one that misses something: all that meet it; of one that is open: nothing', () => {
    const others = [desk('2', 20, -60), desk('3', 12, -55), desk('4', 3, -60)];
    expect(standing(desk('1', 5, -70), ...others)[0]).toMatchObject({ how: 'missed', meeting: 2, better: 2 });
    expect(standing(desk('1', null, -70), ...others)[0]).toMatchObject({ how: 'open', meeting: 2, better: null, bestNames: [] }); // prettier-ignore
    // At the limit, within its own doubt: neither met nor missed.
    expect(standing(desk('1', 10.4, -70), ...others)[0].how).toBe('open');
    // Missing one thing outweighs not knowing another.
    expect(standing(desk('1', null, -40), ...others)[0].how).toBe('missed');
  });

  it('names three at most', () => {
    const many = Array.from({ length: 6 }, (_, i) => desk(String(i + 2), 20, -60));
    const [use] = standing(desk('1', 5, -60), ...many);
    expect([use.better, use.bestNames.length]).toEqual([6, 3]);
  });
});

describe('words from figures', () => {
  const noisy = (id: string, noise: number, presence = 0) => unit(id, { noiseReSpeechA: fact(noise), presence: fact(presence) }); // prettier-ignore

  it('are said of what stands out on the side of the word, with how many it stands out from', () => {
    const facts = reviewFacts([
      noisy('1', -40, 6),
      noisy('2', -60),
      noisy('3', -60),
      noisy('4', -60),
      noisy('5', -60, 8),
    ]);
    const words = measuredWords(facts, HOUSE);
    expect(words.map((w) => w.word)).toEqual(['noisy']);
    expect(words[0].why).toContain('more than 4 of 4 others of its kind');
    // Of presence it stands beyond three of four: 75 % are not 80 %.
    expect(measuredWords(facts, { ...HOUSE, standsOutPercent: 75 }).map((w) => w.word)).toEqual(['bright', 'sibilant', 'noisy']); // prettier-ignore
  });

  it('take the other side where the word goes with less', () => {
    const facts = reviewFacts([noisy('1', -60, -6), noisy('2', -60), noisy('3', -60), noisy('4', -60)]);
    expect(measuredWords(facts, HOUSE).map((w) => w.word)).toEqual(['dull']);
    expect(measuredWords(facts, HOUSE)[0].why).toContain('less than 3 of 3');
  });

  it('are not said among too few, nor of what is not told apart', () => {
    expect(measuredWords(reviewFacts([noisy('1', -40), noisy('2', -60), noisy('3', -60)]), HOUSE)).toEqual([]);
    const close = reviewFacts([noisy('1', -59.5), noisy('2', -60), noisy('3', -60), noisy('4', -60)]);
    expect(measuredWords(close, HOUSE)).toEqual([]);
  });
});

describe('words of its maker, and where words contradict each other', () => {
  const entry = (words: string[] | null) => ({ field: 'makersWords', value: words && { type: 'words' as const, words }, date: '2026-01-01', reason: '' }); // prettier-ignore

  it('are those of the newest entry', () => {
    expect(makersWords([entry(['bright', 'airy']), entry(['dull'])])).toEqual(['bright', 'airy']);
    expect(makersWords([entry(null), entry(['dull'])])).toEqual([]);
    expect(makersWords([])).toEqual([]);
  });

  it('are said with who says what', () => {
    const heard = [{ word: 'Dull', count: 3, isFree: false }];
    const measured = [{ word: 'thin', why: '' }];
    expect(contradictions({ heard, measured, maker: ['Bright', 'full'] })).toEqual([
      'its maker says bright, listeners say dull',
      'its maker says full, the figures say thin',
    ]);
    expect(contradictions({ heard, measured, maker: ['dull'] })).toEqual([]);
  });

  it('published they are those of the list: what somebody said in their own words is theirs, and nothing leans on it', () => {
    const heard = [{ word: 'dull', count: 3, isFree: true }, { word: 'full', count: 2, isFree: false }]; // prettier-ignore
    const measured = [{ word: 'thin', why: 'Proximity' }];
    expect(publishedWords({ heard, measured, maker: ['bright'] })).toEqual({
      heard: [{ word: 'full', count: 2 }],
      measured,
      maker: ['bright'],
      contradictions: ['listeners say full, the figures say thin'],
    });
  });

  it('stand beside each other, each where it belongs', () => {
    const facts = reviewFacts([unit('1', {})], { sheet: { words: [{ word: 'full', count: 2, isFree: false }], sheet: [entry(['airy'])] } }); // prettier-ignore
    expect(characterWords(facts, HOUSE)).toEqual({ heard: [{ word: 'full', count: 2, isFree: false }], measured: [], maker: ['airy'], contradictions: [] }); // prettier-ignore
  });
});
