import { BandPowerFrames, bandPowerRoom } from '../dsp/band-power-frames';
import type { ChannelBlock } from '../dsp/channel-block';
import { DropOutDetector, dropOutPast } from '../dsp/drop-out-detector';
import type { DropOutReading } from '../dsp/drop-out-reading';
import { FRAMES_PER_SECOND, FramePowerMeter } from '../dsp/frame-power';
import { joinLevels, LevelMeter, type LevelReading } from '../dsp/level-meter';
import { LowBandFrames } from '../dsp/low-band-frames';
import { SibilantFrames, sibilantRoom } from '../dsp/sibilant-frames';
import { TruePeakMeter } from '../dsp/true-peak';
import type { Stretch } from './clip-stretches';

/** What of a clip is measured: its levels alone, or spectra, holes, puffs and consonants as well. */
export type Depth = 'levels' | 'all';

/** What the meters of one channel read, of a stretch or of a whole clip. */
export interface ChannelReadings {
  readonly level: LevelReading;
  /** Largest magnitude of the oversampled signal, linear. */
  readonly truePeak: number;
  /** Samples, their sum, and the sum of their squares. */
  readonly count: number;
  readonly sum: number;
  readonly sumOfSquares: number;
  /** Mean squares of frames of 20 ms, plain and K-weighted. */
  readonly plain: Float64Array;
  readonly kWeighted: Float64Array;
  /** Null where only levels were wanted. */
  readonly deep: DeepReadings | null;
}

/** What the meters of one channel read beside its levels. */
export interface DeepReadings {
  /** Largest magnitude at 20–120 Hz per frame of 20 ms. */
  readonly lowBand: Float64Array;
  /** Two numbers per frame: mean square at 1–5 kHz and at 5–10 kHz. */
  readonly sibilants: Float64Array;
  /** VALUES_PER_FRAME band powers per frame, and the sum of the power per bin over so many frames. */
  readonly bands: Float64Array;
  readonly powerSum: Float64Array;
  readonly frames: number;
  /** One per stretch. */
  readonly dropOuts: readonly DropOutReading[];
}

/** The meters of one channel over a stretch of a clip. */
export class ChannelMeters {
  private readonly level = new LevelMeter();
  private readonly power: FramePowerMeter;
  private readonly truePeak: TruePeakMeter;
  private readonly deep: DeepMeters | null;

  /**
   * @param sampleRate - in hertz
   * @param block - the block that is pushed, with {@link meterRoom}
   * @param depth - what is measured
   * @param before - samples that the meters are primed with
   * @param stretch - the stretch
   */
  constructor(
    sampleRate: number,
    private readonly block: ChannelBlock,
    depth: Depth,
    before: number,
    private readonly stretch: Stretch,
  ) {
    this.power = new FramePowerMeter(sampleRate, block);
    this.truePeak = new TruePeakMeter(block);
    this.deep = depth === 'all' ? new DeepMeters(sampleRate, block, before, stretch) : null;
  }

  /** @param count - samples from before the stretch that were filled into the block, a full one */
  prime(count: number): void {
    this.block.scan(count);
    this.level.prime(this.block);
    this.power.prime();
    this.truePeak.prime();
    this.deep?.prime();
  }

  /** @param count - samples of the stretch that were filled into the block */
  push(count: number): void {
    this.block.scan(count);
    this.level.push(this.block);
    this.power.push();
    this.truePeak.push(this.level.peak);
    this.deep?.push();
  }

  /** Closes what the end of the stretch closes. */
  finish(): ChannelReadings {
    const { power } = this;
    if (this.stretch.to === Infinity) this.truePeak.finish();
    return {
      level: this.level.read(),
      truePeak: this.truePeak.peak,
      count: power.count,
      sum: power.sum,
      sumOfSquares: power.sumOfSquares,
      plain: power.plain.view().slice(),
      kWeighted: power.kWeighted.view().slice(),
      deep: this.deep?.finish() ?? null,
    };
  }
}

class DeepMeters {
  private readonly lowBand: LowBandFrames;
  private readonly sibilant: SibilantFrames;
  private readonly bands: BandPowerFrames;
  private readonly dropOuts: DropOutDetector;

  constructor(
    private readonly sampleRate: number,
    block: ChannelBlock,
    before: number,
    private readonly stretch: Stretch,
  ) {
    this.lowBand = new LowBandFrames(sampleRate, block, stretch.from, before);
    this.sibilant = new SibilantFrames(sampleRate, block);
    this.bands = new BandPowerFrames(sampleRate, block);
    this.dropOuts = new DropOutDetector(sampleRate, block, stretch.from - before);
  }

  prime(): void {
    this.lowBand.prime();
    this.sibilant.prime();
    this.bands.prime();
    this.dropOuts.prime();
  }

  push(): void {
    this.lowBand.push();
    this.sibilant.push();
    this.bands.push();
    this.dropOuts.push();
  }

  finish(): DeepReadings {
    const { from, to } = this.stretch;
    if (to !== Infinity) this.lowBand.closeAt(((to - from) * FRAMES_PER_SECOND) / this.sampleRate);
    this.bands.finish();
    return {
      lowBand: this.lowBand.peaks.view().slice(),
      sibilants: this.sibilant.values.view().slice(),
      bands: this.bands.values.view().slice(),
      powerSum: this.bands.powerSum.slice(),
      frames: this.bands.frames,
      dropOuts: [this.dropOuts.read()],
    };
  }
}

/** Bytes behind a block, and samples from before it, that meters need. */
export const meterRoom = (sampleRate: number, depth: Depth): readonly [room: number, past: number] =>
  depth === 'levels' ? [0, 0] : [sibilantRoom(sampleRate) + bandPowerRoom(sampleRate), dropOutPast(sampleRate)];

/**
 * The readings of a channel over a whole clip.
 *
 * @param stretches - those of its stretches, in their order
 */
export function joinChannel(stretches: readonly ChannelReadings[]): ChannelReadings {
  if (stretches.length === 1) return stretches[0];
  const total = (of: (reading: ChannelReadings) => number): number => stretches.reduce((s, r) => s + of(r), 0);
  const deep = stretches.map((r) => r.deep).filter((d) => d !== null);
  return {
    level: joinLevels(stretches.map((r) => r.level)),
    truePeak: Math.max(...stretches.map((r) => r.truePeak)),
    count: total((r) => r.count),
    sum: total((r) => r.sum),
    sumOfSquares: total((r) => r.sumOfSquares),
    plain: strung(stretches.map((r) => r.plain)),
    kWeighted: strung(stretches.map((r) => r.kWeighted)),
    deep: deep.length === 0 ? null : joinDeep(deep),
  };
}

const joinDeep = (stretches: readonly DeepReadings[]): DeepReadings => ({
  lowBand: strung(stretches.map((r) => r.lowBand)),
  sibilants: strung(stretches.map((r) => r.sibilants)),
  bands: strung(stretches.map((r) => r.bands)),
  powerSum: stretches[0].powerSum.map((_, k) => stretches.reduce((s, r) => s + r.powerSum[k], 0)),
  frames: stretches.reduce((s, r) => s + r.frames, 0),
  dropOuts: stretches.flatMap((r) => r.dropOuts),
});

/** Arrays end to end. */
function strung(parts: readonly Float64Array[]): Float64Array {
  const whole = new Float64Array(parts.reduce((s, part) => s + part.length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
