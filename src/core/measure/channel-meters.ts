import { BandPowerFrames, bandPowerRoom } from '../dsp/band-power-frames';
import { ChannelBlock } from '../dsp/channel-block';
import { DropOutDetector, dropOutPast } from '../dsp/drop-out-detector';
import type { DropOutReading } from '../dsp/drop-out-reading';
import { joinedFloats } from '../dsp/float-pieces';
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

/** A channel that is measured stretch by stretch: its block, and what takes long to make and can be used again. */
export class MeteredChannel {
  readonly block: ChannelBlock;
  private readonly spectra: Spectra | null;
  private isUsed = false;

  /**
   * @param sampleRate - in hertz
   * @param depth - what is measured
   */
  constructor(
    private readonly sampleRate: number,
    depth: Depth,
  ) {
    const room = sibilantRoom(sampleRate) + bandPowerRoom(sampleRate);
    this.block = depth === 'all' ? new ChannelBlock(room, dropOutPast(sampleRate)) : new ChannelBlock();
    this.spectra =
      depth === 'all'
        ? { sibilant: new SibilantFrames(sampleRate, this.block), bands: new BandPowerFrames(sampleRate, this.block) }
        : null;
  }

  /**
   * Begins a stretch; nothing of another one is left.
   *
   * @param stretch - the stretch
   * @param before - samples that the meters are primed with
   */
  begin(stretch: Stretch, before: number): ChannelMeters {
    const { block, sampleRate, spectra } = this;
    if (this.isUsed) {
      block.restart();
      spectra?.sibilant.restart();
      spectra?.bands.restart();
    }
    this.isUsed = true;
    return new ChannelMeters(sampleRate, block, spectra, before, stretch);
  }
}

interface Spectra {
  readonly sibilant: SibilantFrames;
  readonly bands: BandPowerFrames;
}

/** The meters of one channel over a stretch of a clip. */
export class ChannelMeters {
  private readonly level = new LevelMeter();
  private readonly power: FramePowerMeter;
  private readonly truePeak: TruePeakMeter;
  private readonly deep: DeepMeters | null;

  /**
   * @param sampleRate - in hertz
   * @param block - the block that is pushed
   * @param spectra - those over the same block; null where only levels are measured
   * @param before - samples that the meters are primed with
   * @param stretch - the stretch
   */
  constructor(
    sampleRate: number,
    private readonly block: ChannelBlock,
    spectra: Spectra | null,
    before: number,
    private readonly stretch: Stretch,
  ) {
    this.power = new FramePowerMeter(sampleRate, block);
    this.truePeak = new TruePeakMeter(block);
    this.deep = spectra && new DeepMeters(sampleRate, block, spectra, before, stretch);
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
  private readonly dropOuts: DropOutDetector;

  constructor(
    private readonly sampleRate: number,
    block: ChannelBlock,
    private readonly spectra: Spectra,
    before: number,
    private readonly stretch: Stretch,
  ) {
    this.lowBand = new LowBandFrames(sampleRate, block, stretch.from, before);
    this.dropOuts = new DropOutDetector(sampleRate, block, stretch.from - before);
  }

  prime(): void {
    this.lowBand.prime();
    this.spectra.sibilant.prime();
    this.spectra.bands.prime();
    this.dropOuts.prime();
  }

  push(): void {
    this.lowBand.push();
    this.spectra.sibilant.push();
    this.spectra.bands.push();
    this.dropOuts.push();
  }

  finish(): DeepReadings {
    const { from, to } = this.stretch;
    const { sibilant, bands } = this.spectra;
    if (to !== Infinity) this.lowBand.closeAt(((to - from) * FRAMES_PER_SECOND) / this.sampleRate);
    bands.finish();
    return {
      lowBand: this.lowBand.peaks.view().slice(),
      sibilants: sibilant.values.view().slice(),
      bands: bands.values.view().slice(),
      powerSum: bands.powerSum.slice(),
      frames: bands.frames,
      dropOuts: [this.dropOuts.read()],
    };
  }
}

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
    plain: joinedFloats(stretches.map((r) => r.plain)),
    kWeighted: joinedFloats(stretches.map((r) => r.kWeighted)),
    deep: deep.length === 0 ? null : joinDeep(deep),
  };
}

const joinDeep = (stretches: readonly DeepReadings[]): DeepReadings => ({
  lowBand: joinedFloats(stretches.map((r) => r.lowBand)),
  sibilants: joinedFloats(stretches.map((r) => r.sibilants)),
  bands: joinedFloats(stretches.map((r) => r.bands)),
  powerSum: stretches[0].powerSum.map((_, k) => stretches.reduce((s, r) => s + r.powerSum[k], 0)),
  frames: stretches.reduce((s, r) => s + r.frames, 0),
  dropOuts: stretches.flatMap((r) => r.dropOuts),
});
