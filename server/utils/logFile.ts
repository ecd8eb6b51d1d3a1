import { open, rename, stat, type FileHandle } from 'node:fs/promises'

const MOST_FILE_BYTES = 4 * 1024 * 1024
/** The one written to, and those before it. */
const FILES = 4
/** Waits for the disk; what comes on top is lost. */
const MOST_WAITING_BYTES = 1024 * 1024
/** A disk that took nothing is asked again after this. */
const AGAIN_MS = 1000

/**
 * A log in files of bounded size, `path`, `path.1`, `path.2`… Writing to it never throws and never waits: what the disk
 * does not take is lost, and how much that was is said once it takes something again.
 */
export class LogFile {
  private waiting: string[] = []
  private waitingBytes = 0
  private lost = 0
  private file: FileHandle | undefined
  private fileBytes = 0
  private failedMs = -Infinity
  private writing: Promise<void> | undefined

  constructor(
    private readonly path: string,
    private readonly nowMs: () => number,
  ) {}

  write(line: string): void {
    const bytes = Buffer.byteLength(line)
    const isResting = this.nowMs() - this.failedMs < AGAIN_MS
    if (isResting || this.waitingBytes + bytes > MOST_WAITING_BYTES) {
      this.lost += 1
      return
    }
    this.waiting.push(line)
    this.waitingBytes += bytes
    this.writing ??= this.drain().finally(() => (this.writing = undefined))
  }

  /** Resolves when what was written so far lies on the disk, or is lost. */
  async flushed(): Promise<void> {
    await this.writing
  }

  private async drain(): Promise<void> {
    while (this.waiting.length > 0) {
      const lines = this.waiting
      this.waiting = []
      this.waitingBytes = 0
      if (this.lost > 0) lines.unshift(this.ofLost())
      const lost = this.lost
      this.lost = 0
      try {
        await this.append(lines.join(''))
      } catch {
        this.lost = lost + lines.length - (lost > 0 ? 1 : 0)
        this.failedMs = this.nowMs()
        await this.close()
        return
      }
    }
  }

  private ofLost(): string {
    return `${JSON.stringify({ level: 40, time: this.nowMs(), lost: this.lost, msg: 'lines of this log are lost: the disk did not take them' })}\n`
  }

  private async append(text: string): Promise<void> {
    const bytes = Buffer.from(text)
    if (this.file && this.fileBytes + bytes.length > MOST_FILE_BYTES) {
      await this.close()
      for (let nth = FILES - 1; nth > 0; nth--)
        await rename(nth === 1 ? this.path : `${this.path}.${nth - 1}`, `${this.path}.${nth}`).catch(() => {})
    }
    if (!this.file) {
      this.file = await open(this.path, 'a', 0o600)
      this.fileBytes = (await stat(this.path)).size
    }
    await this.file.appendFile(bytes)
    this.fileBytes += bytes.length
  }

  private async close(): Promise<void> {
    const file = this.file
    this.file = undefined
    await file?.close().catch(() => {})
  }
}
