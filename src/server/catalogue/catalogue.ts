import { gearKindIds } from '#core/gear/kinds';
import type { UnitFacts } from '#core/rules/criterion-points';
import { ExchangeRates } from '#core/rules/exchange-rates';
import type { Rubric } from '#core/rules/rubric';
import { localDay } from '#core/text/local-day';
import type { Category } from '#contracts/common';
import type { Protocol } from '#contracts/protocol';
import type { RankingInputs, RankingOnDay, RankRow } from '#contracts/ranking';
import type { Session } from '#contracts/session';
import type { SpecimenRow, SpecimenSheet } from '#contracts/specimen';
import { unitName } from '#contracts/unit-name';
import { FamilyFacts } from '#domain/catalogue/family';
import { KindFacts } from '#domain/catalogue/kind-facts';
import type { KnownUnit } from '#domain/catalogue/known-unit';
import { isTested, type KindScatters } from '#domain/catalogue/unit-facts';
import type { SpecimenBase } from '#domain/catalogue/specimen-base';
import { UnitChanges } from '#domain/catalogue/unit-changes';
import { namesOf } from '#domain/catalogue/unit-row';
import { UnitRows } from '#domain/catalogue/unit-rows';
import { groupBy } from '#domain/group-by';
import { inOrder } from '#domain/in-order';
import type { Clock } from '../platform/clock';
import type { Database } from '../platform/db/database';
import { Failure } from '../platform/failure';
import { Memory, type Change, type Memories, type Remembered } from '../platform/memory';
import type { WorkerPool } from '../platform/worker-pool';
import type { Rigs } from '../rigs/rigs';
import { listSessions } from '../runs/queries/run';
import type { HeardScale } from '../scale/heard-scale';
import { listProtocols } from '../sessions/queries/protocol';
import { KindRanking, type RankedKind, type Standing } from './kind-ranking';
import { KnownUnits } from './known-units';
import { listRates } from './queries/exchange-rate';
import { lateFacts } from './queries/late-facts';
import { currentRubrics, rubricVersions } from './queries/rubric';
import { mergedInto } from '../mending/queries/unit-merge';
import { UnitSheet } from './unit-sheet';

interface Snapshot {
  /** In the order of lists. */
  readonly rows: readonly SpecimenRow[];
  readonly byId: ReadonlyMap<string, SpecimenRow>;
  readonly inputs: ReadonlyMap<Category, RankingInputs>;
  readonly ranked: ReadonlyMap<Category, RankedKind>;
  readonly scatters: ReadonlyMap<Category, KindScatters>;
  readonly rates: ExchangeRates;
  /** Of every unit, tested or not. */
  readonly facts: ReadonlyMap<string, UnitFacts>;
}

/** What figures are compared and ranked by. */
interface Rules {
  readonly protocols: readonly Protocol[];
  readonly rubrics: ReadonlyMap<string, Rubric>;
  readonly controls: ReadonlySet<string>;
  readonly rates: ExchangeRates;
}

/**
 * What the pages read: the catalogue with figures, prices, points and places put together. It is kept until a fact
 * changes; then only that unit is read anew, and only what follows from it is made again. The answer is always that of a
 * catalogue that begins anew.
 */
export class Catalogue implements Remembered {
  readonly what = 'facts of units, and the rankings that follow from them';
  private snapshot: Promise<Snapshot> | null = null;
  private turn: Promise<unknown> = Promise.resolve();
  /** What has changed of units since they were read; null: all. */
  private changed: UnitChanges | null = null;
  private readonly rules: Memory<'all', Rules>;
  private readonly known: KnownUnits;
  private readonly kinds = new Map<Category, { readonly facts: KindFacts; readonly ranking: KindRanking }>();
  private readonly families = new FamilyFacts();
  private readonly rows = new UnitRows();
  private readonly sheets: UnitSheet;

  constructor(
    private readonly database: Database,
    /** One thread: it remembers the last ranking. */
    private readonly rankingPool: WorkerPool,
    private readonly rigs: Rigs,
    private readonly scale: HeardScale,
    memories: Memories,
    private readonly clock: Clock,
  ) {
    this.rules = new Memory(memories, 'protocols, rigs, rubrics and rates', ['rules']);
    this.known = new KnownUnits(database);
    this.sheets = new UnitSheet(database, rigs);
    memories.add(this);
  }

  told(change: Change): void {
    if (change.cause === 'unit') this.changed?.note(change.unit, change.only ?? null);
    if (change.cause === 'unit' || change.cause === 'rules') this.snapshot = null;
  }

