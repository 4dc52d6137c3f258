import { filter } from 'rxjs';
import { ALGORITHM_VERSION } from '#core/measure/registry';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { HeardFact } from '#core/rules/heard-points';
import type { RankedUnit } from '#core/rules/rank';
import type { Rubric } from '#core/rules/rubric';
import { corrected } from '#core/rules/rig-agreement';
import { CATEGORIES, type Category } from '#contracts/common';
import { measurementSchema, type MeasurementJson } from '#contracts/measurement';
import type { RankingInputs, RankRow } from '#contracts/ranking';
import type { Session } from '#contracts/session';
import { curvesSchema } from '#contracts/curves';
import { tableCellSchema } from '#contracts/table-reading';
import type { Run, SpecimenRow, SpecimenSheet } from '#contracts/specimen';
import { unitName } from '#contracts/unit-name';
import type { RankUnitsTask } from '#worker/tasks/rank-units';
import type { Database } from '../platform/db/database';
import { clipFromRow } from '../runs/queries/clip';
import { undecidedBesideRun } from '../sessions/queries/session-plan';
import { claimsOfSpecimen } from './queries/claim';
import { curvesOfRun } from '../runs/queries/curve';
import { wordCounts } from '../scale/queries/heard';
import { bridgingFacts, currentFacts, measurementsOfRun, repeatedFacts } from '../runs/queries/measurement';
import { currentPoints, pointsHistory } from './queries/points';
import { listPrices } from './queries/price';
import { currentRubric, currentRubrics } from './queries/rubric';
import { findProtocol, listProtocols } from '../sessions/queries/protocol';
import { listSessions, runsOfSpecimen, takesOfSpecimen, type RunRow } from '../runs/queries/run';
import { listSpecimens } from './queries/specimen';
import { tablesOf } from '../runs/queries/table-reading';
import { listUnitEvents } from './queries/unit-event';
import { Failure } from '../platform/failures';
import { comparableFacts } from '#domain/catalogue/comparable-facts';
import type { EventHub } from '../platform/event-hub';
import type { HeardScale } from '../scale/heard-scale';
import type { Rigs } from '../rigs/rigs';
import { takeFromRow } from '../runs/take-from-row';
import type { WorkerPool } from '../platform/worker-pool';
import { namesOf, specimenRow } from '#domain/catalogue/unit-row';
import {
  isMeasured,
  plainPrice,
  readingAgain,
  scattersOf,
  unitFacts,
  withScatter,
  type Scatters,
} from '#domain/catalogue/unit-facts';
import { groupBy } from '#domain/group-by';

interface Snapshot {
  readonly rows: readonly SpecimenRow[];
  readonly inputs: ReadonlyMap<Category, RankingInputs>;
  readonly ranked: ReadonlyMap<Category, readonly RankedUnit[]>;
  readonly scatters: Scatters;
}

/**
 * What the pages read: the catalogue with figures, prices, points and places put together. It is computed once and
 * kept until a fact changes, so that pages stay quick however often they ask.
 */
export class Catalogue {
  private snapshot: Promise<Snapshot> | null = null;

  constructor(
    private readonly database: Database,
    private readonly pool: WorkerPool,
    private readonly rigs: Rigs,
    private readonly scale: HeardScale,
    hub: EventHub,
  ) {
    hub.events.pipe(filter((event) => event.type === 'specimen')).subscribe(() => (this.snapshot = null));
  }

  async specimens(): Promise<readonly SpecimenRow[]> {
    return (await this.current()).rows;
  }

  /** @throws Failure `not-found` */
  async specimen(id: string): Promise<SpecimenRow> {
    const row = (await this.specimens()).find((r) => r.id === id);
    if (!row) throw new Failure('not-found', `There is no unit with the number ${id}.`);
    return row;
  }

