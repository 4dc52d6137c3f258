import { ALGORITHM_VERSION } from '#core/measure/registry';
import type { ExchangeRates } from '#core/rules/exchange-rates';
import { withRates } from '#core/rules/price-rule';
import { corrected, type Agreement } from '#core/rules/rig-agreement';
import { curvesSchema } from '#contracts/curves';
import { measurementSchema, type MeasurementJson } from '#contracts/measurement';
import { roleOf, type Protocol } from '#contracts/protocol';
import type { Relation } from '#contracts/relation';
import { currentSheet } from '#contracts/sheet';
import type { Run, SpecimenRow, SpecimenSheet } from '#contracts/specimen';
import { tableCellSchema } from '#contracts/table-reading';
import { plainPrice, readingAgain, type KindScatters } from '#domain/catalogue/unit-facts';
import { groupBy } from '#domain/group-by';
import type { Database } from '../platform/db/database';
import type { Rigs } from '../rigs/rigs';
import { photographsOf } from '../photos/queries/photograph';
import { clipFromRow } from '../runs/queries/clip';
import { curvesOfSpecimen } from '../runs/queries/curve';
import { measurementsOfSpecimen } from '../runs/queries/measurement';
import { runsOfSpecimen, takesOfSpecimen, type RunRow } from '../runs/queries/run';
import { tablesOf } from '../runs/queries/table-reading';
import { takeFromRow } from '../runs/take-from-row';
import { wordCounts } from '../scale/queries/heard';
import { findProtocol } from '../sessions/queries/protocol';
import { undecidedBesideRuns, type UndecidedRow } from '../sessions/queries/session-plan';
import { claimsOf, sheetHistory } from './queries/sheet';
import { pointsHistory } from './queries/points';
import { listPrices } from './queries/price';
import { relationsOfUnit, typedPrice, type RelationRow } from './queries/relation';
import { listUnitEvents } from './queries/unit-event';

/** Everything on a unit's page, in as many questions to the database whether it has one run or fifty. */
export class UnitSheet {
  constructor(
    private readonly database: Database,
    private readonly rigs: Rigs,
  ) {}

  /**
   * @param row - the unit as lists show it
   * @param mainLabel - label of the unit that it is a configuration of; null where it is none
   * @param scatters - what readings of its kind differ by
   * @param rates - of exchange
   */
  async of(
    row: SpecimenRow,
    mainLabel: string | null,
    scatters: KindScatters,
    rates: ExchangeRates,
  ): Promise<SpecimenSheet> {
    const { id } = row;
    const db = this.database;
    const sheet = await sheetHistory(db, id);
    const prices = await listPrices(db, [id]);
    return {
      row,
      runs: await this.runs(id, scatters),
      prices: prices.map((p) => ({ id: p.id, ...plainPrice(withRates([p], rates)[0]), ...(p.note === '' ? {} : { note: p.note }) })), // prettier-ignore
      photographs: await photographsOf(db, id),
      variantOf: variantOf(row, mainLabel),
      relations: (await relationsOfUnit(db, id)).map((r) => relationOf(r, id)),
      claims: claimsOf(currentSheet(sheet)),
      sheet,
      words: (await wordCounts(db, { specimenId: id })).map((w) => ({
        word: w.word,
        count: w.count,
        isFree: w.is_free,
      })),
      events: (await listUnitEvents(db, id)).map(({ kind, day, note, sum }) => ({ kind, day, note, sum })),
      points: (await pointsHistory(db, id)).map(({ criterion, value, reason, date }) => ({
        criterion,
        value,
        reason,
        date,
      })),
    };
  }

  private async runs(id: string, scatters: KindScatters): Promise<Run[]> {
    const db = this.database;
    const runs = await runsOfSpecimen(db, id);
    const takes = groupBy(await takesOfSpecimen(db, id, ALGORITHM_VERSION), (t) => t.run_id);
    const figures = groupBy(await measurementsOfSpecimen(db, id, ALGORITHM_VERSION), (m) => m.run_id);
    const curves = groupBy(await curvesOfSpecimen(db, id, ALGORITHM_VERSION), (c) => c.run_id);
    const tables = groupBy(await tablesOf(db, 'run', runs.map((r) => r.id)), (t) => t.owner); // prettier-ignore
    const undecided = groupBy(await undecidedBesideRuns(db, id), (u) => u.run_id);
    const protocols = await this.protocolsOf(runs);
    const corrections = await this.correctionsOf(runs);
    return runs.map((run) => {
      const protocol = protocols.get(versionOf(run));
      const measurements = (figures.get(run.id) ?? []).map((m) => measurementSchema.parse(m.document));
      return {
        id: run.id,
        date: run.date,
        protocol: run.protocol,
        protocolVersion: run.protocol_version,
        source: run.source,
        purpose: run.purpose,
        rig: run.rig,
        tables: tablesOfRun(tables.get(run.id) ?? [], protocol),
        undecided: (undecided.get(run.id) ?? []).map((u) => undecidedOf(u, protocol)),
        corrections: correctedFigures(measurements, corrections.get(rigDayOf(run)) ?? NO_CORRECTIONS),
        takes: (takes.get(run.id) ?? []).map(takeFromRow),
        measurements: measurements.map((m) => ({ ...m, anotherReading: readingAgain(m, scatters) })),
        curves: curvesSchema.parse(Object.fromEntries((curves.get(run.id) ?? []).map((c) => [c.kind, c.document]))),
      };
    });
  }

