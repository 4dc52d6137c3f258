import { effectWords } from '#core/rules/listening/plain-words';
import { heardPoints, type HeardFact } from '#core/rules/heard-points';
import type { Category } from '#contracts/common';
import type { NewTest } from '#contracts/listening';
import type { Scale, ScaleRequest } from '#contracts/scale';
import { currentPoints } from '../catalogue/queries/points';
import { currentRubric } from '../catalogue/queries/rubric';
import type { Database } from '../platform/db/database';
import type { EventHub } from '../platform/event-hub';
import type { Change, Memories, Remembered } from '../platform/memory';
import { distinct, type AnswerChoice, type HeardAnswers } from './heard-answers';
import type { HeardRow } from './queries/heard';
import { factsOf, type ScaleFit } from './scale-fit';
import { wordsAndFigures } from './words-and-figures';

const EFFECT_WORDS = {
  order: 'the clip heard first',
  level: 'a clip that is 1 LU louder',
  sighted: 'the famous unit when its name is shown',
} as const;

/** All answers about preference, whoever gave them and for whatever use. */
const preferenceIn = (category: Category) =>
  ({ category, attribute: 'preference', voice: null, use: null, halfLifeYears: null }) as const;

/** All answers of all tests as one scale, and what the ranking takes of it. */
export class HeardScale implements Remembered {
  readonly what = 'what the ranking was told of answers';
  constructor(
    private readonly database: Database,
    private readonly answers: HeardAnswers,
    private readonly fit: ScaleFit,
    private readonly hub: EventHub,
    private readonly memories: Memories,
  ) {
    memories.add(this);
  }

  /** What the ranking was told of a kind, and the answers that it follows from. */
  private readonly rankedFacts = new Map<
    Category,
    { readonly answers: readonly HeardRow[]; readonly facts: ReadonlyMap<string, HeardFact> }
  >();
  /**
   * Tells everybody that answers about these units have changed.
   *
   * @param specimenIds - the units
   * @param areGone - answers were taken back or put back, not only added
   */
  changed(specimenIds: readonly string[], areGone = false): void {
    if (areGone) this.memories.tell({ cause: 'answers' });
    for (const id of new Set(specimenIds)) this.hub.specimenChanged(id);
  }

  told({ cause }: Change): void {
    if (cause === 'answers') this.forget();
  }

  forget(): void {
    this.rankedFacts.clear();
  }

  async scale(request: ScaleRequest): Promise<Scale> {
    const gathered = await this.answers.gather(request);
    const { units, rows } = gathered;
    const wanted = request.among && new Set(request.among);
    const among = units.flatMap(({ id }, i) => (wanted === null || wanted.has(id) ? [i] : []));
    const result = await this.fit.rank(request, gathered, null, request.withEffects, wanted && among);
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
      items: among
        .map((i) => ({ i, item: result.items[i] }))
        .map(({ item, i }) => ({
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
      words: await wordsAndFigures(this.database, request.category, await this.answers.units(request.category)),
    };
  }

  /** What the ranking takes of it: worth against the middle unit, per specimen. */
  async factsForRanking(category: Category): Promise<ReadonlyMap<string, HeardFact>> {
    const request = preferenceIn(category);
    // The same answers say the same: a price that was noted changes nothing here.
    const answers = await this.answers.of(category, request.attribute);
    const known = this.rankedFacts.get(category);
    if (known?.answers === answers) return known.facts;
    const facts = await this.facts(request);
    this.rankedFacts.set(category, { answers, facts });
    return facts;
  }

  /** The same as it stood on a day: of the answers that had been given by then. */
  async factsOnDay(category: Category, until: string): Promise<ReadonlyMap<string, HeardFact>> {
    return this.facts({ ...preferenceIn(category), until });
  }

  private async facts(request: AnswerChoice): Promise<ReadonlyMap<string, HeardFact>> {
    const gathered = await this.answers.gather(request);
    return gathered.blind.length === 0 ? new Map() : factsOf(await this.fit.rank(request, gathered, null), gathered);
  }

  /** Takes by what is known of their units, strongest first; units not heard yet stand in the middle. */
  async strongestFirst<T extends { readonly specimen_id: string }>(takes: readonly T[], test: NewTest): Promise<T[]> {
    const gathered = await this.answers.gather({ ...test, halfLifeYears: null });
    if (gathered.blind.length === 0) return [...takes];
    const { items } = await this.fit.rank({ ...test, halfLifeYears: null }, gathered, null);
    const worth = new Map(gathered.units.map((u, i) => [u.id, items[i].logWorth]));
    return [...takes].sort((a, b) => (worth.get(b.specimen_id) ?? 0) - (worth.get(a.specimen_id) ?? 0));
  }
}
