/** The parts that are used of a library that brings no types. */
declare module 'jstat' {
  const library: {
    jStat: {
      gammaln(x: number): number;
      /** Regularised incomplete beta function. */
      ibeta(x: number, a: number, b: number): number;
      /** Regularised lower incomplete gamma function. */
      lowRegGamma(a: number, x: number): number;
      normal: { cdf(x: number, mean: number, width: number): number };
    };
  };
  export default library;
}
