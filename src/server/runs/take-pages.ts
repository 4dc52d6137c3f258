import { ALGORITHM_VERSION } from '#core/measure/registry';
import { comparableBetween } from '#core/rules/comparability';
import { quantile } from '#core/stats/quantile';
import { clipSummarySchema, type BandLevelJson, type ClipSummary } from '#contracts/clip-summary';
import { protocolSchema, roleOf, type Protocol, type StepRole } from '#contracts/protocol';
import { segmentsSchema, type Segments } from '#contracts/segments';
import type { TakePage } from '#contracts/take-page';
import type { Database } from '../platform/db/database';
import { listProtocols } from '../sessions/queries/protocol';
import { siblingTakes, stepSpectra, takeForPage, type StepSpectrumRow, type TakePageRow } from './queries/run';
import { Failure } from '../platform/failure';
import { curvesSchema } from '#contracts/curves';
import { curveOfRun } from './queries/curve';
import type { AnalysisQueue } from './analysis-queue';
import type { Rigs } from '../rigs/rigs';
import { takeFromRow } from './take-from-row';

/** Newest takes of a step that its spread over the catalogue is taken from. */
const MOST_TAKES = 1500;
/** Fewer units make no spread. */
const LEAST_UNITS = 4;
/** Loudness to which spectra of speech are brought, so that only their shape differs. */
const COMMON_LUFS = -23;

interface Spectrum {
  readonly gain_db: number | null;
  readonly loudness: number | null;
  readonly bands: readonly BandLevelJson[];
}
type Bands = { centreHz: number; db: number | null }[];

/** One take under the lens: its figures, its segments, and its spectrum among those of the same step. */
export class TakePages {
  constructor(
    private readonly database: Database,
    private readonly queue: AnalysisQueue,
    private readonly rigs: Rigs,
  ) {}

  /** @throws Failure `not-found` */
  async page(takeId: string): Promise<TakePage> {
    const row = await this.row(takeId);
    const protocol = protocolSchema.parse(row.protocol_document);
    const role = roleOf(protocol.steps.find((s) => s.id === row.step) ?? { id: row.step });
    const take = takeFromRow(row);
    const automatic = row.automatic_summary === null ? null : clipSummarySchema.parse(row.automatic_summary);
    return {
      take,
      role,
      pairs: pairsWith(takeId, await curveOfRun(this.database, row.run_id, 'pairs', ALGORITHM_VERSION)),
      siblings: await siblingTakes(this.database, takeId),
      unit: { id: row.specimen_id, name: row.unit_name },
      date: row.date,
      protocol: row.protocol,
      protocolVersion: row.protocol_version,
      segments: automatic && {
        automatic: segmentsOf(automatic),
        chosen: row.choice === null ? null : segmentsSchema.parse(row.choice),
      },
      spectrum: take.summary ? await this.spectrum(row, role, take.summary) : null,
    };
  }

  /**
   * Measures the clip of a take by other segments.
   *
   * @throws Failure `invalid-request` for segments beyond the clip, `not-found`
   */
  async chooseSegments(takeId: string, segments: Segments | null): Promise<TakePage> {
    const row = await this.row(takeId);
    if (row.status !== 'done') throw new Failure('already-running', 'This take is still being measured.');
    const longest = row.duration_s + 0.05;
    const beyond = Object.values(segments ?? {})
      .flat()
      .some((s) => s.endS > longest);
    if (beyond)
      throw new Failure(
        'invalid-request',
        `A segment ends after the clip, which lasts ${row.duration_s.toFixed(2)} s.`,
      );
    await this.queue.chooseSegments(row.sha256, segments);
    return this.page(takeId);
  }

  private async row(takeId: string): Promise<TakePageRow> {
    const row = await takeForPage(this.database, takeId, ALGORITHM_VERSION);
    if (!row) throw new Failure('not-found', `There is no take with the number ${takeId}.`);
    return row;
  }

