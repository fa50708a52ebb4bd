declare module 'jstat' {
  const jStat: {
    normal: { cdf(x: number, mean: number, standardDeviation: number): number };
    beta: { inv(probability: number, alpha: number, beta: number): number };
  };
  export default jStat;
}
