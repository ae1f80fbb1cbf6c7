declare module 'jstat' {
  export const jStat: {
    chisquare: { inv(p: number, dof: number): number }
    binomial: { cdf(k: number, n: number, p: number): number }
    hypgeom: { pdf(k: number, N: number, m: number, n: number): number }
  }
  const whole: { jStat: typeof jStat }
  export default whole
}