  private async spectrum(row: TakePageRow, role: StepRole, summary: ClipSummary): Promise<TakePage['spectrum']> {
    const found = await stepSpectra(this.database, row.step, row.category, ALGORITHM_VERSION, MOST_TAKES);
    const { others, leftOut } = comparableTakes(found, row, await listProtocols(this.database));
    const control = controlTake(others, row, await this.rigs.controlUnits());
    return {
      condition:
        role === 'silence'
          ? 'whole clip, third octaves, brought to 0 dB of gain'
          : `whole clip, third octaves, brought to −${-COMMON_LUFS} LUFS`,
      take: brought(role, {
        gain_db: row.gain_db,
        loudness: summary.loudness.integratedLufs,
        bands: summary.thirdOctave,
      }),
      leftOut,
      control: control && { unit: control.unit_name, date: control.date, bands: brought(role, control) },
      catalogue: spread(role, others),
    };
  }
}

/** Pairs of the run that a take is half of. */
const pairsWith = (takeId: string, groups: unknown): TakePage['pairs'] =>
  curvesSchema.shape.pairs
    .parse(groups ?? [])
    .flatMap((group) => group.takes)
    .filter((pair) => pair.fitted === takeId || pair.without === takeId);

const segmentsOf = ({ noise }: ClipSummary): Segments => ({
  speech: noise.speech,
  silence: noise.silence,
  events: noise.events,
});

function brought(role: StepRole, { gain_db, loudness, bands }: Spectrum): Bands {
  const atZero = gain_db === null ? null : -gain_db;
  const shift = role === 'silence' ? atZero : loudness === null ? null : COMMON_LUFS - loudness;
  return bands.map(({ centreHz, levelDbfs }) => ({
    centreHz,
    db: levelDbfs === null || shift === null ? null : levelDbfs + shift,
  }));
}

/** Takes of the step that were made alike; how many were not, and why the first of them. */
function comparableTakes(
  rows: readonly StepSpectrumRow[],
  of: TakePageRow,
  protocols: readonly Protocol[],
): { others: (StepSpectrumRow & { bands: BandLevelJson[] })[]; leftOut: { takes: number; reason: string } | null } {
  const verdicts = new Map<string, string | null>();
  const reasonOf = ({ protocol, protocol_version }: StepSpectrumRow): string | null => {
    if (protocol !== of.protocol) return `They belong to the protocol "${protocol}".`;
    const versions = protocols.filter((p) => p.id === protocol);
    const { comparable, reason } = comparableBetween(versions, of.step, protocol_version, of.protocol_version);
    return comparable ? null : reason;
  };
  const reasons = rows.map((row) => {
    const key = `${row.protocol}/${row.protocol_version}`;
    if (!verdicts.has(key)) verdicts.set(key, reasonOf(row));
    return verdicts.get(key) ?? null;
  });
  const others = rows.filter((_, i) => reasons[i] === null).map((r) => ({ ...r, bands: r.bands as BandLevelJson[] }));
  const reason = reasons.find((r) => r !== null);
  return { others, leftOut: reason ? { takes: rows.length - others.length, reason } : null };
}

/** The take of a rig's control unit that is nearest in time; where no rig names one, of the unit that comes back most often. */
function controlTake<Row extends StepSpectrumRow>(
  rows: readonly Row[],
  of: TakePageRow,
  controls: ReadonlySet<string>,
): Row | null {
  const others = rows.filter((r) => r.specimen_id !== of.specimen_id);
  const named = others.filter((r) => controls.has(r.specimen_id));
  const returning = named.length > 0 ? named : others.filter((r) => r.runs >= 2);
  if (returning.length === 0) return null;
  const most = Math.max(...returning.map((r) => r.runs));
  const apart = (row: Row): number => Math.abs(Date.parse(row.date) - Date.parse(of.date));
  return returning.filter((r) => r.runs === most).reduce((a, b) => (apart(b) < apart(a) ? b : a));
}

function spread(
  role: StepRole,
  rows: readonly (StepSpectrumRow & Spectrum)[],
): NonNullable<TakePage['spectrum']>['catalogue'] {
  const newest = new Map<string, Bands>();
  for (const row of rows) if (!newest.has(row.specimen_id)) newest.set(row.specimen_id, brought(role, row));
  if (newest.size < LEAST_UNITS) return null;
  const spectra = [...newest.values()];
  const bands = spectra[0].flatMap(({ centreHz }, i) => {
    const levels = spectra.map((s) => s.at(i)?.db ?? null).filter((db) => db !== null);
    if (levels.length < LEAST_UNITS) return [];
    const [p10, p50, p90] = [0.1, 0.5, 0.9].map((p) => quantile(levels, p));
    return [{ centreHz, p10, p50, p90 }];
  });
  return { units: newest.size, bands };
}
