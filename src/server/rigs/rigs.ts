import { CALIBRATOR_UNCERTAINTY_DB, ONE_PASCAL_DB_SPL } from '#core/measure/self-noise';
import { ALGORITHM_VERSION } from '#core/measure/registry';
import type { Agreement } from '#core/rules/rig-agreement';
import {
  rigDocumentSchema,
  type Calibration,
  type NewCalibration,
  type Rig,
  type RigDocument,
  type RigHealth,
} from '#contracts/rig';
import type { Reading } from '#contracts/session-plan';
import { unitName } from '#contracts/unit-name';
import type { ClipStore } from '../platform/archive/clip-store';
import type { Database } from '../platform/db/database';
import { listProtocols } from '../sessions/queries/protocol';
import {
  addCalibration,
  addRig,
  controlledDays,
  figuresOfUnit,
  findRig,
  listCalibrations,
  listRigs,
  rigOnDay,
  type CalibrationRow,
  type RigRow,
} from './queries/rig';
import { runsOfDay } from '../runs/queries/run';
import { listSpecimens } from '../catalogue/queries/specimen';
import { groupBy } from '#domain/group-by';
import { rigHealth } from '#domain/rigs/rig-health';
import { Failure } from '../platform/failure';
import type { EventHub } from '../platform/event-hub';
import type { WorkerPool } from '../platform/worker-pool';

/** A voltmeter of ±1 %, taken as a rectangle. */
const VOLT_UNCERTAINTY_DB = 0.09 / Math.sqrt(3);
/** A loop is told to a sample or so: ±1 sample at 48 kHz, taken as a rectangle, in milliseconds. */
const LOOP_UNCERTAINTY_MS = 1000 / 48_000 / Math.sqrt(3);

/** Later than any day. */
const LAST_DAY = '9999-12-31';

/** Rigs with their dates, their calibrations, and what the control unit says of them. */
export class Rigs {
  constructor(
    private readonly database: Database,
    private readonly store: ClipStore,
    private readonly pool: WorkerPool,
    private readonly hub: EventHub,
  ) {}

  async list(): Promise<Rig[]> {
    const calibrations = await listCalibrations(this.database);
    return (await listRigs(this.database)).map((row) => rigFromRow(row, calibrations));
  }

  async add(document: RigDocument): Promise<Rig> {
    const id = await addRig(this.database, document.name, document.since, document);
    this.hub.rulesChanged();
    return rigFromRow((await findRig(this.database, id)) as RigRow, []);
  }

  /** @throws Failure `not-found` for the rig or the clip, `invalid-request` where nothing can be read */
  async calibrate(rigId: string, calibration: NewCalibration): Promise<Calibration> {
    if (!(await findRig(this.database, rigId))) throw new Failure('not-found', `There is no rig ${rigId}.`);
    const read = calibration.read ?? (await this.readFor(calibration));
    const { result, uncertainty } = calibrationResult(calibration, read);
    return calibrationFromRow(
      await addCalibration(this.database, rigId, { ...calibration, read, result, uncertainty }),
    );
  }

  /** @throws Failure `not-found` */
  async reading(sha256: string): Promise<Reading> {
    const path = await this.store.verified(sha256);
    if (!path) throw new Failure('not-found', 'There is no such clip in the archive.');
    return this.pool.run('measure-reading', { path });
  }

  /** A rig as it was on a day; null where none is known. */
  async onDay(name: string | null, day: string): Promise<(RigDocument & { readonly id: string }) | null> {
    const row = await rigOnDay(this.database, name, day);
    return row ? { ...rigDocumentSchema.parse(row.document), id: row.id } : null;
  }

  /** What the control unit says of a day, against its history up to that day. */
  async health(day: string, rigName: string | null): Promise<RigHealth> {
    const rig = await this.onDay(rigName, day);
    const whenOff = rig?.whenOff ?? 'as-measured';
    const none = { whenOff, figures: [], drift: [] };
    if (!rig?.controlUnit) {
      const note = rig ? 'This rig has no control unit, so nothing tells whether it has changed.' : 'No rig is noted.';
      return { controlUnit: null, verdict: 'no-control', note, ...none };
    }
    const [unit] = await listSpecimens(this.database, ALGORITHM_VERSION, [rig.controlUnit]);
    if (!unit)
      return { controlUnit: null, verdict: 'no-control', note: 'The control unit is not in the catalogue.', ...none };
    const controlUnit = { id: unit.id, name: unitName(unit) };
    const rows = await figuresOfUnit(this.database, unit.id, day, ALGORITHM_VERSION);
    const today = rows.filter((r) => r.day === day);
    if (today.length === 0) {
      return {
        controlUnit,
        verdict: 'no-control',
        note: 'The control unit has not been recorded on this day.',
        ...none,
      };
    }
    return { controlUnit, whenOff, ...rigHealth(rows, today, rig.id, await listProtocols(this.database)) };
  }

