import { createHash } from 'node:crypto';
import { ALGORITHM_VERSION, quantity } from '#core/measure/registry';
import { effectWords } from '#core/rules/listening/plain-words';
import { HEARD_WORDS, WORD_QUANTITIES } from '#core/rules/listening/vocabulary';
import { quantile } from '#core/stats/quantile';
import { rankCorrelation } from '#core/stats/rank-correlation';
import { heardPoints, type HeardFact } from '#core/rules/heard-points';
import { meanMeasuredPoints } from '#core/rules/measured-points';
import type { PlacingGoal } from '#core/rules/placing-goal';
import type { Attribute, NewTest } from '#contracts/listening';
import type { z } from 'zod';
import type {
  Placing,
  placeAnswerSchema,
  placeRequestSchema,
  placeUndoSchema,
  Scale,
  ScaleRequest,
} from '#contracts/scale';
import type { Category } from '#contracts/common';
import { unitName } from '#contracts/unit-name';
import type { IndexedAnswer, RankHeardResult, RankHeardTask } from '#worker/tasks/rank-heard';
import type { Database } from '../platform/db/database';
import { stepTakes } from '../compare/queries/compare';
import {
  heardAnswers,
  hasImport,
  hearings,
  insertImported,
  insertHeard,
  removeLastPlacing,
  wordCounts,
  type HeardRow,
} from './queries/heard';
import { ensureListener } from '../listening/queries/listening';
import { currentFacts } from '../runs/queries/measurement';
import { currentPoints } from '../catalogue/queries/points';
import { currentRubric } from '../catalogue/queries/rubric';
import { listSpecimens, specimensInOrder } from '../catalogue/queries/specimen';
import { Failure } from '../platform/failure';
import type { EventHub } from '../platform/event-hub';
import type { WorkerPool } from '../platform/worker-pool';
import { countingFacts, type RankedFact } from '#domain/catalogue/comparable-facts';
import type { Clock } from '../platform/clock';

/** Rule by which heard units form strata where the category has no rubric. */
const STRATUM_PROBABILITY = 0.9;
/** Fewer units show nothing of how a word goes with a figure. */
const LEAST_WORD_UNITS = 4;

const EFFECT_WORDS = {
  order: 'the clip heard first',
  level: 'a clip that is 1 LU louder',
  sighted: 'the famous unit when its name is shown',
} as const;

/** Which answers are meant. */
type AnswerChoice = Omit<ScaleRequest, 'withEffects'>;

/** A unit as answers name it. */
interface Unit {
  readonly id: string;
  readonly name: string;
}

/** Answers with units in place of numbers, ready for the worker. */
interface Gathered {
  readonly units: readonly Unit[];
  readonly blind: readonly IndexedAnswer[];
  readonly sighted: readonly IndexedAnswer[];
  readonly rows: readonly HeardRow[];
}

/** All answers of all tests as one scale; where a new unit settles on it; answers from elsewhere. */
export class HeardScale {
  constructor(
    private readonly database: Database,
    /** One thread: it remembers the last fit. */
    private readonly pool: WorkerPool,
    /** For files that are brought in. */
    private readonly reading: WorkerPool,
    private readonly hub: EventHub,
    private readonly clock: Clock,
  ) {}

  /** Answers that were read before: of a long archive, only what is new is read again. */
  private readonly known = new Map<string, readonly HeardRow[]>();
  /** What the ranking was told of a kind, and the answers that it follows from. */
  private readonly rankedFacts = new Map<
    Category,
    { readonly answers: readonly HeardRow[]; readonly facts: ReadonlyMap<string, HeardFact> }
  >();
  /** Answers that the thread was sent, by key. */
  private readonly sent = new Map<string, { readonly count: number; readonly lastId: number }>();

  /**
   * Tells everybody that answers about these units have changed.
   *
   * @param specimenIds - the units
   * @param areGone - answers were taken back or put back, not only added
   */
  changed(specimenIds: readonly string[], areGone = false): void {
    if (areGone) this.known.clear();
    for (const id of new Set(specimenIds)) this.hub.specimenChanged(id);
  }

