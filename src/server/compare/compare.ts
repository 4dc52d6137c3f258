import { rm } from 'node:fs/promises';
import { extname, join } from 'node:path';
import { AudioFileError } from '#core/audio/audio-file-error';
import { mapTime, type TimeMap } from '#core/audio/phrase-alignment';
import { gatedLoudness } from '#core/measure/integrated-loudness';
import { levelMatch, TRUE_PEAK_CEILING_DBTP } from '#core/measure/level-match';
import { ALGORITHM_VERSION, quantity, isQuantity } from '#core/measure/registry';
import { removedByBand } from '#core/measure/removed-by-band';
import { comparableBetween } from '#core/rules/comparability';
import { playKindOf } from '#core/rules/compare-versions';
import { dbfs, dbtp, lufs } from '#core/units';
import { lowCutSchema } from '#contracts/comparisons';
import { clipSummarySchema, type ClipSummary } from '#contracts/clip-summary';
import {
  compareRequestSchema,
  type CompareCandidate,
  type CompareLane,
  type CompareRequest,
  type CompareSet,
  type CompareTable,
  type LaneDifference,
} from '#contracts/compare';
import { protocolSchema, type Protocol } from '#contracts/protocol';
import type { ClipDifferenceResult, MeasureClipDifferenceTask } from '#worker/tasks/measure-clip-difference';
import type { CutMatchedClipTask } from '#worker/tasks/cut-matched-clip';
import type { RenderComparisonZipTask } from '#worker/tasks/render-comparison-zip';
import { temporaryFolder, type ClipStore } from '../platform/archive/clip-store';
import type { Database } from '../platform/db/database';
import {
  findCompareSet,
  heardSteps,
  insertCompareSet,
  listCompareSets,
  setCompareSetRemoved,
  stepTakes,
  type CompareSetRow,
  type LaneRow,
} from './queries/compare';
import { listProtocols } from '../sessions/queries/protocol';
import { Failure } from '../platform/failure';
import { takesInOrder } from '../runs/takes-in-order';
import type { WorkerPool } from '../platform/worker-pool';
import { sameWords, type SameWords } from '#core/rules/same-words';
import { doublesFrom } from '../platform/db/numbers-from-bytes';

/** Loudness that matched clips are brought to. */
const TARGET_LUFS = -23;
/** Steps of a tenth of a second that loudness is gated over. */
const STEPS_PER_S = 10;
/** A clip this near to full scale, or this loud, gets the hearing caution. */
const LOUD_DBTP = -0.5;
const LOUD_LUFS = -12;
/** Pairs of clips whose difference is remembered. */
const MOST_REMEMBERED = 64;

interface Lane {
  readonly row: LaneRow;
  readonly summary: ClipSummary;
}

/** Clips of one step side by side: levels, warnings, spectra, differences; sets that are kept and exported. */
export class Compare {
  private readonly differences = new Map<string, Promise<ClipDifferenceResult>>();

  constructor(
    private readonly database: Database,
    private readonly store: ClipStore,
    private readonly pool: WorkerPool,
    private readonly now: () => Date,
  ) {}

  async candidates(category: string, step: string): Promise<CompareCandidate[]> {
    return (await stepTakes(this.database, category, step, ALGORITHM_VERSION)).map((r) => ({
      takeId: r.take_id,
      specimenId: r.specimen_id,
      unit: r.unit,
      step: r.step,
      stepTitle: r.step_title,
      category: r.category,
      date: r.date,
      durationS: r.duration_s,
      protocol: r.protocol,
      protocolVersion: r.protocol_version,
    }));
  }

  /** Steps that clips exist of. */
  steps(): ReturnType<typeof heardSteps> {
    return heardSteps(this.database, ALGORITHM_VERSION);
  }

