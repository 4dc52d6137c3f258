import { FRAMES_PER_SECOND } from './frame-power';

/** This share of a frame's power has to lie in the tone; speech and noise stay far below. */
const LEAST_SHARE = 0.8;
const LEAST_POWER = 1e-8;

/**
 * Marks the frames of 20 ms that hold hardly anything but a tone, by the Goertzel algorithm (Goertzel 1958). Frames of
 * 20 ms part tones 50 Hz from each other.
 */
export class ToneFrames {
  readonly marks: number[] = [];
  private readonly coefficient: number;
  private first = 0;
  private second = 0;
  private squares = 0;
  private position = 0;
  private frameEnd: number;

  /**
   * @param sampleRate - in hertz
   * @param hz - of the tone
   */
  constructor(
    private readonly sampleRate: number,
    hz: number,
  ) {
    this.coefficient = 2 * Math.cos((2 * Math.PI * hz) / sampleRate);
    this.frameEnd = Math.round(sampleRate / FRAMES_PER_SECOND);
  }

  /**
   * @param samples - one channel, full scale ±1
   * @param count - how many of them to take
   */
  push(samples: Float64Array, count: number): void {
    for (let i = 0; i < count; i++) {
      const x = samples[i];
      const next = x + this.coefficient * this.first - this.second;
      this.second = this.first;
      this.first = next;
      this.squares += x * x;
      if (++this.position === this.frameEnd) this.close();
    }
  }

  private close(): void {
    const frame = this.marks.length;
    const length = this.frameEnd - Math.round((frame * this.sampleRate) / FRAMES_PER_SECOND);
    const power = this.first ** 2 + this.second ** 2 - this.coefficient * this.first * this.second;
    // A sine of amplitude a over N samples: Goertzel power (a·N/2)², sum of squares a²·N/2.
    const share = this.squares > 0 ? (2 * power) / (length * this.squares) : 0;
    this.marks.push(share >= LEAST_SHARE && this.squares / length > LEAST_POWER ? 1 : 0);
    this.first = 0;
    this.second = 0;
    this.squares = 0;
    this.frameEnd = Math.round(((frame + 2) * this.sampleRate) / FRAMES_PER_SECOND);
  }
}
