import { answerForecastJob } from './forecastJob'
import type { ForecastJob, ForecastReply } from './forecastJob'

const context = self as unknown as {
  onmessage: ((message: MessageEvent<ForecastJob>) => void) | null
  postMessage: (reply: ForecastReply) => void
}
/** The latest job of each asker; an older one of the same is given up. */
const latest = new Map<string, number>()

context.onmessage = ({ data: job }) => {
  latest.set(job.key, job.id)
  void answerForecastJob(job, () => latest.get(job.key) !== job.id).then((reply) => {
    if (reply) context.postMessage(reply)
  })
}