  /** @throws Failure `not-found` for a take that is not there or not measured */
  async table(request: CompareRequest): Promise<CompareTable> {
    const lanes = await this.lanes(request.takes);
    const zero = lanes.find((l) => l.row.take_id === request.zero);
    if (!zero) throw new Failure('invalid-request', 'The zero lane is not one of the clips.');
    const versions = await listProtocols(this.database);
    const levels = await Promise.all(lanes.map((lane) => this.level(lane, zero, request.loop)));
    const { gains, targetLufs, heldBack } = appliedGains(lanes, levels, request.match);
    return {
      category: zero.row.category,
      step: zero.row.step,
      stepTitle: zero.row.step_title,
      targetLufs,
      heldBackBy: heldBack === null ? null : lanes[heldBack].row.take_id,
      lanes: lanes.map((lane, i) => this.lane(lane, zero, versions, levels[i], gains[i])),
      pair: withWithout(lanes),
    };
  }

  private async lanes(takeIds: readonly string[]): Promise<Lane[]> {
    return (await takesInOrder(this.database, takeIds)).map((row) => ({
      row,
      summary: clipSummarySchema.parse(row.summary),
    }));
  }

  /**
   * Loudness of the loop where there is one, laid over by the alignment of the two clips. That is measured here where
   * nobody has asked for it yet: the same question has the same answer, whatever was asked before.
   */
  private async level(lane: Lane, zero: Lane, loop: CompareRequest['loop']): Promise<number | null> {
    const { row, summary } = lane;
    if (!loop || !row.step_powers) return summary.loudness.integratedLufs;
    const map = row.sha256 === zero.row.sha256 ? null : await this.alignment(zero, lane);
    const [from, to] = [loop.fromS, loop.toS].map((s) => (map ? mapTime(map, s) : s));
    const powers = doublesFrom(row.step_powers);
    const part = powers.subarray(
      Math.max(0, Math.round(from * STEPS_PER_S)),
      Math.max(0, Math.round(to * STEPS_PER_S)),
    );
    const { loudness } = gatedLoudness(part);
    return Number.isFinite(loudness) ? loudness : null;
  }

  private lane(
    { row, summary }: Lane,
    zero: Lane,
    versions: readonly Protocol[],
    loudness: number | null,
    appliedDb: number,
  ): CompareLane {
    const own = summary.loudness.integratedLufs;
    const shift = own === null ? null : TARGET_LUFS - own;
    const bands = (list: ClipSummary['thirdOctave'], by: number | null): CompareLane['spectrum'] =>
      list.map(({ centreHz, levelDbfs }) => ({
        centreHz,
        db: levelDbfs === null || by === null ? null : levelDbfs + by,
      }));
    return {
      takeId: row.take_id,
      specimenId: row.specimen_id,
      unit: row.unit,
      date: row.date,
      protocol: row.protocol,
      protocolVersion: row.protocol_version,
      rig: row.rig,
      sha256: row.sha256,
      durationS: row.duration_s,
      sampleRateHz: row.sample_rate_hz,
      takeGainDb: row.gain_db,
      loudnessLufs: loudness,
      truePeakDbtp: summary.loudness.truePeakDbtp,
      appliedDb,
      isLoud:
        (summary.loudness.truePeakDbtp ?? -99) > LOUD_DBTP || (own ?? -99) > LOUD_LUFS || summary.level.clippedRuns > 0,
      warning: warningOf(row, zero.row, versions),
      spectrum: bands(summary.thirdOctave, shift),
      noise: summary.noise.thirdOctave.length === 0 ? null : bands(summary.noise.thirdOctave, shift),
      figures: figuresOf(row, summary),
    };
  }

  /**
   * Difference and alignment of one lane against the zero lane.
   *
   * @throws Failure `not-found`, `invalid-request` where the clips have nothing in common
   */
  async difference(zeroTake: string, otherTake: string): Promise<LaneDifference> {
    const [zero, other] = await this.lanes([zeroTake, otherTake]);
    try {
      const { map, difference } = await this.measured(zero, other);
      const words = wordsOf(zero.row, other.row);
      return {
        takeId: otherTake,
        map: { kind: map.kind, anchors: map.anchors.map(([a, b]) => [a, b]) },
        method: difference.method,
        points: words.kind === 'different' ? [] : difference.points.map((p) => ({ ...p })),
        lowCut:
          words.kind === 'different' ? { kind: 'untold', reason: words.text } : lowCutSchema.parse(difference.lowCut),
        remark: words.text,
      };
    } catch (error) {
      throw error instanceof AudioFileError ? new Failure('invalid-request', error.message) : error;
    }
  }