  /** @throws Failure `not-found` */
  async sheet(id: string): Promise<SpecimenSheet> {
    const row = await this.specimen(id);
    const takes = (await takesOfSpecimen(this.database, id, ALGORITHM_VERSION)).map((t) => ({
      runId: t.run_id,
      take: takeFromRow(t),
    }));
    const scatters = (await this.current()).scatters.get(row.category);
    const runs: Run[] = [];
    for (const run of await runsOfSpecimen(this.database, id)) {
      const measurements = (await measurementsOfRun(this.database, run.id, ALGORITHM_VERSION))
        .map((m) => measurementSchema.parse(m))
        .map((m) => ({ ...m, anotherReading: readingAgain(m, scatters) }));
      runs.push({
        id: run.id,
        date: run.date,
        protocol: run.protocol,
        protocolVersion: run.protocol_version,
        source: run.source,
        purpose: run.purpose,
        rig: run.rig,
        tables: await this.tables(run),
        undecided: await this.undecided(run),
        corrections: await this.corrections(run, measurements),
        takes: takes.filter((t) => t.runId === run.id).map((t) => t.take),
        measurements,
        curves: curvesSchema.parse(await curvesOfRun(this.database, run.id, ALGORITHM_VERSION)),
      });
    }
    return {
      row,
      runs,
      prices: (await listPrices(this.database, id)).map((p) => ({ id: p.id, ...plainPrice(p) })),
      claims: await claimsOfSpecimen(this.database, id),
      words: (await wordCounts(this.database, { specimenId: id })).map((w) => ({
        word: w.word,
        count: w.count,
        isFree: w.is_free,
      })),
      events: (await listUnitEvents(this.database, id)).map(({ kind, day, note }) => ({ kind, day, note })),
      points: (await pointsHistory(this.database, id)).map(({ criterion, value, reason, date }) => ({
        criterion,
        value,
        reason,
        date,
      })),
    };
  }

  private async undecided(run: RunRow): Promise<Run['undecided']> {
    const rows = await undecidedBesideRun(this.database, run.id);
    if (rows.length === 0) return [];
    const protocol = await findProtocol(this.database, run.protocol, run.protocol_version);
    return rows.map((row) => ({
      id: row.slot_take_id,
      step: row.step,
      title: protocol?.steps.find((s) => s.id === row.step)?.title ?? row.step,
      attempt: row.attempt,
      clip: clipFromRow(row),
    }));
  }

  private async tables(run: RunRow): Promise<Run['tables']> {
    const rows = await tablesOf(this.database, 'run', [run.id]);
    if (rows.length === 0) return [];
    const protocol = await findProtocol(this.database, run.protocol, run.protocol_version);
    return rows.map(({ step, cells }) => {
      const found = protocol?.steps.find((s) => s.id === step);
      return {
        step,
        cells: tableCellSchema.array().parse(cells),
        title: found?.title ?? step,
        unit: found?.table?.unit ?? '',
        cell: found?.table?.cell ?? '',
      };
    });
  }

  /** What the rig's offset makes of a run's figures, where its policy is to correct. */
  private async corrections(run: RunRow, figures: readonly MeasurementJson[]): Promise<Run['corrections']> {
    const offsets = await this.rigs.corrections(run.date, run.rig_name);
    return figures.flatMap(({ quantity, value, uncertainty }) => {
      const offset = offsets.get(quantity);
      const figure = offset && value !== null ? corrected({ value, uncertainty }, offset) : null;
      return figure && offset?.offset !== null && offset?.offset !== undefined
        ? [{ quantity, value: figure.value, uncertainty: figure.uncertainty ?? 0, offset: offset.offset }]
        : [];
    });
  }

  async sessions(): Promise<Session[]> {
    return (await listSessions(this.database)).map((s) => ({ ...s, category: s.category as Category }));
  }

  /** The rules by which each kind is scored and ranked, of the kinds that have any. */
  async rubrics(): Promise<Rubric[]> {
    return currentRubrics(this.database);
  }

  /** @throws Failure `not-found` where the category has no rubric */
  async rankingInputs(category: Category): Promise<RankingInputs> {
    return inputsOf(await this.current(), category);
  }

