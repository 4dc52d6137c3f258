import type { z } from 'zod';
import { newTestSchema, type Answer, type performerAnswerSchema, type TrialDocument } from '#contracts/listening';
import { codeOf } from '#domain/listening/heard-from-answer';
import { performerRefusal } from '#domain/listening/performer-refusal';
import type { Clock } from '../platform/clock';
import type { Database } from '../platform/db/database';
import type { EventHub } from '../platform/event-hub';
import { Failure } from '../platform/failure';
import { newKey, newSecret } from '../platform/listening-key';
import type { HeardScale } from '../scale/heard-scale';
import { insertWords } from '../scale/queries/heard';
import { keepHeard } from './kept-answer';
import {
  addTrials,
  answerTrial,
  ensureListener,
  ensureSitting,
  finishSitting,
  itemsOfTest,
  trialsOfSitting,
} from './queries/listening';
import { mustFindTest } from './must-find-test';

/** Orders of people who performed through each microphone, entered by the operator. */
export class PerformerAnswers {
  constructor(
    private readonly database: Database,
    private readonly scale: HeardScale,
    private readonly hub: EventHub,
    private readonly clock: Clock,
  ) {}

  /**
   * An order that somebody gave who performed through each microphone.
   *
   * @throws Failure `invalid-request` where an item does not belong to the test, `not-found`
   */
  async answer(id: string, entry: z.output<typeof performerAnswerSchema>): Promise<void> {
    const row = await mustFindTest(this.database, id);
    const test = newTestSchema.parse(row.document);
    const items = await itemsOfTest(this.database, id);
    if (test.design !== 'performer') throw new Failure('invalid-request', "This is not a performer's test.");
    if (row.status !== 'open') throw new Failure('answer-refused', 'This test is closed.');
    const refusal = performerRefusal(entry, items);
    if (refusal !== null) throw new Failure('invalid-request', refusal);
    await this.database.transaction(async (tx) => {
      const listenerId = await ensureListener(tx, entry.listener);
      const { row: sitting } = await ensureSitting(tx, id, listenerId, newKey(), newSecret());
      const from = (await trialsOfSitting(tx, sitting.id)).length;
      const trial: TrialDocument = { kind: 'order', items: [...entry.order], round: 1, isFinal: true };
      await addTrials(tx, sitting.id, from, [trial]);
      const added = (await trialsOfSitting(tx, sitting.id))[from];
      const answer: Answer = { kind: 'order', codes: entry.order.map((_, i) => codeOf(i)) };
      await answerTrial(tx, added.id, answer, {}, 0, this.clock.now());
      await keepHeard(tx, { test, day: row.day, items }, { trialId: added.id, listenerId, trial, answer });
      for (const [itemId, said] of Object.entries(entry.words)) {
        const specimenId = items.find((i) => i.id === itemId)?.specimen_id ?? '';
        await insertWords(tx, { trialId: added.id, listenerId, specimenId, day: row.day }, said);
      }
      await finishSitting(tx, sitting.id, this.clock.now());
    });
    this.scale.changed(items.map((i) => i.specimen_id));
    this.hub.emit({ type: 'listening', testId: id });
  }
}