  forget(): void {
    this.changed = null;
    this.snapshot = null;
    this.kinds.clear();
  }

  async specimens(): Promise<readonly SpecimenRow[]> {
    return (await this.current()).rows;
  }

  /** @throws Failure `not-found` */
  async specimen(id: string): Promise<SpecimenRow> {
    const row = (await this.current()).byId.get(id);
    if (!row) throw new Failure('not-found', `There is no unit with the number ${id}.`);
    return row;
  }

  /**
   * Everything on a unit's page; of a unit that was merged into another one, that of the other.
   *
   * @throws Failure `not-found`
   */
  async sheet(id: string): Promise<SpecimenSheet> {
    const isThere = (await this.current()).byId.has(id);
    const row = await this.specimen(isThere ? id : ((await mergedInto(this.database, id)) ?? id));
    const { scatters, rates, byId } = await this.current();
    const main = row.family && byId.get(row.family.main);
    return this.sheets.of(
      row,
      main && main !== row ? main.label : null,
      scatters.get(row.category) ?? new Map(),
      rates,
    );
  }

  async sessions(): Promise<Session[]> {
    return listSessions(this.database);
  }

  /** The rules by which each kind is scored and ranked, of the kinds that have any. */
  async rubrics(): Promise<Rubric[]> {
    return currentRubrics(this.database);
  }

  /** @throws Failure `not-found` where the category has no rubric */
  async rankingInputs(category: Category): Promise<RankingInputs> {
    return rankingOf((await this.current()).inputs, category);
  }

  /**
   * The ranking as it stood on a day: by what held then, by the answers given by then, and by the rules that had been
   * saved by then. Nothing of it is remembered, and nothing looks past the day.
   *
   * @throws Failure `not-found` where the category has no rubric
   */
  async rankingOnDay(category: Category, day: string): Promise<RankingOnDay> {
    const { protocols, rubrics, controls, rates } = await this.readRules();
    const today = rubrics.get(category);
    if (!today) throw noRules(category);
    const { zone } = this.clock;
    const saved = (await rubricVersions(this.database, category)).find((v) => localDay(v.saved_at, zone) <= day);
    const rubric = saved?.rubric ?? today;
    const known = new KnownUnits(this.database, day);
    await known.refresh(null);
    const members = new FamilyFacts().of(known.inOrder()).filter((u) => u.base.category === category);
    const heard = await this.scale.factsOnDay(category, day);
    const { facts } = new KindFacts().of(members, protocols, heard, rubric.criteria, rates);
    return {
      inputs: testedOf(members, facts, rubric, controls),
      rulesSavedOn: saved ? localDay(saved.saved_at, zone) : null,
      lateFacts: await lateFacts(this.database, category, day, zone),
    };
  }

  /**
   * A unit with its kind beside it, from one moment.
   *
   * @returns its facts, and what its kind is ranked by; null where the kind has no rules
   * @throws Failure `not-found`
   */
  async amongItsKind(
    id: string,
  ): Promise<{ row: SpecimenRow; own: UnitFacts; inputs: RankingInputs | null; alike: UnitFacts[] }> {
    const { rows, byId, facts, inputs } = await this.current();
    const [row, own] = [byId.get(id), facts.get(id)];
    if (!row || !own) throw new Failure('not-found', `There is no unit with the number ${id}.`);
    const alike = rows.flatMap((r) => (r.category === row.category ? [facts.get(r.id) ?? own] : []));
    return { row, own, inputs: inputs.get(row.category) ?? null, alike };
  }

  /** The same of every kind that has rules, from one moment. */
  async allRankingInputs(): Promise<RankingInputs[]> {
    return [...(await this.current()).inputs.values()];
  }

  /** @throws Failure `not-found` where the category has no rubric */
  async ranking(category: Category): Promise<RankRow[]> {
    // Names and places from one and the same snapshot: between two questions a unit may have come in.
    const snapshot = await this.current();
    const { names } = rankingOf(snapshot.inputs, category);
    const { rubric, standings, points } = rankingOf(snapshot.ranked, category);
    return standings.map(({ id, place, stratum, composite, sd, rank90, beatsNext }) => {
      const own = rubric.criteria.map((c, i) => [c.id, points.get(id)?.[i] ?? null] as const);
      return {
        place,
        stratum,
        specimen: unitName(names[id]),
        id,
        composite,
        sd,
        rank90: [...rank90],
        beatsNext,
        points: Object.fromEntries(own),
        missing: own.flatMap(([criterion, value]) => (value === null ? [criterion] : [])),
      };
    });
  }

