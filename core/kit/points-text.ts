/** Points for a page that has only decimals to show: "2", "0.5", "1.33". (`pointsText` in exact.ts reads exact rationals.) */
export function pointsText(value: number): string {
  return String(Math.round(value * 100) / 100)
}
