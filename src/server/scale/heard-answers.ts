import { ALGORITHM_VERSION } from '#core/measure/registry';
import type { Category } from '#contracts/common';
import type { Attribute } from '#contracts/listening';
import type { ScaleRequest } from '#contracts/scale';
import { unitName } from '#contracts/unit-name';
import type { IndexedAnswer } from '#worker/tasks/rank-heard';
import { listSpecimens, specimensInOrder } from '../catalogue/queries/specimen';
import type { Clock } from '../platform/clock';
import type { Database } from '../platform/db/database';
import { Failure } from '../platform/failure';
import { Memory, type Memories } from '../platform/memory';
import { heardAnswers, type HeardRow } from './queries/heard';

/** Which answers are meant. */
export type AnswerChoice = Omit<ScaleRequest, 'withEffects' | 'among'> & {
  /** Only answers of this day or earlier. */
  readonly until?: string;
};

/** A unit as answers name it. */
export interface HeardUnit {
  readonly id: string;
  readonly name: string;
}

/** Answers with units in place of numbers, ready for the worker. */
export interface Gathered {
  readonly units: readonly HeardUnit[];
  readonly blind: readonly IndexedAnswer[];
  readonly sighted: readonly IndexedAnswer[];
  readonly rows: readonly HeardRow[];
}

/** All answers that count, of all tests: of a long archive, only what is new is read again. */
export class HeardAnswers {
  private readonly known: Memory<string, readonly HeardRow[]>;

  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    memories: Memories,
  ) {
    this.known = new Memory(memories, 'answers of listeners', ['answers']);
  }

  /** Numbers rise as answers are kept: the process has one connection, and one transaction at a time. */
  of(category: Category, attribute: Attribute): Promise<readonly HeardRow[]> {
    return this.known.next(`${category}/${attribute}`, async (before = []) => {
      const added = await heardAnswers(this.database, category, attribute, before.at(-1)?.id);
      return added.length > 0 ? [...before, ...added] : before;
    });
  }

  /** @param also - units that are to be among them, whether they were heard or not */
  async gather(request: AnswerChoice, also: readonly HeardUnit[] = []): Promise<Gathered> {
    const all = await this.of(request.category, request.attribute);
    const rows = all.filter(
      (r) =>
        (request.voice === null || r.voice === request.voice) &&
        (request.use === null || r.use === request.use) &&
        (request.until === undefined || r.day <= request.until),
    );
    const names = new Map((await this.units(request.category)).map((u) => [u.id, u.name]));
    const ids = distinct([...rows.flatMap((r) => r.specimens), ...also.map((u) => u.id)]).sort(
      (a, b) => Number(a) - Number(b),
    );
    const index = new Map(ids.map((id, i) => [id, i]));
    const today = this.clock.now().getTime();
    const answers = rows.map((r): IndexedAnswer & { sighted: boolean } => ({
      id: Number(r.id),
      items: r.specimens.map((s) => index.get(s) ?? 0),
      outcome: r.outcome,
      tiesAllowed: r.ties_allowed,
      listener: r.listener_id === null ? -1 : Number(r.listener_id),
      weight: r.weight * fade(r.day, today, request.halfLifeYears),
      circumstances: r.circumstances,
      sighted: r.sighted,
    }));
    return {
      units: ids.map((id) => ({ id, name: names.get(id) ?? `unit ${id}` })),
      blind: answers.filter((a) => !a.sighted),
      sighted: answers.filter((a) => a.sighted),
      rows: rows.filter((r) => !r.sighted),
    };
  }

  /** All units of a kind, heard or not. */
  async units(category: Category): Promise<HeardUnit[]> {
    return (await specimensInOrder(this.database)).filter((s) => s.category === category);
  }

  /** @throws Failure `not-found` */
  async unit(id: string): Promise<HeardUnit & { readonly category: Category }> {
    const [row] = await listSpecimens(this.database, ALGORITHM_VERSION, [id]);
    if (!row) throw new Failure('not-found', `There is no unit with the number ${id}.`);
    return { id, name: unitName(row), category: row.category };
  }
}

export const distinct = <T>(values: readonly T[]): T[] => [...new Set(values)];

/** Half after every half-life; from the day of the answer to today. */
function fade(day: string, today: number, halfLifeYears: number | null): number {
  if (halfLifeYears === null) return 1;
  const years = Math.max(0, (today - Date.parse(day)) / (365.25 * 86_400_000));
  return 2 ** (-years / halfLifeYears);
}