  async scale(request: ScaleRequest): Promise<Scale> {
    const gathered = await this.gather(request);
    const { units, rows } = gathered;
    const result = await this.rank(request, gathered, null, request.withEffects);
    const rubric = (await currentRubric(this.database, request.category))?.rubric;
    const criterion = rubric?.criteria.find((c) => c.kind === 'heard');
    const facts = factsOf(result, gathered);
    const hand = new Map(
      (await currentPoints(this.database))
        .filter((p) => p.criterion === criterion?.id)
        .map((p) => [p.specimen_id, p.value]),
    );
    const isPreference = request.attribute === 'preference';
    return {
      items: result.items
        .map((item, i) => ({
          id: units[i].id,
          name: units[i].name,
          worth: item.worth,
          logWorth: item.logWorth,
          se: item.se,
          place: item.place,
          place90: [...item.place90] as [number, number],
          answers: facts.get(units[i].id)?.answers ?? 0,
          component: item.component,
          stratum: item.stratum,
          heardPoints:
            criterion?.kind === 'heard' && isPreference
              ? (heardPoints(criterion, facts.get(units[i].id))?.points ?? null)
              : null,
          handPoints: isPreference ? (hand.get(units[i].id) ?? null) : null,
        }))
        .sort((a, b) => a.place - b.place),
      components: result.components,
      bridges: result.bridges.map(({ a, b }) => ({ a: units[a].name, b: units[b].name })),
      tie: result.tie,
      answers: Math.round(gathered.blind.reduce((sum, a) => sum + a.weight, 0)),
      listeners: new Set(rows.flatMap((r) => r.listener_id ?? [])).size,
      tasteSd: result.tasteSd,
      iterations: result.iterations,
      logLikelihood: result.logLikelihood,
      effects: result.effects.map((e) => ({ ...e, words: effectWords(e, EFFECT_WORDS[e.name]) })),
      voices: distinct(rows.flatMap((r) => r.voice ?? [])),
      uses: distinct(rows.flatMap((r) => r.use ?? [])),
      words: await this.words(request.category),
    };
  }

  /** What the ranking takes of it: worth against the middle unit, per specimen. */
  async factsForRanking(category: Category): Promise<ReadonlyMap<string, HeardFact>> {
    const request = { category, attribute: 'preference', voice: null, use: null, halfLifeYears: null } as const;
    // The same answers say the same: a price that was noted changes nothing here.
    const answers = await this.answers(category, request.attribute);
    const known = this.rankedFacts.get(category);
    if (known?.answers === answers) return known.facts;
    const gathered = await this.gather(request);
    const facts = gathered.blind.length === 0 ? new Map<string, HeardFact>() : factsOf(await this.rank(request, gathered, null), gathered); // prettier-ignore
    this.rankedFacts.set(category, { answers, facts });
    return facts;
  }

  /** Takes by what is known of their units, strongest first; units not heard yet stand in the middle. */
  async strongestFirst<T extends { readonly specimen_id: string }>(takes: readonly T[], test: NewTest): Promise<T[]> {
    const gathered = await this.gather({ ...test, halfLifeYears: null });
    if (gathered.blind.length === 0) return [...takes];
    const { items } = await this.rank({ ...test, halfLifeYears: null }, gathered, null);
    const worth = new Map(gathered.units.map((u, i) => [u.id, items[i].logWorth]));
    return [...takes].sort((a, b) => (worth.get(b.specimen_id) ?? 0) - (worth.get(a.specimen_id) ?? 0));
  }

