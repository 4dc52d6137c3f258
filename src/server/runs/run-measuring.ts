import { AudioFileError } from '#core/audio/audio-file-error';
import { compareClaim } from '#core/gear/claim-comparison';
import { gearKind, stepRole } from '#core/gear/kinds';
import { pairGroups, pairMeasurements, type PairGroup } from '#core/gear/pair/pair-groups';
import { pairsOfRun, type FoundPair } from '#core/gear/pair/pairs-of-run';
import { HOLDS_A_PERFORMANCE, HOLDS_OUTSIDE_NOISE, type TakePair } from '#core/gear/pair/take-pair';
import { figuresByCondition } from '#core/gear/run/condition-grid';
import { conditionsOf, processingOf, takesIn } from '#core/rules/take-conditions';
import type { AnalysedTake, RunChain } from '#core/gear/run/analysed-take';
import type { RunTable } from '#core/gear/run/run-table';
import type { TakeTone } from '#core/measure/take-tone';
import { tableCellSchema } from '#contracts/table-reading';
import type { MeasureToneTask } from '#worker/tasks/measure-tone';
import { tablesOf } from './queries/table-reading';
import type { Difference } from '#core/measure/difference';
import { codecReason, withCodecReason } from '#core/measure/codec-decides';
import { ALGORITHM_VERSION, RUN_FIGURES_VERSION } from '#core/measure/registry';
import { playKindOf } from '#core/rules/compare-versions';
import { stepsOfTheUnitAlone } from '#core/rules/paired-steps';
import { clipOriginSchema } from '#contracts/clip';
import { dropOutSchema } from '#contracts/clip-summary';
import type { HeardPair } from '#contracts/curves';
import { measurementSchema } from '#contracts/measurement';
import { answersSweep, protocolSchema, roleOf, type Protocol, type ProtocolSweep } from '#contracts/protocol';
import { takeFurtherSettingsSchema } from '#contracts/run-document';
import { analysisDetailSchema } from '#contracts/worker-messages';
import type { MeasurePairTask } from '#worker/tasks/measure-pair';
import type { MeasureSweepTask, SweepResult } from '#worker/tasks/measure-sweep';
import { claimsOfSpecimen } from '../catalogue/queries/sheet';
import type { ClipStore } from '../platform/archive/clip-store';
import type { Database } from '../platform/db/database';
import { doublesFrom } from '../platform/db/numbers-from-bytes';
import { WorkLane } from '../platform/work-lane';
import type { WorkerPool } from '../platform/worker-pool';
import {
  analysedTakes,
  chainOfRun,
  lacksAnalyses,
  noteMeasured,
  planOfRun,
  type AnalysedTakeRow,
} from './queries/analysis';
import { dropCurve, storeCurve } from './queries/curve';
import { storeMeasurements } from './queries/measurement';

/** A take of the run with the step and the settings that it was made with. */
interface RunTake {
  readonly row: AnalysedTakeRow;
  readonly step: string;
  readonly settings: Readonly<Record<string, string | number | boolean>>;
  readonly analysed: AnalysedTake;
  /** Why its sweep or its tone was not read; null where it was, or it holds none. */
  readonly unread: string | null;
}

/** A pair with the takes that it was read from. */
interface RunPair extends TakePair {
  readonly takes: HeardPair;
}

const takesOf = (group: PairGroup, pairs: readonly RunPair[]): HeardPair[] =>
  pairs.filter((p) => p.varies === group.varies && p.setting === group.setting).map((p) => p.takes);

/** The figures and curves that take several clips of one run: of the unit alone, and of its pairs. */
export class RunMeasuring {
  /** Takes that are read at once, of all runs: one per thread, so that somebody's question waits behind few. */
  private readonly lane: WorkLane;

  constructor(
    private readonly database: Database,
    private readonly store: ClipStore,
    private readonly pool: WorkerPool,
    private readonly report: (error: unknown) => void,
  ) {
    this.lane = new WorkLane(pool.threads, Infinity);
  }