  /** Where the times of one clip lie in another; null where they have nothing in common. */
  private async alignment(zero: Lane, other: Lane): Promise<TimeMap | null> {
    try {
      return (await this.measured(zero, other)).map;
    } catch (error) {
      if (error instanceof AudioFileError) return null;
      throw error;
    }
  }

  private async measured(zero: Lane, other: Lane): Promise<ClipDifferenceResult> {
    const key = `${zero.row.sha256}/${other.row.sha256}`;
    let result = this.differences.get(key);
    if (!result) {
      const paths = [await this.path(zero.row.sha256), await this.path(other.row.sha256)];
      // Somebody else may have asked while the clips were looked at.
      result = this.differences.get(key) ?? this.begun(key, { zero: paths[0], other: paths[1] });
    }
    return result;
  }

  private begun(key: string, task: MeasureClipDifferenceTask): Promise<ClipDifferenceResult> {
    const result = this.pool.run('measure-clip-difference', task);
    this.differences.set(key, result);
    for (const old of this.differences.keys())
      if (this.differences.size > MOST_REMEMBERED) this.differences.delete(old);
    result.catch(() => this.differences.delete(key));
    return result;
  }

  private async path(sha256: string): Promise<string> {
    const path = await this.store.verified(sha256);
    if (!path) throw new Failure('not-found', 'The clip of this take is not in the archive.');
    return path;
  }

  async sets(): Promise<CompareSet[]> {
    return (await listCompareSets(this.database)).map(setFromRow);
  }

  /** @throws Failure `not-found` */
  async set(id: string): Promise<CompareSet> {
    const row = await findCompareSet(this.database, id);
    if (!row) throw new Failure('not-found', `There is no comparison with the number ${id}.`);
    return setFromRow(row);
  }

  /** @throws Failure `not-found`, `invalid-request` */
  async keep(name: string, request: CompareRequest): Promise<CompareSet> {
    await this.table(request);
    return this.set(await insertCompareSet(this.database, name, request));
  }

  /** Takes a set off the list, or puts it back; its link goes on working. */
  async remove(id: string, isRemoved: boolean): Promise<void> {
    await this.set(id);
    await setCompareSetRemoved(this.database, id, isRemoved ? this.now() : null);
  }

  /**
   * A ZIP of level-matched copies, the untouched originals, and a text of what was applied.
   *
   * @param request - what is compared
   * @param title - heading of the text
   * @returns where it lies, and a function that takes it away
   */
  async exportZip(request: CompareRequest, title: string): Promise<{ path: string; cleanUp: () => Promise<void> }> {
    const table = await this.table(request);
    const folder = await temporaryFolder(this.store);
    const cleanUp = (): Promise<void> => rm(folder, { recursive: true, force: true });
    try {
      const files: { path: string; as: string }[] = [];
      for (const [i, lane] of table.lanes.entries()) {
        const name = `${i + 1} ${fileName(`${lane.unit} ${lane.date}`)}`;
        const path = await this.path(lane.sha256);
        const into = join(folder, `${i + 1}.wav`);
        await this.pool.run('cut-matched-clip', { path, gainDb: lane.appliedDb, into } satisfies CutMatchedClipTask);
        files.push({ path: into, as: `matched/${name}.wav` }, { path, as: `original/${name}${extname(path)}` });
      }
      const task: RenderComparisonZipTask = {
        files,
        text: { as: 'levels.txt', body: levelsText(title, table, request) },
        into: join(folder, 'comparison.zip'),
      };
      await this.pool.run('render-comparison-zip', task);
      return { path: task.into, cleanUp };
    } catch (error) {
      await cleanUp();
      throw error;
    }
  }
}

const setFromRow = ({ id, name, document, day }: CompareSetRow): CompareSet => ({
  ...compareRequestSchema.parse(document),
  id,
  name,
  day,
});

