import { describe, expect, it } from 'vitest';
import type { CompareCandidate, CompareTable } from '#contracts/compare';
import type { Run } from '#contracts/specimen';
import { frozenDeck } from './frozen-deck';
import { proposeDeck } from './propose-deck';
import { fact, reviewFacts, unit } from './testing/review-facts';

const take = (id: string, step: string, speech = 1) => ({ id, step, summary: { noise: { speech: Array.from({ length: speech }, () => ({})) } } }); // prettier-ignore
const run = (takes: object[], pairs: object[] = []): Run =>
  ({ id: '1', date: '2025-05-01', purpose: 'unit', takes, measurements: [], curves: { pairs } }) as unknown as Run;
const candidate = (takeId: string, specimenId: string, change: Partial<CompareCandidate> = {}): CompareCandidate => ({ takeId, specimenId, unit: specimenId, words: '', isProcessed: false, step: 'speech', stepTitle: 'Words', category: 'microphone', date: '2025-01-01', durationS: 9, protocol: 'p', protocolVersion: 1, ...change }); // prettier-ignore

/** Six units, the quieter the better placed; the third is reviewed, the sixth is the yardstick. */
const facts = (takes: object[], pairs: object[] = []) => {
  const units = [-60, -70, -65, -58, -55, -50].map((v, i) => unit(String([3, 1, 2, 4, 5, 6][i]), { noiseReSpeechA: fact(v) }, 100)); // prettier-ignore
  return reviewFacts(units, { sheet: { runs: [run(takes, pairs)] }, control: '6' });
};
const deckOf = (f: ReturnType<typeof facts>, list: CompareCandidate[]) => proposeDeck(f, (step) => Promise.resolve(list.filter((c) => c.step === step))); // prettier-ignore

describe('what is proposed to be heard', () => {
  it('is the unit, the best buy and the nearest in the ranking, and one yardstick at the end', async () => {
    const list = ['1', '2', '3', '4', '5', '6'].map((id) => candidate(`t${id}`, id));
    const deck = await deckOf(facts([take('t3', 'speech')]), list);
    expect(deck).toEqual({ step: 'speech', takes: ['t3', 't1', 't2', 't4', 't6'] });
  });

  it('is of one voice where there is any, of the newest take, and never processed', async () => {
    const list = [
      candidate('mine', '3', { words: 'voice high', date: '2025-05-01' }),
      candidate('mine-old', '3', { words: 'voice low', date: '2024-01-01' }),
      candidate('mine-new', '3', { words: 'voice low', date: '2026-01-01', isProcessed: true }),
      candidate('low', '1', { words: 'voice low' }),
      candidate('high', '4', { words: 'voice high' }),
    ];
    expect((await deckOf(facts([take('mine', 'speech')]), list))?.takes).toEqual(['mine', 'high']);
    const others = list.filter((c) => c.takeId !== 'high');
    expect((await deckOf(facts([take('mine', 'speech')]), others))?.takes).toEqual(['mine', 'low']);
  });

  it('begins with words, goes on to another step where nothing stands beside it, and is nothing where nothing does', async () => {
    const steps = [take('tone', 'tone', 0), take('alone', 'sung'), take('said', 'speech')];
    const list = [
      candidate('tone', '3', { step: 'tone' }),
      candidate('tone1', '1', { step: 'tone' }),
      candidate('alone', '3', { step: 'sung' }),
      candidate('said', '3'),
      candidate('said1', '1'),
    ];
    expect(await deckOf(facts(steps), list)).toEqual({ step: 'speech', takes: ['said', 'said1'] });
    expect(await deckOf(facts(steps), [candidate('said', '3')])).toBeNull();
    expect(await deckOf(facts([]), list)).toBeNull();
  });

  it('of a part is the take with it and the one without it', async () => {
    const pairs = [{ takes: [{ fitted: 'with', without: 'bare' }] }];
    const deck = await deckOf(facts([take('with', 'speech-with')], pairs), []);
    expect(deck).toEqual({ step: 'speech-with', takes: ['with', 'bare'] });
  });
});

describe('a deck as it is frozen', () => {
  const lane = (takeId: string, specimenId: string, words = '') => ({ takeId, specimenId, words, unit: specimenId, date: '2025-01-01', sha256: 'a'.repeat(64), appliedDb: -3, durationS: 9, isLoud: false }); // prettier-ignore
  const table = (lanes: object[], pair: object | null = null) => ({ step: 's', stepTitle: 'Words', targetLufs: -23, lanes, pair }) as unknown as CompareTable; // prettier-ignore

  it('says of each clip whose it is, what it is played with and where it lies', () => {
    const map = { kind: 'phrases' as const, anchors: [[0, 1]] as [number, number][] };
    const deck = frozenDeck(table([lane('a', '3', 'voice high'), lane('b', '1'), lane('c', '6')]), new Map([['b', map]]), facts([])); // prettier-ignore
    expect(deck.lanes.map((l) => [l.role, l.words, l.map])).toEqual([['this unit', 'voice high', null], ['another unit', '', map], ['yardstick', '', null]]); // prettier-ignore
  });

  it('tells the take without a part from the one with it: both are of one unit', () => {
    const deck = frozenDeck(table([lane('a', '3'), lane('b', '3', 'voice high')], { withTake: 'a', withoutTake: 'b' }), new Map(), facts([])); // prettier-ignore
    expect(deck.lanes.map((l) => [l.role, l.words])).toEqual([['this unit', ''], ['without it', 'voice high, without it']]); // prettier-ignore
  });
});