  /** Versions that tables or undecided takes are named by; each is read once. */
  private async protocolsOf(runs: readonly RunRow[]): Promise<ReadonlyMap<string, Protocol>> {
    const protocols = new Map<string, Protocol>();
    for (const [version, [run]] of groupBy(runs, versionOf)) {
      const protocol = await findProtocol(this.database, run.protocol, run.protocol_version);
      if (protocol) protocols.set(version, protocol);
    }
    return protocols;
  }

  /** What the rigs' offsets are on the days of some runs; most rigs report as measured, and are not asked. */
  private async correctionsOf(runs: readonly RunRow[]): Promise<ReadonlyMap<string, Corrections>> {
    const correcting = await this.rigs.correcting();
    const corrections = new Map<string, Corrections>();
    const asked = runs.filter((r) => correcting.has(r.rig_name ?? ''));
    for (const [rigDay, [run]] of groupBy(asked, rigDayOf))
      corrections.set(rigDay, await this.rigs.corrections(run.date, run.rig_name));
    return corrections;
  }
}

function variantOf({ family }: SpecimenRow, label: string | null): SpecimenSheet['variantOf'] {
  if (!family || family.varies === null || label === null) return null;
  return { label, configuration: family.configuration, varies: family.varies };
}

function relationOf(row: RelationRow, unit: string): Relation {
  const { id, kind, name, uses, since } = row;
  const isOwn = row.specimen_id === unit;
  const [otherId, otherName] = isOwn ? [row.other_id, row.other_name] : [row.specimen_id, row.specimen_name];
  return {
    id,
    kind,
    isOwn,
    other: otherId === null ? null : { id: otherId, name: otherName ?? '' },
    name,
    uses: [...uses],
    price: typedPrice(row),
    since,
  };
}

type Corrections = ReadonlyMap<string, Agreement>;
const NO_CORRECTIONS: Corrections = new Map();

const versionOf = (run: RunRow): string => `${run.protocol} ${run.protocol_version}`;
const rigDayOf = (run: RunRow): string => `${run.date} ${run.rig_name ?? ''}`;

/** Tables in the order of their steps; those that are not filled in are empty. */
function tablesOfRun(
  filled: readonly { step: string; cells: unknown }[],
  protocol: Protocol | undefined,
): Run['tables'] {
  const steps = (protocol?.steps ?? []).filter((s) => s.table).map((s) => s.id);
  const others = filled.filter((t) => !steps.includes(t.step));
  const asked = steps.map((step) => filled.find((t) => t.step === step) ?? { step, cells: [] });
  return [...asked, ...others].map((t) => tableOf(t, protocol));
}

function tableOf(
  { step, cells }: { step: string; cells: unknown },
  protocol: Protocol | undefined,
): Run['tables'][number] {
  const found = protocol?.steps.find((s) => s.id === step);
  return {
    step,
    cells: tableCellSchema.array().parse(cells),
    title: found?.title ?? step,
    unit: found?.table?.unit ?? '',
    cell: found?.table?.cell ?? '',
    role: found ? roleOf(found) : step,
    asked: found?.table ?? null,
  };
}

function undecidedOf(row: UndecidedRow, protocol: Protocol | undefined): Run['undecided'][number] {
  const { slot_take_id: id, step, attempt } = row;
  return {
    id,
    step,
    title: protocol?.steps.find((s) => s.id === step)?.title ?? step,
    attempt,
    clip: clipFromRow(row),
  };
}

/** What the rig's offset makes of a run's figures. */
function correctedFigures(figures: readonly MeasurementJson[], offsets: Corrections): Run['corrections'] {
  return figures.flatMap(({ quantity, value, uncertainty }) => {
    const offset = offsets.get(quantity);
    const figure = offset && value !== null ? corrected({ value, uncertainty }, offset) : null;
    return figure && offset?.offset !== null && offset?.offset !== undefined
      ? [{ quantity, value: figure.value, uncertainty: figure.uncertainty ?? 0, offset: offset.offset }]
      : [];
  });
}