  /**
   * Where a unit settles, and the pair or heat that would narrow its place most.
   *
   * @throws Failure `not-found`
   */
  async place(specimenId: string, request: z.output<typeof placeRequestSchema>): Promise<Placing> {
    const takes = await this.newestTakes(request.category, request.step);
    const own = await this.unit(specimenId);
    const gathered = await this.gather(request, [own]);
    const unit = gathered.units.findIndex((u) => u.id === specimenId);
    const opponents = gathered.units.flatMap((u, i) => (i !== unit && takes.has(u.id) ? [i] : []));
    const than = this.yardstick(request, gathered, unit);
    const goal: PlacingGoal = request.goal !== 'beats' ? { kind: request.goal } : than === null ? { kind: 'half' } : { kind: 'beats', than }; // prettier-ignore
    const points = request.usesFigures ? await this.measuredPoints(request.category, gathered.units) : null;
    const result = await this.rank(request, gathered, { unit, opponents, kind: request.kind, goal, points });
    const placing = result.placing;
    if (!placing) throw new Error('the worker placed nothing');
    const ownTake = takes.get(specimenId);
    const question = placing.question && ownTake ? placing.question : null;
    return {
      specimenId,
      name: own.name,
      answers: factsOf(result, gathered).get(specimenId)?.answers ?? 0,
      place90: [...placing.place90],
      units: gathered.units.length,
      strata: placing.strata,
      likeliest: placing.likeliest,
      probabilities: [...placing.probabilities],
      isSettled: placing.isSettled,
      goal: {
        kind: goal.kind,
        than: goal.kind === 'beats' ? gathered.units[goal.than].name : null,
        answer: placing.standing.answer,
        probability: placing.standing.probability,
        isSettled: placing.standing.isSettled,
        expected: placing.expected,
      },
      hint: placing.hint,
      listeners: result.listeners,
      others: gathered.units.filter((u) => u.id !== specimenId).map(({ id, name }) => ({ id, name })),
      question: question && {
        kind: question.items.length > 2 ? 'heat' : 'pair',
        takes: question.items.map((i) => ({
          takeId: takes.get(gathered.units[i].id) ?? '',
          specimenId: gathered.units[i].id,
        })),
        sdNow: placing.sdNow,
        sdAfter: question.sdAfter,
      },
      problem: ownTake
        ? opponents.length === 0
          ? 'No other unit that was heard has a clip of this step.'
          : null
        : 'This unit has no measured clip of this step.',
    };
  }

  /** The unit that the new one is held against: as asked for, or the one with the most answers. */
  private yardstick(
    request: z.output<typeof placeRequestSchema>,
    { units, blind }: Gathered,
    unit: number,
  ): number | null {
    const asked = units.findIndex((u) => u.id === request.than);
    if (asked >= 0 && asked !== unit) return asked;
    const answers = new Map<number, number>();
    for (const { items } of blind) for (const i of items) if (i !== unit) answers.set(i, (answers.get(i) ?? 0) + 1);
    return [...answers].reduce<[number, number] | null>((a, b) => (a && a[1] >= b[1] ? a : b), null)?.[0] ?? null;
  }

  /** The newest figure of each unit and quantity, whatever it was measured under. */
  private async facts(): Promise<RankedFact[]> {
    const all = await currentFacts(this.database, ALGORITHM_VERSION);
    return countingFacts(all.map((fact) => ({ ...fact, remark: null })));
  }

  /** Mean points of what was measured of each unit, by the rubric's weights; null where nothing was. */
  private async measuredPoints(category: Category, units: readonly Unit[]): Promise<(number | null)[]> {
    const rubric = (await currentRubric(this.database, category))?.rubric;
    const facts = await this.facts();
    return units.map(({ id }) => {
      const own = new Map(facts.filter((f) => f.specimen_id === id).map((f) => [f.quantity, f.value]));
      return rubric ? meanMeasuredPoints(rubric, own) : null;
    });
  }

  /**
   * Keeps the answer to a question of {@link place}, and gives the next one.
   *
   * @throws Failure `invalid-request`
   */
  async placeAnswer(specimenId: string, sent: z.output<typeof placeAnswerSchema>): Promise<Placing> {
    const isSame = new Set([...sent.order, ...sent.offered]).size === sent.order.length;
    if (!isSame || sent.offered.length !== sent.order.length || !sent.order.includes(specimenId))
      throw new Failure(
        'invalid-request',
        'The answer has to order the clips that were offered, this unit among them.',
      );
    if (sent.isTie && sent.order.length !== 2)
      throw new Failure('invalid-request', 'Only a pair can be left undecided.');
    const isPair = sent.order.length === 2;
    // A pair is kept as it was offered, an order as it was answered.
    const specimens = isPair ? sent.offered : sent.order;
    const outcome = !isPair ? null : sent.isTie ? 0.5 : sent.order[0] === sent.offered[0] ? 1 : 0;
    await this.database.transaction(async (tx) => {
      const listenerId = await ensureListener(tx, sent.listener);
      await insertHeard(tx, [
        {
          trialId: null,
          listenerId,
          source: 'placing',
          importKey: null,
          attribute: sent.attribute,
          voice: sent.voice,
          use: sent.use,
          category: sent.category,
          specimens,
          outcome,
          tiesAllowed: isPair,
          weight: 1,
          circumstances: specimens.map((id) => {
            const place = sent.offered.indexOf(id);
            return [place, sent.residualsLu.at(place) ?? 0, 0];
          }),
          sighted: false,
          day: this.clock.today(),
          placingId: sent.placing,
        },
      ]);
    });
    this.changed(sent.order);
    return this.place(specimenId, sent);
  }