  /** @throws Failure `not-found` where the category has no rubric */
  async ranking(category: Category): Promise<RankRow[]> {
    // Names and places from one and the same snapshot: between two questions a unit may have come in.
    const snapshot = await this.current();
    const { names } = inputsOf(snapshot, category);
    return (snapshot.ranked.get(category) ?? []).map((unit) => ({
      place: unit.place,
      stratum: unit.stratum,
      specimen: unitName(names[unit.id]),
      id: unit.id,
      composite: unit.composite,
      sd: unit.sd,
      rank90: [...unit.rank90],
      beatsNext: unit.beatsNext,
      points: Object.fromEntries(Object.entries(unit.points).map(([criterion, p]) => [criterion, p.points])),
      missing: [...unit.missing],
    }));
  }

  private async current(): Promise<Snapshot> {
    // A failure is not kept: the next question asks again.
    this.snapshot ??= this.build().catch((error: unknown) => {
      this.snapshot = null;
      throw error;
    });
    return this.snapshot;
  }

  private async build(): Promise<Snapshot> {
    const db = this.database;
    const bases = await listSpecimens(db, ALGORITHM_VERSION);
    const prices = groupBy(await listPrices(db), (p) => p.specimen_id);
    const allFacts = await currentFacts(db, ALGORITHM_VERSION);
    const bridging = await bridgingFacts(db, ALGORITHM_VERSION);
    const scatters = scattersOf(await repeatedFacts(db, ALGORITHM_VERSION));
    const protocols = await listProtocols(db);
    const controls = await this.rigs.controlUnits();
    const categories = new Map(bases.map((b) => [b.id, b.category]));
    const facts = groupBy(
      CATEGORIES.flatMap((category) =>
        comparableFacts(
          allFacts.filter((f) => categories.get(f.specimen_id) === category),
          bridging,
          protocols,
        ),
      ),
      (f) => f.specimen_id,
    );
    const points = groupBy(await currentPoints(db), (p) => p.specimen_id);
    const heard = new Map<string, HeardFact>();
    for (const category of new Set(categories.values()))
      for (const [id, fact] of await this.scale.factsForRanking(category)) heard.set(id, fact);
    const units = new Map(
      bases.map((b) => [
        b.id,
        {
          ...unitFacts(b.id, facts.get(b.id) ?? [], points.get(b.id) ?? [], prices.get(b.id) ?? []),
          heard: heard.get(b.id) ?? null,
        },
      ]),
    );
    const inputs = new Map<Category, RankingInputs>();
    const ranked = new Map<Category, readonly RankedUnit[]>();
    for (const category of CATEGORIES) {
      const rubric = (await currentRubric(db, category))?.rubric;
      if (!rubric) continue;
      const members = bases.filter((b) => b.category === category && isMeasured(b, units.get(b.id)));
      const categoryUnits = members.map((b) =>
        withScatter(units.get(b.id) as UnitFacts, rubric.criteria, scatters.get(category)),
      );
      inputs.set(category, { rubric, units: categoryUnits, names: namesOf(members, controls) });
      const task: RankUnitsTask = { units: categoryUnits, rubric, options: {} };
      ranked.set(category, await this.pool.run('rank-units', task));
    }
    const places = new Map([...ranked.values()].flat().map((unit) => [unit.id, unit]));
    const rows = bases.map((base) =>
      specimenRow(
        base,
        units.get(base.id) as UnitFacts,
        places.get(base.id),
        inputs.get(base.category)?.rubric.criteria ?? null,
        scatters.get(base.category),
      ),
    );
    return { rows, inputs, ranked, scatters };
  }
}

function inputsOf(snapshot: Snapshot, category: Category): RankingInputs {
  const inputs = snapshot.inputs.get(category);
  if (!inputs) throw new Failure('not-found', `There are no rules yet by which to rank the category ${category}.`);
  return inputs;
}
