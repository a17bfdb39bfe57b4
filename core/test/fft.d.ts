declare module 'fft.js' {
  export default class FFT {
    constructor(size: number);
    createComplexArray(): unknown[];
    realTransform(out: unknown[], data: readonly number[]): void;
  }
}