  /**
   * Takes back the last answer of this listener in this placing; nobody else's, and of no other placing.
   *
   * @throws Failure `not-found` where there is none
   */
  async placeUndo(specimenId: string, request: z.output<typeof placeUndoSchema>): Promise<Placing> {
    const isRemoved = await this.database.transaction(async (tx) => {
      const listenerId = await ensureListener(tx, request.listener);
      const { placing: placingId, attribute } = request;
      return removeLastPlacing(tx, { placingId, specimenId, listenerId, attribute }, this.clock.now());
    });
    if (!isRemoved) throw new Failure('not-found', `${request.listener} has given no answer in this placing.`);
    this.changed([specimenId], true);
    return this.place(specimenId, request);
  }

  /**
   * Answers of tests that were run elsewhere. The same file is not taken in twice.
   *
   * @throws Failure `answers-refused` with every line that is wrong
   */
  async importCsv(
    csv: string,
    attribute: Attribute,
    category: Category,
  ): Promise<{ answers: number; units: number; alreadyThere: boolean }> {
    const parsed = await this.reading.run('parse-answers', csv);
    const known = new Map((await this.units(category)).map((u) => [u.name.toLowerCase(), u.id]));
    const problems = [...parsed.problems];
    for (const name of parsed.units)
      if (!known.has(name.toLowerCase()))
        problems.push({ file: null, field: null, message: `there is no unit called "${name}"` });
    if (problems.length > 0)
      throw new Failure('answers-refused', 'This file cannot be taken in as it is.', problems.slice(0, 50));
    const importKey = createHash('sha256').update(`${category}/${attribute}/${csv}`).digest('hex');
    const units = Object.fromEntries(parsed.units.map((n) => [n.toLowerCase(), known.get(n.toLowerCase()) ?? '']));
    const ids = distinct(Object.values(units));
    if (await hasImport(this.database, importKey))
      return { answers: parsed.count, units: ids.length, alreadyThere: true };
    await this.database.transaction(async (tx) => {
      const listeners: Record<string, string> = {};
      for (const name of parsed.listeners) listeners[name] = await ensureListener(tx, name);
      const common = {
        importKey,
        attribute,
        category,
        tiesAllowed: parsed.hasTies,
        day: this.clock.today(),
        units,
        listeners,
      };
      for (const batch of parsed.batches) {
        await insertImported(tx, batch, common);
        // The database works in this thread: between two batches others have their turn.
        await new Promise((resolve) => setImmediate(resolve));
      }
    });
    this.changed(ids);
    return { answers: parsed.count, units: ids.length, alreadyThere: false };
  }

  /** Numbers rise as answers are kept: the process has one connection, and one transaction at a time. */
  private async answers(category: Category, attribute: Attribute): Promise<readonly HeardRow[]> {
    const key = `${category}/${attribute}`;
    const before = this.known.get(key) ?? [];
    const added = await heardAnswers(this.database, category, attribute, before.at(-1)?.id);
    const all = added.length > 0 ? [...before, ...added] : before;
    this.known.set(key, all);
    return all;
  }

