declare module 'fft.js' {
  /** Fast Fourier transform of a fixed size, a power of two. Complex arrays hold real and imaginary parts in turn. */
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    /** Fills the first half of the spectrum. */
    realTransform(output: number[], input: readonly number[]): void;
  }
}
