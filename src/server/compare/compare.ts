import { AudioFileError } from '#core/audio/audio-file-error';
import { mapTime, type TimeMap } from '#core/audio/phrase-alignment';
import { gatedLoudness } from '#core/measure/integrated-loudness';
import { ALGORITHM_VERSION, quantity, isQuantity } from '#core/measure/registry';
import { playKindOf } from '#core/rules/compare-versions';
import { lowCutSchema } from '#contracts/comparisons';
import { clipOriginSchema } from '#contracts/clip';
import { clipSummarySchema, type ClipSummary } from '#contracts/clip-summary';
import {
  type CompareCandidate,
  type CompareLane,
  type CompareRequest,
  type CompareTable,
  type LaneDifference,
} from '#contracts/compare';
import { protocolSchema, type Protocol } from '#contracts/protocol';
import { channelDelayMs } from '#domain/compare/channel-delay';
import { takeWords } from '#domain/compare/take-words';
import { appliedGains } from '#domain/compare/applied-gains';
import { TARGET_LUFS, type ComparedTake } from '#domain/compare/compared-take';
import { laneWarning } from '#domain/compare/lane-warning';
import { withWithout } from '#domain/compare/with-without';
import type { Database } from '../platform/db/database';
import type { ClipDifferences } from './clip-differences';
import { heardSteps, stepTakes, type LaneRow } from './queries/compare';
import { listProtocols } from '../sessions/queries/protocol';
import { Failure } from '../platform/failure';
import { processingOfRow, settingsOfRow } from '../runs/take-settings';
import { takesInOrder } from '../runs/takes-in-order';
import { sameWords, type SameWords } from '#core/rules/same-words';
import { doublesFrom } from '../platform/db/numbers-from-bytes';

/** Steps of a tenth of a second that loudness is gated over. */
const STEPS_PER_S = 10;
/** A clip this near to full scale, or this loud, gets the hearing caution. */
const LOUD_DBTP = -0.5;
const LOUD_LUFS = -12;

interface Lane {
  readonly row: LaneRow;
  readonly take: ComparedTake;
  readonly summary: ClipSummary;
}

/** Clips of one step side by side: levels, warnings, spectra, differences. */
export class Compare {
  constructor(
    private readonly database: Database,
    private readonly differences: ClipDifferences,
  ) {}

  async candidates(category: string, step: string): Promise<CompareCandidate[]> {
    return (await stepTakes(this.database, category, step, ALGORITHM_VERSION)).map((r) => ({
      takeId: r.take_id,
      specimenId: r.specimen_id,
      unit: r.unit,
      words: wordsOfTake(r),
      isProcessed: processingOfRow(r) !== null,
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
    const { gains, targetLufs, heldBack, gainRefused } = appliedGains(
      lanes.map((l) => l.take),
      levels,
      request.match,
    );
    return {
      category: zero.row.category,
      step: zero.row.step,
      stepTitle: zero.row.step_title,
      targetLufs,
      heldBackBy: heldBack === null ? null : lanes[heldBack].row.take_id,
      lanes: lanes.map((lane, i) => this.lane(lane, zero, versions, levels[i], gains[i])),
      gainRefused,
      pair: withWithout(lanes.map((l) => l.take)),
    };
  }

  private async lanes(takeIds: readonly string[]): Promise<Lane[]> {
    return (await takesInOrder(this.database, takeIds)).map((row) => {
      const summary = clipSummarySchema.parse(row.summary);
      return { row, summary, take: comparedTake(row, summary) };
    });
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
    { row, take, summary }: Lane,
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
      words: wordsOfTake(row),
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
      warning: laneWarning(take, zero.take, versions),
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
      const { map, difference } = await this.differences.between(zero.row.sha256, other.row.sha256);
      const words = wordsOf(zero.row, other.row);
      return {
        takeId: otherTake,
        map: { kind: map.kind, anchors: map.anchors.map(([a, b]) => [a, b]) },
        delayMs: channelDelayMs(map, zero.row.recording, other.row.recording),
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
      return (await this.differences.between(zero.row.sha256, other.row.sha256)).map;
    } catch (error) {
      if (error instanceof AudioFileError) return null;
      throw error;
    }
  }
}

const wordsOfTake = (row: Pick<LaneRow, 'settings' | 'origin'>): string =>
  takeWords(settingsOfRow(row), clipOriginSchema.nullable().parse(row.origin));

const comparedTake = (row: LaneRow, summary: ClipSummary): ComparedTake => ({
  takeId: row.take_id,
  step: row.step,
  stepTitle: row.step_title,
  protocol: row.protocol,
  protocolVersion: row.protocol_version,
  rig: row.rig,
  gainDb: row.gain_db,
  dial: row.dial,
  processing: processingOfRow(row),
  sound: clipOriginSchema.nullable().parse(row.origin),
  document: protocolSchema.parse(row.protocol_document),
  summary,
});

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

/** What two lanes say; where nothing is said, nothing can differ. */
function wordsOf(zero: LaneRow, other: LaneRow): SameWords {
  const step = protocolSchema.parse(zero.protocol_document).steps.find((s) => s.id === zero.step);
  const isSpoken = step !== undefined && ['text', 'phrase', 'sung'].includes(playKindOf(step));
  if (!isSpoken || !zero.step_powers || !other.step_powers) return { kind: 'same', text: '' };
  return sameWords(doublesFrom(zero.step_powers), doublesFrom(other.step_powers));
}
