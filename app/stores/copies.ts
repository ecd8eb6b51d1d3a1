import type { CastLine } from '~~/shared/records'
import { callApi, type ApiResult } from './api'
import { ANSWERS, openCopyBox, type Copy, type CopyBox } from './copyBox'
import { workshopClock } from './clock'

/** What this device keeps of its workshop: where the browser keeps nothing it is as if it kept nothing of it. */

let box: Promise<CopyBox | undefined> | undefined
export const copies = (): Promise<CopyBox | undefined> => (box ??= openCopyBox().catch(() => undefined))

/** The browser knows that there is no network; that there is one says nothing of the workshop. */
export const isOffline = () => globalThis.navigator?.onLine === false

const readAll = () => copies().then((held) => held?.allButAnswers())
/** Out of reach it is read while the page's own script still is: it is all there will be to draw. */
let firstRead = isOffline() ? readAll() : undefined
// Whoever wants it hears that it could not be read.
firstRead?.catch(() => undefined)

/** All that is kept but answers. @throws where the browser cannot read it. */
export function readCopies(): Promise<Copy[] | undefined> {
  const read = firstRead ?? readAll()
  firstRead = undefined
  return read
}

const CASTS = { kind: 'casts', id: 'last' }
/** The last casts as the log lists them, which are kept beside what was asked. */
export async function keepCasts(lines: readonly CastLine[]): Promise<void> {
  const copy = { ...CASTS, value: lines, atMs: Math.round(workshopClock.nowMs()) }
  await (await copies())?.write([copy])
}
export async function keptCasts(): Promise<readonly CastLine[] | undefined> {
  const held = await copies()
  return (await held?.one<readonly CastLine[]>(CASTS.kind, CASTS.id).catch(() => undefined))?.value
}

/** Longer than that a caster does not look at a page that says nothing. */
const MOST_WAIT_MS = 4000

/**
 * Asks the workshop what it knows of something, and keeps the answer: the next time it does not answer, that is what it
 * last said.
 */
export async function callKept<T>(path: string, query: Record<string, unknown> = {}): Promise<ApiResult<T>> {
  const id = `${path}?${new URLSearchParams(query as Record<string, string>)}`
  const asked = callApi<T>(path, { query })
  const kept = copies().then((held) => held?.one<T>(ANSWERS, id).catch(() => undefined))
  const late = new Promise<undefined>((resolve) => setTimeout(() => resolve(undefined), MOST_WAIT_MS))
  const first = await Promise.race([asked, late])
  const answer = first ?? ((await kept) ? undefined : await asked)
  if (answer?.ok) {
    const copy = { kind: ANSWERS, id, value: answer.value, atMs: Math.round(workshopClock.nowMs()) }
    void copies().then((held) => held?.write([copy]).catch(() => undefined))
    return answer
  }
  if (answer && answer.failure.code !== 'unavailable') return answer
  const held = await kept
  return held ? { ok: true, value: held.value } : (answer ?? (await asked))
}
