/** Second-order section, normalised to a0 = 1: y = b0·x + b1·x₁ + b2·x₂ − a1·y₁ − a2·y₂. */
export interface Biquad {
  readonly b0: number;
  readonly b1: number;
  readonly b2: number;
  readonly a1: number;
  readonly a2: number;
}

/**
 * A cascade of sections with memory (transposed direct form II), for filtering blocks of one channel.
 * Starts at rest.
 */
export class BiquadCascade {
  private readonly state: Float64Array;

  constructor(private readonly sections: readonly Biquad[]) {
    this.state = new Float64Array(2 * sections.length);
  }

  /**
   * Filters in place.
   *
   * @param samples - any length; only the first `count` are touched
   * @param count - samples to filter
   */
  process(samples: Float64Array, count = samples.length): void {
    this.sections.forEach(({ b0, b1, b2, a1, a2 }, s) => {
      let z1 = this.state[2 * s];
      let z2 = this.state[2 * s + 1];
      for (let i = 0; i < count; i++) {
        const x = samples[i];
        const y = b0 * x + z1;
        z1 = b1 * x - a1 * y + z2;
        z2 = b2 * x - a2 * y;
        samples[i] = y;
      }
      this.state[2 * s] = z1;
      this.state[2 * s + 1] = z2;
    });
  }
}

/**
 * Magnitude of a cascade at one frequency.
 *
 * @param sections - the cascade
 * @param frequency - in hertz
 * @param sampleRate - in hertz
 * @returns gain in dB; −∞ at an exact zero
 */
export function cascadeGainDb(sections: readonly Biquad[], frequency: number, sampleRate: number): number {
  const w = (2 * Math.PI * frequency) / sampleRate;
  const c1 = Math.cos(w);
  const s1 = Math.sin(w);
  const c2 = Math.cos(2 * w);
  const s2 = Math.sin(2 * w);
  let power = 1;
  for (const { b0, b1, b2, a1, a2 } of sections) {
    const top = (b0 + b1 * c1 + b2 * c2) ** 2 + (b1 * s1 + b2 * s2) ** 2;
    const bottom = (1 + a1 * c1 + a2 * c2) ** 2 + (a1 * s1 + a2 * s2) ** 2;
    power *= top / bottom;
  }
  return 10 * Math.log10(power);
}
