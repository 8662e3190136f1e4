/** The part of jStat that is used here; the package ships no types. */
declare module 'jstat' {
  const jStat: {
    normal: {
      cdf(x: number, mean: number, sd: number): number;
      pdf(x: number, mean: number, sd: number): number;
    };
    studentt: { inv(p: number, degreesOfFreedom: number): number };
    median(values: number[]): number;
    mean(values: number[]): number;
    stdev(values: number[], sample: boolean): number;
    models: { ols(y: number[], x: number[][]): { coef: number[] } };
  };
  export default jStat;
}
