import { describe, expect, it } from 'vitest';
import { newTestSchema } from '#contracts/listening';
import { wordMeaningSchema, type WordMeaningDraft } from '#contracts/vocabulary';
import { serve, testApplication } from '../testing/application';
import { importUnits } from '../testing/heard-catalogue';
import type { Application } from '../wiring';

const mean = (app: Application, word: string, meaning: WordMeaningDraft['meaning']): Promise<void> =>
  app.vocabulary.mean(wordMeaningSchema.parse({ word, meaning }));

/** Orders of performers with words of their own, of units that were measured. */
async function heard(app: Application, count: number): Promise<{ test: string; names: string[] }> {
  const units = await importUnits(app, count);
  const { row, items } = await app.tests.create(newTestSchema.parse({ name: 'x', design: 'performer', takes: units.map((u) => u.takeId) })); // prettier-ignore
  const order = items.map((i) => i.id);
  const words = { [order[0]]: { words: ['full' as const], free: 'very warm, cosy' }, [order[1]]: { words: [], free: 'Warmish' } }; // prettier-ignore
  for (const listener of ['Mirre', 'Odo']) await app.performers.answer(row.id, { listener, order, words });
  return { test: row.id, names: units.map((u) => u.name) };
}

describe('words over the years', () => {
  it('gathers what was said, joins what means the same, and takes that back', async () => {
    const app = await testApplication();
    const { names, test } = await heard(app, 5);
    const words = async () => (await app.vocabulary.vocabulary('microphone')).words.map((w) => `${w.word} ${w.said}`);
    expect(await words()).toEqual(['cosy 2', 'full 2', 'warm 2', 'warmish 2']);
    await mean(app, 'warmish', { kind: 'word', as: 'Warm ' });
    await mean(app, 'cosy', { kind: 'none' });
    expect(await words()).toEqual(['warm 4', 'full 2']);
    expect((await app.vocabulary.vocabulary('microphone')).aside).toEqual([{ word: 'cosy', said: 2 }]);
    const page = await app.vocabulary.word('microphone', 'warmish');
    expect(page.word).toBe('warm');
    expect(page.units.map((u) => [u.name, u.said, u.heard]).sort()).toEqual([names[1], names[0]].map((name) => [name, 2, 2])); // prettier-ignore
    expect(page.figure?.count).toBe(5);
    // Each figure is held against the word by its own values.
    expect(new Set([page.figure?.rho, ...(page.figure?.others ?? []).map((o) => o.rho)]).size).toBeGreaterThan(1);
    await mean(app, 'cosy', { kind: 'itself' });
    expect(await words()).toEqual(['warm 4', 'cosy 2', 'full 2']);
    await expect(mean(app, 'warm', { kind: 'word', as: 'warmish' })).rejects.toThrow(/already/);
    // Every line that was noted is still there.
    expect(await app.database.query('SELECT id FROM word_meaning')).toHaveLength(3);
    await app.tests.leaveOut(test, (await app.tests.page(test)).sittings[0].id, 'had a cold');
    expect(await words()).toEqual(['warm 2', 'cosy 1', 'full 1']);
    expect((await app.vocabulary.vocabulary('interface')).words).toEqual([]);
  });

  it('is asked by its address, words with blanks and marks too; what is no word is refused', async () => {
    const app = await testApplication();
    const address = await serve(app);
    const ask = async (path: string) => {
      const response = await fetch(`${address}/api/vocabulary/${path}`);
      return [response.status, (await response.json()) as { sentence?: string; error?: { details: { message: string }[] } }] as const; // prettier-ignore
    };
    const [status, page] = await ask(`microphone/words/${encodeURIComponent("like a cat's ear")}`);
    expect([status, page.sentence]).toEqual([200, expect.stringMatching(/like a cat's ear/)]);
    expect((await ask('microphone/words/x'))[0]).toBe(400);
    expect((await ask('teapot'))[0]).toBe(400);
    for (const word of ['', 'a, b', '77', 'x'.repeat(41)]) expect(wordMeaningSchema.safeParse({ word, meaning: { kind: 'none' } }).success).toBe(false); // prettier-ignore
  });
});
