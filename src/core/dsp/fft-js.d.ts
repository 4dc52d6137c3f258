declare module 'fft.js' {
  /** Radix-4 complex FFT; tables are built once in the constructor. */
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    /** Interleaved complex in, interleaved complex out; `out` and `data` must differ. */
    transform(out: ArrayLike<number>, data: ArrayLike<number>): void;
  }
}
