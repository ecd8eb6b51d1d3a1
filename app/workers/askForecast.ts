import {
  answerForecastJob,
  type ForecastAnswers,
  type ForecastAsk,
  type ForecastJob,
  type ForecastReply,
} from './forecastJob'

type Answer = ForecastAnswers[keyof ForecastAnswers]

let worker: Worker | undefined
let nextId = 1
const waiting = new Map<string, { id: number; then: (answer: Answer) => void }>()

function receive(reply: ForecastReply) {
  const asker = waiting.get(reply.key)
  if (asker?.id !== reply.id) return
  waiting.delete(reply.key)
  if ('error' in reply) console.error('a forecast could not be made', reply.key, reply.error)
  else asker.then(reply.answer)
}

function open(): Worker | undefined {
  if (typeof Worker === 'undefined') return undefined
  const made = new Worker(new URL('./forecast.worker.ts', import.meta.url), { type: 'module' })
  made.onmessage = ({ data }: MessageEvent<ForecastReply>) => receive(data)
  return made
}

/** Asks the forecast worker; a newer question of the same key makes an older one pointless. */
export function askForecast<K extends ForecastAsk['kind']>(
  key: string,
  ask: Extract<ForecastAsk, { kind: K }>,
  then: (answer: ForecastAnswers[K]) => void,
): void {
  const job: ForecastJob = { id: nextId++, key, ask }
  waiting.set(key, { id: job.id, then: then as (answer: Answer) => void })
  worker ??= open()
  if (worker) worker.postMessage(job)
  else
    void answerForecastJob(job, () => waiting.get(key)?.id !== job.id).then(
      (reply) => reply && receive(reply),
    )
}
