import type { Answer, NewTest, TrialDocument } from '#contracts/listening';
import { heardFromAnswer, heardItem } from '#domain/listening/heard-from-answer';
import type { ItemRow } from '#domain/listening/test-item';
import type { Queryable } from '../platform/db/database';
import { insertHeard } from '../scale/queries/heard';

/** An answer that was given in a sitting. */
export interface GivenAnswer {
  readonly trialId: string;
  /** Null where many are counted together: a poll has no taste of its own. */
  readonly listenerId: string | null;
  readonly trial: TrialDocument;
  readonly answer: Answer;
}

/**
 * Puts what an answer tells into the scale's table.
 *
 * @param db - in the transaction of the answer
 * @param of - the test, its day and its items
 * @param of.test - what was asked
 * @param of.day - when
 * @param of.items - its clips
 * @param given - the answer
 * @returns whether it told anything
 */
export async function keepHeard(
  db: Queryable,
  of: { readonly test: NewTest; readonly day: string; readonly items: readonly ItemRow[] },
  given: GivenAnswer,
): Promise<boolean> {
  const { test, day, items } = of;
  const { trialId, listenerId, trial, answer } = given;
  const facts = heardFromAnswer(test, trial, answer, items.map(heardItem));
  await insertHeard(
    db,
    facts.map((f) => ({
      ...f,
      trialId,
      listenerId,
      source: 'test',
      importKey: null,
      attribute: test.attribute,
      voice: test.voice,
      use: test.use,
      category: test.category,
      sighted: test.sighted,
      day,
      placingId: null,
    })),
  );
  return facts.length > 0;
}
