/** fft.js comes without types; these are the parts that are used. */
declare module 'fft.js' {
  type Numbers = number[] | Float64Array;
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    realTransform(out: Numbers, from: Numbers | Float32Array): void;
    transform(out: Numbers, from: Numbers): void;
    inverseTransform(out: Numbers, from: Numbers): void;
  }
}