  /** By how much the figures of a day are to be corrected; empty where the rig's policy is to report as measured. */
  async corrections(day: string, rigName: string | null): Promise<ReadonlyMap<string, Agreement>> {
    const found = new Map<string, Agreement>();
    const rig = await this.onDay(rigName, day);
    if (rig?.whenOff !== 'correct') return found;
    const { figures } = await this.health(day, rigName);
    for (const f of figures) if (f.verdict === 'off') found.set(f.quantity, f);
    return found;
  }

  /** Days on which the control unit said that the rig was off: all of them, in as many questions as there are control units. */
  async offDays(): Promise<ReadonlySet<string>> {
    const days = groupBy(await controlledDays(this.database), (d) => d.control_unit);
    const off = new Set<string>();
    if (days.size === 0) return off;
    const protocols = await listProtocols(this.database);
    for (const [unit, controlled] of days) {
      const rows = await figuresOfUnit(this.database, unit, LAST_DAY, ALGORITHM_VERSION);
      for (const { day, rig_id: rigId } of controlled) {
        const today = rows.filter((r) => r.day === day);
        // What came later is no history of this day: the rule leaves it out.
        if (today.length > 0 && rigHealth(rows, today, rigId, protocols).verdict === 'off') off.add(day);
      }
    }
    return off;
  }

  /** Names of rigs whose figures are corrected by what the control unit says, on some day at least. */
  async correcting(): Promise<ReadonlySet<string>> {
    return new Set((await this.list()).flatMap((r) => (r.document.whenOff === 'correct' ? [r.document.name] : [])));
  }

  /** Units that any rig names as its control. */
  async controlUnits(): Promise<ReadonlySet<string>> {
    return new Set((await this.list()).flatMap((r) => r.document.controlUnit ?? []));
  }

  /** Input for full scale at 0 dB of gain, dBu: by the newest electrical calibration up to a day, else as noted. */
  async fullScaleDbu(name: string | null, day: string): Promise<number | null> {
    const rig = await this.onDay(name, day);
    if (!rig) return null;
    const calibrations = (await listCalibrations(this.database)).filter(
      (c) => c.rig_id === rig.id && c.kind === 'electrical' && c.day <= day,
    );
    return calibrations.at(0)?.result ?? rig.inputFullScaleDbu;
  }

  /** Name of the rig that a day's runs were made on. */
  async rigOfDay(day: string): Promise<string | null> {
    const id = (await runsOfDay(this.database, day)).find((r) => r.rig_id !== null)?.rig_id ?? null;
    return id === null ? null : ((await findRig(this.database, id))?.name ?? null);
  }

  private async readFor({ kind, clip }: NewCalibration): Promise<number> {
    if (clip === null) throw invalid('read', 'type in what was read, or give a clip that it can be read from');
    const { toneDbfs, latencyMs } = await this.reading(clip);
    const read = kind === 'loopback' ? latencyMs : toneDbfs;
    if (read !== null) return read;
    throw invalid(
      'clip',
      kind === 'loopback'
        ? 'needs two channels, the sent signal and the returned one'
        : 'no steady tone was found in this clip',
    );
  }
}

const invalid = (field: string, message: string): Failure =>
  new Failure('invalid-request', 'The calibration cannot be noted.', [{ file: null, field, message }]);

/** What follows from a reading. */
export function calibrationResult(
  { kind, fedIn, gainDb }: Pick<NewCalibration, 'kind' | 'fedIn' | 'gainDb'>,
  read: number,
): { result: number; uncertainty: number | null } {
  if (kind === 'loopback') return { result: read, uncertainty: LOOP_UNCERTAINTY_MS };
  if (fedIn === null)
    throw invalid('fedIn', kind === 'electrical' ? 'how many dBu were fed in?' : 'how loud was the calibrator?');
  if (gainDb === null) throw invalid('gainDb', 'at which gain?');
  return kind === 'electrical'
    ? { result: fedIn - read + gainDb, uncertainty: VOLT_UNCERTAINTY_DB }
    : { result: read - gainDb + ONE_PASCAL_DB_SPL - fedIn, uncertainty: CALIBRATOR_UNCERTAINTY_DB };
}

const calibrationFromRow = (row: CalibrationRow): Calibration => ({
  id: row.id,
  kind: row.kind,
  day: row.day,
  fedIn: row.fed_in,
  gainDb: row.gain_db,
  read: row.reading,
  result: row.result,
  uncertainty: row.uncertainty,
  clip: row.clip,
  note: row.note,
});

function rigFromRow(row: RigRow, calibrations: readonly CalibrationRow[]): Rig {
  return {
    id: row.id,
    document: rigDocumentSchema.parse(row.document),
    runs: row.runs,
    calibrations: calibrations.filter((c) => c.rig_id === row.id).map(calibrationFromRow),
  };
}