  private async gather(request: AnswerChoice, also: readonly Unit[] = []): Promise<Gathered> {
    const all = await this.answers(request.category, request.attribute);
    const rows = all.filter(
      (r) => (request.voice === null || r.voice === request.voice) && (request.use === null || r.use === request.use),
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

  private async rank(
    request: AnswerChoice,
    { units, blind, sighted }: Gathered,
    place: RankHeardTask['place'],
    withEffects = false,
  ): Promise<RankHeardResult> {
    const { category, attribute, voice, use, halfLifeYears } = request;
    const rubric = (await currentRubric(this.database, category))?.rubric;
    // Answers that fade weigh less every day.
    const day = halfLifeYears === null ? null : this.clock.today();
    const task: RankHeardTask = {
      key: JSON.stringify([category, attribute, voice, use, halfLifeYears, day, units.map((u) => u.id).join()]),
      units: units.length,
      answers: blind,
      sighted,
      stratumProbability: rubric?.stratumProbability ?? STRATUM_PROBABILITY,
      withEffects,
      place,
    };
    const result = (await this.rankAfter(task)) ?? (await this.pool.run('rank-heard', task));
    if (!result) throw new Error('the worker ranked nothing');
    this.sent.set(task.key, { count: blind.length, lastId: blind.at(-1)?.id ?? 0 });
    return result;
  }

  /** Sends only what the thread does not have: of fifty thousand answers, copying them would take longest. */
  private async rankAfter(task: RankHeardTask): Promise<RankHeardResult | null> {
    const after = this.sent.get(task.key);
    const isNext = after && after.count > 0 && task.answers.at(after.count - 1)?.id === after.lastId;
    if (task.withEffects || !isNext) return null;
    const rest: RankHeardTask = { ...task, answers: task.answers.slice(after.count), sighted: [], after };
    return this.pool.run('rank-heard', rest);
  }

  private async words(category: Category): Promise<Scale['words']> {
    const counts = (await wordCounts(this.database, { category })).filter((w) => !w.is_free);
    const heard = new Map((await hearings(this.database, category)).map((h) => [h.specimen_id, h.count]));
    const facts = await this.facts();
    const names = new Map((await this.units(category)).map((u) => [u.id, u.name]));
    return HEARD_WORDS.flatMap((word) =>
      (WORD_QUANTITIES[word] ?? []).flatMap(({ quantity: id, sign }) => {
        const points = [...heard].flatMap(([specimenId, times]) => {
          const fact = facts.find((f) => f.specimen_id === specimenId && f.quantity === id);
          if (!fact || fact.value === null) return [];
          const said = counts.find((c) => c.specimen_id === specimenId && c.word === word)?.count ?? 0;
          return [{ id: specimenId, name: names.get(specimenId) ?? '', said, heard: times, value: fact.value }];
        });
        if (points.every((p) => p.said === 0)) return [];
        const { name: title, unit } = quantity(id);
        const r = rankCorrelation(
          points.map((p) => p.said / p.heard),
          points.map((p) => sign * p.value),
        );
        return [{ word, quantity: id, title, unit, points, correlation: points.length < LEAST_WORD_UNITS ? null : r }];
      }),
    );
  }

  private async units(category: Category): Promise<Unit[]> {
    return (await specimensInOrder(this.database)).filter((s) => s.category === category);
  }

  private async unit(id: string): Promise<Unit> {
    const [row] = await listSpecimens(this.database, ALGORITHM_VERSION, [id]);
    if (!row) throw new Failure('not-found', `There is no unit with the number ${id}.`);
    return { id, name: unitName(row) };
  }

  /** The newest take of a step, per unit. */
  private async newestTakes(category: string, step: string): Promise<Map<string, string>> {
    const newest = new Map<string, string>();
    for (const take of await stepTakes(this.database, category, step, ALGORITHM_VERSION))
      if (!newest.has(take.specimen_id)) newest.set(take.specimen_id, take.take_id);
    return newest;
  }
}

const distinct = <T>(values: readonly T[]): T[] => [...new Set(values)];

/** Half after every half-life; from the day of the answer to today. */
function fade(day: string, today: number, halfLifeYears: number | null): number {
  if (halfLifeYears === null) return 1;
  const years = Math.max(0, (today - Date.parse(day)) / (365.25 * 86_400_000));
  return 2 ** (-years / halfLifeYears);
}

/** Worths against the middle of the scale, with the answers that stand for each. */
function factsOf(result: RankHeardResult, { units, blind }: Gathered): Map<string, HeardFact> {
  const middle = quantile(
    result.items.map((i) => i.logWorth),
    0.5,
  );
  const answers = new Map<number, number>();
  for (const { items, weight } of blind) for (const i of items) answers.set(i, (answers.get(i) ?? 0) + weight);
  return new Map(
    units.map((u, i) => [
      u.id,
      { logWorth: result.items[i].logWorth - middle, se: result.items[i].se, answers: Math.round(answers.get(i) ?? 0) },
    ]),
  );
}
