import { quantity, QUANTITY_IDS } from '#core/measure/registry';
import type { Category } from '#contracts/common';
import { wordMeaningSchema, type Vocabulary, type WordMeaning, type WordPage } from '#contracts/vocabulary';
import {
  meaningOf,
  meaningRefusal,
  vocabularyOf,
  wordsOf,
  type Meanings,
} from '#domain/listening/vocabulary/collect-words';
import {
  wordAgainstFigures,
  wordOfUnits,
  wordPage,
  type MeasuredQuantity,
} from '#domain/listening/vocabulary/word-page';
import type { Clock } from '../platform/clock';
import type { Database, Queryable } from '../platform/db/database';
import { Failure } from '../platform/failure';
import type { WorkerPool } from '../platform/worker-pool';
import type { HeardAnswers } from './heard-answers';
import { newestFigures } from './newest-figures';
import { hearings } from './queries/heard';
import { everythingSaid, insertWordMeaning, wordMeanings } from './queries/vocabulary';

const MEANING = wordMeaningSchema.shape.meaning;

/** Words that listeners have for gear, over the years: their own ones with those of the list. */
export class VocabularyBook {
  constructor(
    private readonly database: Database,
    private readonly answers: HeardAnswers,
    private readonly pool: WorkerPool,
    private readonly clock: Clock,
  ) {}

  /** All words that were said of a kind. */
  async vocabulary(category: Category): Promise<Vocabulary> {
    return vocabularyOf(await everythingSaid(this.database, category), await meaningsOf(this.database));
  }

  /** One word against units and figures. */
  async word(category: Category, word: string): Promise<WordPage> {
    const meanings = await meaningsOf(this.database);
    const spoken = wordsOf(await everythingSaid(this.database, category), meanings);
    const heard = new Map((await hearings(this.database, category)).map((h) => [h.specimen_id, h.count]));
    const units = (await this.answers.units(category)).map(({ id, name }) => ({ id, name, heard: heard.get(id) ?? 0 }));
    const facts = await newestFigures(this.database);
    const quantities = QUANTITY_IDS.map((id): MeasuredQuantity => ({
      id,
      title: quantity(id).name,
      values: new Map(facts.flatMap((f) => (f.quantity === id && f.value !== null ? [[f.specimen_id, f.value]] : []))),
    }));
    const counts = meaningOf(word, meanings) ?? word;
    const rows = wordOfUnits(counts, spoken, units);
    // Thousands of orders are drawn: not on the thread that answers.
    const found = await this.pool.run('associate-word', { ...wordAgainstFigures(rows, quantities), seed: counts });
    return wordPage(counts, rows, quantities, found);
  }

  /**
   * Notes what a word means; what it meant before is kept beside it.
   *
   * @throws Failure `invalid-request` for a circle, or a word of the list
   */
  async mean(given: WordMeaning): Promise<void> {
    await this.database.transaction(async (tx) => {
      const refusal = meaningRefusal(given, await meaningsOf(tx));
      if (refusal !== null) throw new Failure('invalid-request', refusal);
      await insertWordMeaning(tx, given.word, given.meaning, this.clock.now());
    });
  }
}

async function meaningsOf(db: Queryable): Promise<Meanings> {
  return new Map((await wordMeanings(db)).map(({ word, meaning }) => [word, MEANING.parse(meaning)]));
}