  /**
   * Measures a run as soon as all of its clips are analysed.
   *
   * @returns whether they are
   */
  async measure(runId: string): Promise<boolean> {
    // Asked after every clip of the run: what all of them hold is fetched once.
    if (await lacksAnalyses(this.database, runId, ALGORITHM_VERSION)) return false;
    const rows = await analysedTakes(this.database, runId, ALGORITHM_VERSION);
    // One may have been asked for anew meanwhile.
    if (rows.some((t) => t.status !== 'done')) return false;
    const plan = await planOfRun(this.database, runId);
    if (!plan) return false;
    const protocol = protocolSchema.parse(plan.protocol_document);
    // A protocol may serve several kinds: the unit's own says what a run of it gives.
    const kind = gearKind(plan.category);
    const own = stepsOfTheUnitAlone(protocol.steps, kind.isHeardThroughAnother);
    const takes = await Promise.all(rows.map((row) => this.lane.run(() => this.take(row, protocol))));
    // What was worked on after the recording says nothing of the unit, and stands apart.
    const raw = takes.filter((t) => processingOf(t.settings) === null);
    const alone = raw.filter((t) => own.has(t.step));
    // What is recorded of pairs alone says nothing of the unit by itself, nor that it should.
    const planned = new Set(alone.length === 0 ? [] : protocol.steps.filter((s) => own.has(s.id)).map(roleOf));
    const tables = await this.tables(runId, protocol);
    const [first] = conditionsOf(raw);
    const pairs = await this.pairs(protocol, first ? takesIn(raw, first) : raw);
    const groups = pairGroups(pairs).map((group) => ({ ...group, takes: takesOf(group, pairs) }));
    const chain = await this.chain(runId);
    const { figures, grid } = figuresByCondition(alone, (some) => kind.runFigures(some, chain, planned, tables));
    const { curves } = figures;
    const measurements = withCodecReason(figures.measurements, takes.find((t) => t.unread !== null)?.unread ?? null);
    await this.database.transaction(async (tx) => {
      await storeMeasurements(tx, runId, ALGORITHM_VERSION, [...pairMeasurements(groups), ...measurements]);
      for (const [name, curve] of Object.entries({
        ...curves,
        conditions: grid,
        pairs: groups.length === 0 ? null : groups,
      })) {
        if (curve) await storeCurve(tx, runId, name, ALGORITHM_VERSION, curve);
        else await dropCurve(tx, runId, name, ALGORITHM_VERSION);
      }
      await noteMeasured(tx, runId, ALGORITHM_VERSION, RUN_FIGURES_VERSION);
    });
    return true;
  }

  private async tables(runId: string, protocol: Protocol): Promise<ReadonlyMap<string, RunTable>> {
    const tables = await tablesOf(this.database, 'run', [runId]);
    return new Map(
      tables.map(({ step, cells }) => [
        roleOf(protocol.steps.find((s) => s.id === step) ?? { id: step }),
        { step, cells: tableCellSchema.array().parse(cells) },
      ]),
    );
  }

  private async pairs(protocol: Protocol, takes: readonly RunTake[]): Promise<RunPair[]> {
    const pairs: RunPair[] = [];
    for (const found of pairsOfRun(protocol.steps, takes)) {
      const { fitted, without, varies, setting } = found;
      const plays = playKindOf(protocol.steps.find((s) => s.id === fitted.step) ?? { id: fitted.step, play: null });
      const difference = HOLDS_A_PERFORMANCE.includes(plays) ? await this.difference(found) : null;
      pairs.push({
        varies,
        setting,
        plays,
        fitted: fitted.analysed,
        without: without.analysed,
        difference,
        takes: {
          title: fitted.row.step_title,
          fitted: fitted.row.take_id,
          without: without.row.take_id,
          match: HOLDS_OUTSIDE_NOISE.includes(plays) ? 'gain' : 'loudness',
        },
      });
    }
    return pairs;
  }

