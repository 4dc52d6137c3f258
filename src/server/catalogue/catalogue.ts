import { filter } from 'rxjs';
import { anotherReading, pooledReadings, scatterBetween } from '#core/measure/another-reading';
import { ALGORITHM_VERSION, type QuantityId, isQuantity } from '#core/measure/registry';
import { criterionPoints, type UnitFacts } from '#core/rules/criterion-points';
import type { HeardFact } from '#core/rules/heard-points';
import type { RankedUnit } from '#core/rules/rank';
import { corrected } from '#core/rules/rig-agreement';
import type { PooledScatter } from '#core/stats/pooled-scatter';
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
import type { Database } from '../platform/db/database';
import { clipFromRow } from '../runs/queries/clip';
import { undecidedBesideRun } from '../sessions/queries/session-plan';
import { claimsOfSpecimen } from './queries/claim';
import { curvesOfRun } from '../runs/queries/curve';
import { wordCounts } from '../scale/queries/heard';
import {
  bridgingFacts,
  currentFacts,
  measurementsOfRun,
  repeatedFacts,
  type RepeatRow,
} from '../runs/queries/measurement';
import { currentPoints, pointsHistory, type PointsRow } from './queries/points';
import { listPrices } from './queries/price';
import { currentRubric } from './queries/rubric';
import { findProtocol, listProtocols } from '../sessions/queries/protocol';
import { listSessions, runsOfSpecimen, takesOfSpecimen, type RunRow } from '../runs/queries/run';
import { listSpecimens, type SpecimenBase } from './queries/specimen';
import { tablesOf } from '../runs/queries/table-reading';
import { listUnitEvents } from './queries/unit-event';
import { Failure } from '../platform/failures';
import { comparableFacts, type RankedFact } from '#domain/catalogue/comparable-facts';
import type { EventHub } from '../platform/event-hub';
import type { HeardScale } from '../scale/heard-scale';
import type { Rigs } from '../rigs/rigs';
import { takeFromRow } from '../runs/take-from-row';
import type { WorkerPool } from '../platform/worker-pool';

interface Snapshot {
  readonly rows: readonly SpecimenRow[];
  readonly inputs: ReadonlyMap<Category, RankingInputs>;
  readonly ranked: ReadonlyMap<Category, readonly RankedUnit[]>;
  readonly scatters: ReadonlyMap<Category, ReadonlyMap<string, PooledScatter>>;
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
      ranked.set(category, await this.pool.run<RankedUnit[]>('rank-units', task));
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

/** Standard uncertainty of a figure for another reading, as repeats of its category show; null for a limit. */
function readingAgain(
  figure: Pick<MeasurementJson, 'quantity' | 'value' | 'uncertainty' | 'bound'>,
  scatters: ReadonlyMap<string, PooledScatter> | undefined,
): number | null {
  const { quantity: id, value, uncertainty, bound } = figure;
  if (value === null || bound !== 'exact') return null;
  return anotherReading(uncertainty, scatterBetween(id, value, scatters?.get(id) ?? null));
}

/** What readings of each figure differ by, per category, as repeats show. */
function scattersOf(rows: readonly RepeatRow[]): Snapshot['scatters'] {
  const scatters = new Map<Category, Map<string, PooledScatter>>();
  for (const [category, ofCategory] of groupBy(rows, (r) => r.category)) {
    const byQuantity = new Map<string, PooledScatter>();
    for (const [id, readings] of groupBy(ofCategory, (r) => r.quantity))
      if (isQuantity(id)) byQuantity.set(id, pooledReadings(id, [...groupBy(readings, (r) => r.group).values()]));
    scatters.set(category as Category, byQuantity);
  }
  return scatters;
}

/** Each figure with what another reading of it differs by; what the rules expect is the prior. */
function withScatter(
  unit: UnitFacts,
  criteria: readonly Criterion[],
  scatters: ReadonlyMap<string, PooledScatter> | undefined,
): UnitFacts {
  const figures = Object.entries(unit.figures).map(([id, fact]) => {
    if (!isQuantity(id) || fact.value === null) return [id, fact] as const;
    const rule = criteria.find((c) => c.kind === 'measured' && c.quantity === id);
    const usual = rule?.kind === 'measured' ? rule.repeatability : null;
    return [id, { ...fact, between: scatterBetween(id, fact.value, scatters?.get(id) ?? null, usual) }] as const;
  });
  return { ...unit, figures: Object.fromEntries(figures) };
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
        .filter((f) => isQuantity(f.quantity))
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
  rules: readonly Criterion[] | null,
  scatters: ReadonlyMap<string, PooledScatter> | undefined,
): SpecimenRow {
  const criteria = rules ?? [];
  const missingPoints = criteria
    .filter((c) => isGivenByHand(c) && criterionPoints(c, unit).points === null)
    .map((c) => c.id);
  return {
    id: base.id,
    maker: base.maker,
    model: base.model,
    label: base.label,
    category: base.category,
    stage: stageOf(base, rules === null ? null : missingPoints),
    onDesk: base.on_desk,
    firstTested: base.first_tested,
    lastTested: base.last_tested,
    takes: base.takes,
    failedAnalyses: base.failed,
    waitingAnalyses: base.waiting,
    missingPoints,
    price: countingPrice(unit, criteria),
    noiseA: figureOf(unit, 'noiseReSpeechA', scatters),
    rejection: figureOf(unit, 'rearRejection', scatters),
    place: ranked?.place ?? null,
    stratum: ranked?.stratum ?? null,
    composite: ranked?.composite ?? null,
    hasRules: rules !== null,
    heardAnswers: unit.heard?.answers ?? 0,
  };
}

/** The price that the rules count; without such a rule, the newest. */
function countingPrice(unit: UnitFacts, criteria: readonly Criterion[]): DatedPrice | null {
  const rule = criteria.find((c) => c.kind === 'price');
  const verdict = rule ? pricePoints(unit.prices, rule) : null;
  return verdict && verdict.points !== null ? verdict.price : (unit.prices.at(0) ?? null);
}

/** @param missingPoints - null where there are no rules to score it by */
function stageOf(base: SpecimenBase, missingPoints: readonly string[] | null): Stage {
  if (base.takes === 0 && base.last_tested === null) return 'received';
  if (base.waiting > 0 || base.failed > 0) return 'takes';
  return missingPoints === null || missingPoints.length > 0 ? 'measured' : 'scored';
}

function figureOf(
  unit: UnitFacts,
  quantity: QuantityId,
  scatters: ReadonlyMap<string, PooledScatter> | undefined,
): SpecimenRow['noiseA'] {
  const fact = unit.figures[quantity];
  if (!fact || fact.value === null) return null;
  const { value, uncertainty, bound } = fact;
  const another = readingAgain({ quantity, value, uncertainty, bound }, scatters);
  return { value, uncertainty, anotherReading: another, bound };
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
