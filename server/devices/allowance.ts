/** So much at once and so much a second after: for what may come in bursts, and not for ever. */
export class Allowance {
  private left: number
  private sinceMs: number | undefined

  constructor(
    private readonly atOnce: number,
    private readonly perS: number,
  ) {
    this.left = atOnce
  }

  /** Whether there is some left now; takes it. */
  take(nowMs: number): boolean {
    const passedMs = Math.max(0, nowMs - (this.sinceMs ?? nowMs))
    this.left = Math.min(this.atOnce, this.left + (passedMs / 1000) * this.perS)
    this.sinceMs = nowMs
    if (this.left < 1) return false
    this.left -= 1
    return true
  }
}
