import { ref } from 'vue'
import { elapsedMs } from '~/stores/clock'
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
interface Waiting {
  job: ForecastJob
  then: (answer: Answer) => void
  /** It could not be made: it may be asked for again. */
  failed: () => void
}
const waiting = new Map<string, Waiting>()

/** A worker that could not start may do so later: an upgrade has taken its file away, and brings another. */
const TRY_AGAIN_MS = 60_000
let failedAtMs = -Infinity
/** Whether forecasts are worked out beside everything else, for the worker does not start: slower, and said. */
export const isWithoutWorker = ref(false)

function receive(reply: ForecastReply) {
  const asker = waiting.get(reply.key)
  if (asker?.job.id !== reply.id) return
  waiting.delete(reply.key)
  if ('error' in reply) {
    console.error('a forecast could not be made', reply.key, reply.error)
    asker.failed()
  } else asker.then(reply.answer)
}

/** In slices, each of which leaves the window its breath. */
function answerHere(job: ForecastJob) {
  void answerForecastJob(job, () => waiting.get(job.key)?.job.id !== job.id).then(
    (reply) => reply && receive(reply),
  )
}

function open(): Worker | undefined {
  if (typeof Worker === 'undefined' || elapsedMs() - failedAtMs < TRY_AGAIN_MS) return undefined
  const made = new Worker(new URL('./forecast.worker.ts', import.meta.url), { type: 'module' })
  made.onmessage = ({ data }: MessageEvent<ForecastReply>) => {
    isWithoutWorker.value = false
    receive(data)
  }
  // A job that goes wrong answers with its error: this is a worker that is none.
  made.onerror = (event) => {
    event.preventDefault()
    console.error('the forecast worker does not start', event.message)
    made.terminate()
    if (worker === made) worker = undefined
    failedAtMs = elapsedMs()
    isWithoutWorker.value = true
    for (const { job } of waiting.values()) answerHere(job)
  }
  return made
}

/**
 * Asks the forecast worker; a newer question of the same key makes an older one pointless.
 * @param failed hears that there will be no answer to this one.
 */
export function askForecast<K extends ForecastAsk['kind']>(
  key: string,
  ask: Extract<ForecastAsk, { kind: K }>,
  then: (answer: ForecastAnswers[K]) => void,
  failed: () => void = () => {},
): void {
  const job: ForecastJob = { id: nextId++, key, ask }
  waiting.set(key, { job, then: then as (answer: Answer) => void, failed })
  worker ??= open()
  if (worker) worker.postMessage(job)
  else answerHere(job)
}