  private current(): Promise<Snapshot> {
    if (this.snapshot) return this.snapshot;
    // One after the other: each goes on from what the one before knew.
    const snapshot = this.turn.then(() => this.build());
    this.turn = snapshot.catch(() => undefined);
    this.snapshot = snapshot;
    // A failure is not kept: the next question asks again.
    snapshot.catch(() => {
      if (this.snapshot === snapshot) this.snapshot = null;
    });
    return snapshot;
  }

  private async build(): Promise<Snapshot> {
    const changed = this.changed;
    this.changed = new UnitChanges();
    try {
      await this.known.refresh(changed);
      return await this.putTogether();
    } catch (error) {
      // What was read, and what was not, is not known: everything is read anew.
      this.changed = null;
      throw error;
    }
  }

  private async putTogether(): Promise<Snapshot> {
    const { protocols, rubrics, controls, rates } = await this.readRules();
    const units = this.families.of(this.known.inOrder());
    const byKind = groupBy(units, (u) => u.base.category);
    const inputs = new Map<Category, RankingInputs>();
    const ranked = new Map<Category, RankedKind>();
    const scatters = new Map<Category, KindScatters>();
    const rows = new Map<string, SpecimenRow>();
    const facts = new Map<string, UnitFacts>();
    for (const category of gearKindIds()) {
      const rubric = rubrics.get(category) ?? null;
      const { facts: factsOfKind, ranking } = this.kind(category);
      const members = byKind.get(category) ?? [];
      const heard = members.length === 0 ? new Map() : await this.scale.factsForRanking(category);
      const ofKind = factsOfKind.of(members, protocols, heard, rubric?.criteria ?? null, rates);
      scatters.set(category, ofKind.scatters);
      const standings = new Map<string, Standing>();
      if (rubric) {
        const tested = testedOf(members, ofKind.facts, rubric, controls);
        inputs.set(category, tested);
        const order = tested.units.length === 0 ? nothingRanked(rubric) : await ranking.rank(tested.units, rubric);
        ranked.set(category, order);
        for (const standing of order.standings) standings.set(standing.id, standing);
      }
      for (const [i, member] of members.entries()) {
        const { id } = member.base;
        facts.set(id, ofKind.facts[i]);
        rows.set(
          id,
          this.rows.of(member, ofKind.facts[i], standings.get(id), rubric?.criteria ?? null, ofKind.scatters),
        );
      }
    }
    return {
      rows: inOrder(
        rows,
        units.map((u) => u.base.id),
      ),
      byId: rows,
      inputs,
      ranked,
      scatters,
      rates,
      facts,
    };
  }

  private readRules(): Promise<Rules> {
    return this.rules.of('all', async () => ({
      protocols: await listProtocols(this.database),
      rubrics: new Map((await currentRubrics(this.database)).map((r) => [r.category, r])),
      controls: await this.rigs.controlUnits(),
      rates: new ExchangeRates(await listRates(this.database)),
    }));
  }

  private kind(category: Category) {
    const known = this.kinds.get(category);
    if (known) return known;
    const ranking = new KindRanking(category, (task) => this.rankingPool.run('rank-units', task));
    const made = { facts: new KindFacts(), ranking };
    this.kinds.set(category, made);
    return made;
  }
}

/** Units of a kind that there is something to rank by; of a unit in several configurations those that count. */
function testedOf(
  members: readonly KnownUnit[],
  facts: readonly UnitFacts[],
  rubric: Rubric,
  controls: ReadonlySet<string>,
): RankingInputs {
  const bases: SpecimenBase[] = [];
  const units: UnitFacts[] = [];
  for (const [i, { base }] of members.entries()) {
    if (!base.counts || !isTested(base, facts[i], rubric.criteria)) continue;
    bases.push(base);
    units.push(facts[i]);
  }
  return { rubric, units, names: namesOf(bases, controls) };
}

const nothingRanked = (rubric: Rubric): RankedKind => ({ rubric, standings: [], points: new Map() });

const noRules = (category: Category): Failure =>
  new Failure('not-found', `There are no rules yet by which to rank the category ${category}.`);

function rankingOf<T>(of: ReadonlyMap<Category, T>, category: Category): T {
  const found = of.get(category);
  if (!found) throw noRules(category);
  return found;
}