  /** Null where the two clips have nothing in common; their other figures stand all the same. */
  private async difference({ fitted, without }: FoundPair<RunTake>): Promise<Difference | null> {
    const [x, y] = [await this.store.verified(fitted.row.sha256), await this.store.verified(without.row.sha256)];
    if (!x || !y) return null;
    try {
      return await this.pool.run('measure-pair', { fitted: x, without: y } satisfies MeasurePairTask);
    } catch (error) {
      if (!(error instanceof AudioFileError)) this.report(error);
      return null;
    }
  }

  private async chain(runId: string): Promise<RunChain> {
    const run = await chainOfRun(this.database, runId);
    const claims = run ? await claimsOfSpecimen(this.database, run.specimen_id) : [];
    const sensitivity = claims.find((c) => c.quantity === 'sensitivity');
    const comparison = sensitivity ? compareClaim(sensitivity, null) : null;
    return {
      fullScaleDbu: run?.full_scale_dbu ?? null,
      fullScaleUncertaintyDb: run?.full_scale_u ?? null,
      onePascal: run && run.one_pascal !== null ? { dbfs: run.one_pascal, uncertaintyDb: run.one_pascal_u ?? 0 } : null,
      claimedSensitivityMvPa: comparison?.comparable ? comparison.value : null,
    };
  }

  private async take(row: AnalysedTakeRow, protocol: Protocol): Promise<RunTake> {
    const step = protocol.steps.find((s) => s.id === row.step);
    const settings = takeFurtherSettingsSchema.parse(row.settings);
    const { dial } = settings;
    const role = roleOf(step ?? { id: row.step });
    const { loudness, noise, speechS, thirdOctave, loudest, aDbfs } = analysisDetailSchema.parse(row.detail);
    const bytes = row.step_powers ?? new Uint8Array();
    const packed = codecReason(clipOriginSchema.nullable().parse(row.origin));
    const holdsSweep = step && (answersSweep(step) || playKindOf(step) === 'sweep');
    const holdsTones = stepRole(role)?.holdsTones ?? false;
    const analysed: AnalysedTake = {
      role,
      gainDb: row.gain_db,
      dial: typeof dial === 'string' ? dial : null,
      distanceM: row.distance_m,
      angleDeg: row.angle_deg,
      levelDbu: row.level_dbu ?? step?.levelDbu ?? null,
      levelDbSpl: row.level_db_spl ?? step?.levelDbSpl ?? null,
      windSpeedMs: row.wind_speed_ms,
      loudness: loudness as AnalysedTake['loudness'],
      noise: noise as AnalysedTake['noise'],
      speechS,
      thirdOctave,
      loudest,
      aDbfs,
      stepPowers: doublesFrom(bytes),
      drops: dropOutSchema.array().parse(row.drops ?? []),
      clip: measurementSchema.array().parse(row.measurements),
      response:
        holdsSweep && protocol.sweep && packed === null
          ? await this.sweepResponse(row.sha256, protocol.sweep, role === 'room')
          : null,
      tone: holdsTones && packed === null ? await this.tone(row.sha256) : null,
    };
    return { row, step: row.step, settings, analysed, unread: holdsSweep || holdsTones ? packed : null };
  }

  /** Null where the take is too short. */
  private async tone(sha256: string): Promise<TakeTone | null> {
    const path = await this.store.verified(sha256);
    return path === null ? null : this.pool.run('measure-tone', { path } satisfies MeasureToneTask);
  }

  /** Null where the recording is no answer to the sweep; the clip's own figures stand all the same. */
  private async sweepResponse(sha256: string, sweep: ProtocolSweep, withRoom: boolean): Promise<SweepResult | null> {
    const path = await this.store.verified(sha256);
    if (!path) return null;
    try {
      return await this.pool.run('measure-sweep', { path, sweep, withRoom } satisfies MeasureSweepTask);
    } catch (error) {
      this.report(error);
      return null;
    }
  }
}
