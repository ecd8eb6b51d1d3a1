/** How long to wait after so many failures in a row, ms: each time twice as long, up to the longest. */
export const backOffMs = (
  failures: number,
  { firstMs, longestMs }: { firstMs: number; longestMs: number },
): number => Math.min(longestMs, firstMs * 2 ** Math.max(0, failures - 1))
