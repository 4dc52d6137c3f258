import type { UnitAnswer } from '#contracts/unit-answer';
import type { Database } from '../platform/db/database';
import { answersOfUnit } from './queries/answer';

/** As many as a page shows. */
const MOST = 500;

/** What was answered about a unit, so that a single answer can be left out. */
export class UnitAnswers {
  constructor(private readonly database: Database) {}

  of(specimenId: string): Promise<UnitAnswer[]> {
    return answersOfUnit(this.database, specimenId, MOST);
  }
}
