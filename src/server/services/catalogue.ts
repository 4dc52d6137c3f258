import { filter } from 'rxjs';
import { ALGORITHM_VERSION, QUANTITY_IDS } from '#core/measure/registry';
import { criterionPoints, type UnitFacts } from '#core/rules/criterion-points';
import type { HeardFact } from '#core/rules/heard-points';
import type { RankedUnit } from '#core/rules/rank';
import { corrected } from '#core/rules/rig-agreement';
import { pricePoints, type DatedPrice } from '#core/rules/price-rule';
import { isGivenByHand, type Criterion } from '#core/rules/rubric';
import { CATEGORIES, type Category } from '#contracts/common';
import { measurementSchema, type MeasurementJson } from '#contracts/measurement';
import type { RankingInputs, RankRow } from '#contracts/ranking';
import type { Session } from '#contracts/session';
import { curvesSchema } from '#contracts/curves';
import { tableCellSchema } from '#contracts/table-reading';
import type { Run, SpecimenRow, SpecimenSheet, Stage } from '#contracts/specimen';
import { unitName } from '#contracts/unit-name';
import type { RankUnitsTask } from '#worker/rank-units';
import type { Database } from '../db/database';
import { claimsOfSpecimen } from '../db/queries/claim';
import { curvesOfRun } from '../db/queries/curve';
import { wordCounts } from '../db/queries/heard';
import { bridgingFacts, currentFacts, measurementsOfRun } from '../db/queries/measurement';
import { currentPoints, pointsHistory, type PointsRow } from '../db/queries/points';
import { listPrices } from '../db/queries/price';
import { currentRubric } from '../db/queries/rubric';
import { findProtocol, listProtocols } from '../db/queries/protocol';
import { listSessions, runsOfSpecimen, takesOfSpecimen, type RunRow } from '../db/queries/run';
import { listSpecimens, type SpecimenBase } from '../db/queries/specimen';
import { tablesOf } from '../db/queries/table-reading';
import { listUnitEvents } from '../db/queries/unit-event';
import { Failure } from '../failures';
import { comparableFacts, type RankedFact } from './comparable-facts';
import type { EventHub } from './event-hub';
import type { HeardScale } from './heard-scale';
import type { Rigs } from './rigs';
import { takeFromRow } from './take-from-row';
import type { WorkerPool } from './worker-pool';

interface Snapshot {
  readonly rows: readonly SpecimenRow[];
  readonly inputs: ReadonlyMap<Category, RankingInputs>;
  readonly ranked: ReadonlyMap<Category, readonly RankedUnit[]>;
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
    const runs: Run[] = [];
    for (const run of await runsOfSpecimen(this.database, id)) {
      const measurements = await measurementsOfRun(this.database, run.id, ALGORITHM_VERSION);
      runs.push({
        id: run.id,
        date: run.date,
        protocol: run.protocol,
        protocolVersion: run.protocol_version,
        source: run.source,
        purpose: run.purpose,
        rig: run.rig,
        tables: await this.tables(run),
        corrections: await this.corrections(
          run,
          measurements.map((m) => measurementSchema.parse(m)),
        ),
        takes: takes.filter((t) => t.runId === run.id).map((t) => t.take),
        measurements: measurements.map((m) => measurementSchema.parse(m)),
        curves: curvesSchema.parse(await curvesOfRun(this.database, run.id, ALGORITHM_VERSION)),
      });
    }
    return {
      row,
      runs,
      prices: (await listPrices(this.database, id)).map(plainPrice),
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
      const categoryUnits = members.map((b) => units.get(b.id) as UnitFacts);
      inputs.set(category, { rubric, units: categoryUnits, names: namesOf(members, controls) });
      const task: RankUnitsTask = { units: categoryUnits, rubric, options: {} };
      ranked.set(category, await this.pool.run<RankedUnit[]>('rank-units', task));
    }
    const places = new Map([...ranked.values()].flat().map((unit) => [unit.id, unit]));
    const rows = bases.map((base) =>
      specimenRow(
        base,
        units.get(base.id) as UnitFacts,
        places.get(base.id),
        inputs.get(base.category)?.rubric.criteria ?? [],
      ),
    );
    return { rows, inputs, ranked };
  }
}

