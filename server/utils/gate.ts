/** Lets only so many in at once; the others wait their turn, their bodies unread. */
export class Gate {
  private inside = 0
  private readonly waiting: (() => void)[] = []

  constructor(private readonly most: number) {}

  async pass<T>(work: () => Promise<T>): Promise<T> {
    if (this.inside >= this.most) await new Promise<void>((go) => this.waiting.push(go))
    this.inside += 1
    try {
      return await work()
    } finally {
      this.inside -= 1
      this.waiting.shift()?.()
    }
  }
}

/** Pictures and files of pictures are large, unpacked more so. */
export const pictureGate = new Gate(2)
