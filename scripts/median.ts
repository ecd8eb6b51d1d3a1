/** Median time of a call, ms, after a warm-up. */
export function medianMs(call: () => void, runs: number): number {
  for (let i = 0; i < 50; i++) call()
  const times = Array.from({ length: runs }, () => {
    const startMs = performance.now()
    call()
    return performance.now() - startMs
  }).sort((a, b) => a - b)
  return times[Math.floor(runs / 2)]!
}