/** Applied gains, none of which may bring a clip nearer to full scale than the ceiling. */
function appliedGains(
  lanes: readonly Lane[],
  levels: readonly (number | null)[],
  match: CompareRequest['match'],
): { gains: number[]; targetLufs: number | null; heldBack: number | null } {
  const peaks = lanes.map(({ summary }) => summary.loudness.truePeakDbtp ?? -144);
  if (match === 'loudness') {
    // A lane without loudness (silence) is shown with the others, at the gain that the first of them gets.
    const known = lanes.flatMap((_, i) => (levels[i] === null ? [] : [i]));
    const { gainsDb, targetLufs, heldBackBy } = levelMatch(
      known.map((i) => ({ integratedLufs: lufs(levels[i] ?? 0), truePeakDbtp: dbtp(peaks[i]) })),
      TARGET_LUFS,
    );
    const gains = lanes.map((_, i) => (known.includes(i) ? gainsDb[known.indexOf(i)] : Math.min(0, gainsDb[0] ?? 0)));
    return {
      gains,
      targetLufs: known.length > 0 ? targetLufs : null,
      heldBack: heldBackBy === null ? null : known[heldBackBy],
    };
  }
  // As it comes out: gains of the rig are evened out, so that one unit's sensitivity stays what it is.
  const lowest = Math.min(...lanes.map(({ row }) => row.gain_db));
  const wanted = lanes.map(({ row }) => (match === 'gain' ? lowest - row.gain_db : 0));
  const over = wanted.map((gain, i) => peaks[i] + gain - TRUE_PEAK_CEILING_DBTP);
  const most = Math.max(0, ...over);
  return { gains: wanted.map((gain) => gain - most), targetLufs: null, heldBack: most > 0 ? over.indexOf(most) : null };
}

function warningOf(row: LaneRow, zero: LaneRow, versions: readonly Protocol[]): string | null {
  const reasons: string[] = [];
  if (row.step !== zero.step) reasons.push(`Another step: ${row.step_title}.`);
  else if (row.protocol !== zero.protocol) reasons.push(`Another protocol: ${row.protocol}.`);
  else {
    const own = versions.filter((v) => v.id === row.protocol);
    const verdict = comparableBetween(own, row.step, row.protocol_version, zero.protocol_version);
    if (!verdict.comparable) reasons.push(`Protocol version ${row.protocol_version}: ${verdict.reason}`);
  }
  if (row.rig !== zero.rig)
    reasons.push(`Another rig: ${row.rig ?? 'not noted'}; part of what is heard may be the rig's.`);
  return reasons.join(' ') || null;
}

function figuresOf(row: LaneRow, summary: ClipSummary): CompareLane['figures'] {
  const figures: CompareLane['figures'] = {};
  for (const [id, m] of Object.entries(summary.measurements))
    if (isQuantity(id)) figures[id] = { value: m.value, uncertainty: m.uncertainty, unit: m.unit };
  const ofRun = row.run_figures as { quantity: string; value: number | null; uncertainty: number | null }[];
  for (const m of ofRun)
    if (isQuantity(m.quantity) && !figures[m.quantity])
      figures[m.quantity] = { value: m.value, uncertainty: m.uncertainty, unit: quantity(m.quantity).unit };
  return figures;
}