function inputsOf(snapshot: Snapshot, category: Category): RankingInputs {
  const inputs = snapshot.inputs.get(category);
  if (!inputs) throw new Failure('not-found', `There are no rules yet by which to rank the category ${category}.`);
  return inputs;
}

/** A unit enters the ranking with its first measured run; before that there is nothing to rank it by. */
const isMeasured = (base: SpecimenBase, unit: UnitFacts | undefined): boolean =>
  base.takes > 0 && unit !== undefined && Object.keys(unit.figures).length > 0;

function unitFacts(
  id: string,
  facts: readonly RankedFact[],
  points: readonly PointsRow[],
  prices: readonly DatedPrice[],
): UnitFacts {
  return {
    id,
    figures: Object.fromEntries(
      facts
        .filter((f) => (QUANTITY_IDS as readonly string[]).includes(f.quantity))
        .map(({ quantity, value, uncertainty, bound, not_measured, remark }) => [
          quantity,
          { value, uncertainty, bound, notMeasured: not_measured, remark },
        ]),
    ),
    byHand: Object.fromEntries(points.map(({ criterion, value, reason }) => [criterion, { value, reason }])),
    prices: prices.map(plainPrice),
  };
}

const plainPrice = ({ amount, currency, kind, date }: DatedPrice): DatedPrice => ({ amount, currency, kind, date });

function namesOf(bases: readonly SpecimenBase[], controls: ReadonlySet<string>): RankingInputs['names'] {
  return Object.fromEntries(
    bases.map((b) => [
      b.id,
      {
        maker: b.maker,
        model: b.model,
        label: b.label,
        onDesk: b.on_desk,
        isControl: controls.has(b.id),
        lastTested: b.last_tested,
      },
    ]),
  );
}

function specimenRow(
  base: SpecimenBase,
  unit: UnitFacts,
  ranked: RankedUnit | undefined,
  criteria: readonly Criterion[],
): SpecimenRow {
  const missingPoints = criteria
    .filter((c) => isGivenByHand(c) && criterionPoints(c, unit).points === null)
    .map((c) => c.id);
  return {
    id: base.id,
    maker: base.maker,
    model: base.model,
    label: base.label,
    category: base.category,
    stage: stageOf(base, missingPoints),
    onDesk: base.on_desk,
    firstTested: base.first_tested,
    lastTested: base.last_tested,
    takes: base.takes,
    failedAnalyses: base.failed,
    waitingAnalyses: base.waiting,
    missingPoints,
    price: countingPrice(unit, criteria),
    noiseA: figureOf(unit, 'noiseReSpeechA'),
    rejection: figureOf(unit, 'rearRejection'),
    place: ranked?.place ?? null,
    stratum: ranked?.stratum ?? null,
    composite: ranked?.composite ?? null,
  };
}

/** The price that the rules count; without such a rule, the newest. */
function countingPrice(unit: UnitFacts, criteria: readonly Criterion[]): DatedPrice | null {
  const rule = criteria.find((c) => c.kind === 'price');
  const verdict = rule ? pricePoints(unit.prices, rule) : null;
  return verdict && verdict.points !== null ? verdict.price : (unit.prices.at(0) ?? null);
}

function stageOf(base: SpecimenBase, missingPoints: readonly string[]): Stage {
  if (base.takes === 0) return 'received';
  if (base.waiting > 0 || base.failed > 0) return 'takes';
  return missingPoints.length > 0 ? 'measured' : 'scored';
}

function figureOf(unit: UnitFacts, quantity: string): SpecimenRow['noiseA'] {
  const fact = unit.figures[quantity];
  if (!fact || fact.value === null) return null;
  return { value: fact.value, uncertainty: fact.uncertainty, bound: fact.bound };
}

function groupBy<T>(items: readonly T[], key: (item: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const item of items) {
    const group = groups.get(key(item));
    if (group) group.push(item);
    else groups.set(key(item), [item]);
  }
  return groups;
}
