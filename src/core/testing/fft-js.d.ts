declare module 'fft.js' {
  /** Radix-4 complex FFT, interleaved; the reference for our own. */
  export default class FFT {
    constructor(size: number);
    transform(out: ArrayLike<number>, data: ArrayLike<number>): void;
  }
}