/** Two takes that differ by one thing: steps that are each other's pair, or one step of one unit with and without. */
function withWithout(lanes: readonly Lane[]): CompareTable['pair'] {
  if (lanes.length !== 2) return null;
  const [a, b] = lanes;
  const found = pairedSteps(a, b) ?? pairedSteps(b, a);
  if (!found) return null;
  const { withLane, withoutLane, varies } = found;
  const noise = ({ summary }: Lane): { value: number | null; u: number | null } => {
    const m = summary.measurements['noiseReSpeechA'];
    return { value: m?.value ?? summary.noise.reSpeechDb.a, u: m?.uncertainty ?? null };
  };
  const [x, y] = [noise(withLane), noise(withoutLane)];
  const level = ({ summary, row }: Lane): number | null =>
    summary.loudness.integratedLufs === null ? null : summary.loudness.integratedLufs - row.gain_db;
  const [on, off] = [level(withLane), level(withoutLane)];
  const brought = ({ summary }: Lane, bands: ClipSummary['thirdOctave']) =>
    bands.map((p) => ({
      ...p,
      levelDbfs:
        p.levelDbfs === null || summary.loudness.integratedLufs === null
          ? null
          : dbfs(p.levelDbfs + TARGET_LUFS - summary.loudness.integratedLufs),
    }));
  const removed = (bands: (lane: Lane) => ClipSummary['thirdOctave']) =>
    removedByBand(
      brought(withoutLane, bands(withoutLane)).map((p) => ({ ...p, levelDbfs: p.levelDbfs ?? dbfs(-Infinity) })),
      brought(withLane, bands(withLane)).map((p) => ({ ...p, levelDbfs: p.levelDbfs ?? dbfs(-Infinity) })),
    );
  const [noiseBands, speechBands] = [
    removed((l) => l.summary.noise.thirdOctave),
    removed((l) => l.summary.thirdOctave),
  ];
  const finite = (v: number | null | undefined): number | null =>
    v === undefined || v === null || !Number.isFinite(v) ? null : v;
  return {
    varies,
    withTake: withLane.row.take_id,
    withoutTake: withoutLane.row.take_id,
    addedGainDb: on === null || off === null ? null : on - off,
    noiseChangeDb: x.value === null || y.value === null ? null : x.value - y.value,
    noiseUncertaintyDb: x.u === null || y.u === null ? null : Math.hypot(x.u, y.u),
    removed: speechBands.map(({ centreHz, removedDb }) => ({
      centreHz,
      speechDb: finite(removedDb),
      noiseDb: finite(noiseBands.find((p) => p.centreHz === centreHz)?.removedDb),
    })),
  };
}

function pairedSteps(a: Lane, b: Lane): { withLane: Lane; withoutLane: Lane; varies: string } | null {
  const step = protocolSchema.parse(a.row.protocol_document).steps.find((s) => s.id === a.row.step);
  if (a.row.protocol !== b.row.protocol || step?.pair?.step !== b.row.step) return null;
  // The half that uses more accessories is the one "with".
  const other = protocolSchema.parse(b.row.protocol_document).steps.find((s) => s.id === b.row.step);
  const isWith =
    step.accessories.length !== (other?.accessories.length ?? 0)
      ? step.accessories.length > (other?.accessories.length ?? 0)
      : !/without|bare|off\b/i.test(`${a.row.step} ${a.row.step_title}`);
  return { withLane: isWith ? a : b, withoutLane: isWith ? b : a, varies: step.pair.varies };
}

const fileName = (text: string): string =>
  text
    .normalize('NFKD')
    .replaceAll(/[^\p{L}\p{N}]+/gu, '-')
    .replaceAll(/^-|-$/g, '');

function levelsText(title: string, table: CompareTable, request: CompareRequest): string {
  const how = {
    loudness: `equal loudness${request.loop ? ` over ${request.loop.fromS.toFixed(1)}–${request.loop.toS.toFixed(1)} s of the first` : ''}, ITU-R BS.1770-5, common level ${table.targetLufs?.toFixed(2) ?? '?'} LUFS`,
    gain: 'equal gain of the rig',
    none: 'as recorded',
  }[request.match];
  const lines = table.lanes.map(
    (lane, i) =>
      `${i + 1}\t${lane.unit}\t${lane.date}\t${lane.appliedDb >= 0 ? '+' : ''}${lane.appliedDb.toFixed(2)} dB\t${lane.loudnessLufs?.toFixed(2) ?? 'no'} LUFS before\t${lane.warning ?? ''}`,
  );
  return [
    title,
    `${table.stepTitle}; levels: ${how}; no clip above ${TRUE_PEAK_CEILING_DBTP} dBTP.`,
    'Folder "matched": applied as listed. Folder "original": bit for bit as recorded.',
    '',
    ...lines,
    '',
  ].join('\r\n');
}

/** What two lanes say; where nothing is said, nothing can differ. */
function wordsOf(zero: LaneRow, other: LaneRow): SameWords {
  const step = protocolSchema.parse(zero.protocol_document).steps.find((s) => s.id === zero.step);
  const isSpoken = step !== undefined && ['text', 'phrase', 'sung'].includes(playKindOf(step));
  if (!isSpoken || !zero.step_powers || !other.step_powers) return { kind: 'same', text: '' };
  return sameWords(doublesFrom(zero.step_powers), doublesFrom(other.step_powers));
}
