import type { EvidenceOf, LearntForecast } from '#core/forecast'
import { answerForecastJob, type ForecastJob, type ForecastReply } from './forecastJob'

let worker: Worker | undefined
let nextId = 1
const waiting = new Map<string, { id: number; then: (learnt: LearntForecast) => void }>()

function receive(reply: ForecastReply) {
  const asker = waiting.get(reply.key)
  if (asker?.id !== reply.id) return
  waiting.delete(reply.key)
  if ('error' in reply) console.error('a forecast could not be made', reply.key, reply.error)
  else asker.then(reply.learnt)
}

function open(): Worker | undefined {
  if (typeof Worker === 'undefined') return undefined
  const made = new Worker(new URL('./forecast.worker.ts', import.meta.url), { type: 'module' })
  made.onmessage = ({ data }: MessageEvent<ForecastReply>) => receive(data)
  return made
}

/** Asks the worker what was learnt of a pour; a newer question of the same pour makes an older one pointless. */
export function askForecast(
  key: string,
  evidence: EvidenceOf,
  nowS: number,
  then: (learnt: LearntForecast) => void,
): void {
  const job: ForecastJob = { id: nextId++, key, evidence, nowS }
  waiting.set(key, { id: job.id, then })
  worker ??= open()
  if (worker) worker.postMessage(job)
  else
    void answerForecastJob(job, () => waiting.get(key)?.id !== job.id).then(
      (reply) => reply && receive(reply),
    )
}
